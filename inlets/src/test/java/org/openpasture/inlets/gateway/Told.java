package org.openpasture.inlets.gateway;

import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.openpasture.core.lorawan.Eui64;

/** Writes down what an inlet tells, in order. */
public final class Told implements GatewayEvents {
    private final BlockingQueue<Object> told = new LinkedBlockingQueue<>();

    public record Refused(Optional<Eui64> gateway, String reason) {}

    public record Reachable(Eui64 gateway) {}

    public record Gone(Eui64 gateway) {}

    public record Transmitted(int token, Optional<String> error) {}

    /** The next that was told; null if nothing is for five seconds. */
    public Object next() throws InterruptedException {
        return told.poll(5, TimeUnit.SECONDS);
    }

    @Override
    public void frame(Eui64 eui, RadioFrame frame) {
        told.add(frame);
    }

    @Override
    public void status(Eui64 eui, GatewayStatus status) {
        told.add(status);
    }

    @Override
    public void reachable(Eui64 eui) {
        told.add(new Reachable(eui));
    }

    @Override
    public void gone(Eui64 eui) {
        told.add(new Gone(eui));
    }

    @Override
    public void refused(Optional<Eui64> eui, String sender, String reason) {
        told.add(new Refused(eui, reason));
    }

    @Override
    public void transmitted(Eui64 eui, int token, Optional<String> error) {
        told.add(new Transmitted(token, error));
    }
}
