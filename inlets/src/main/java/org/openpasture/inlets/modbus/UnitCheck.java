package org.openpasture.inlets.modbus;

import com.digitalpetri.modbus.ModbusTcpFrame;
import com.digitalpetri.modbus.client.ModbusTcpClientTransport;
import java.util.OptionalInt;
import java.util.concurrent.CompletionStage;
import java.util.function.Consumer;

/**
 * Lets only answers of the unit through that was asked last: what finds the question to an answer looks at the
 * transaction's number alone.
 */
final class UnitCheck implements ModbusTcpClientTransport {
    private final ModbusTcpClientTransport transport;
    private volatile int asked = -1;
    private volatile int stray = -1;

    UnitCheck(ModbusTcpClientTransport transport) {
        this.transport = transport;
    }

    /** The unit that answered instead of the one that was asked last; empty if none did. */
    OptionalInt stray() {
        return stray < 0 ? OptionalInt.empty() : OptionalInt.of(stray);
    }

    @Override
    public CompletionStage<Void> connect() {
        return transport.connect();
    }

    @Override
    public CompletionStage<Void> disconnect() {
        return transport.disconnect();
    }

    @Override
    public boolean isConnected() {
        return transport.isConnected();
    }

    @Override
    public CompletionStage<Void> send(ModbusTcpFrame frame) {
        asked = frame.header().unitId();
        stray = -1;
        return transport.send(frame);
    }

    @Override
    public void receive(Consumer<ModbusTcpFrame> consumer) {
        transport.receive(frame -> {
            if (frame.header().unitId() == asked) {
                consumer.accept(frame);
            } else {
                stray = frame.header().unitId();
            }
        });
    }
}
