package org.openpasture.engine.radio;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DutyCycle;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.TimeOnAir;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.gateway.Order;
import org.springframework.stereotype.Component;

/**
 * Sends frames to devices. Each window is tried by the gateway that heard the device best, then by the others, then the
 * next window. A gateway that says it cannot (too late, a collision), that cannot be reached, or whose ration of air is
 * used up, is passed over.
 */
@Component
public class DownlinkSender {
    private static final int MOST_PENDING = 10_000;
    private static final Duration PATIENCE = Duration.ofSeconds(3);

    /** What became of a frame. */
    sealed interface Outcome {
        /**
         * It was handed to a gateway that did not say no.
         *
         * @param confirmed whether the gateway said that it will send it; old ones say nothing
         */
        record Sent(Eui64 gateway, Order.Window window, boolean confirmed) implements Outcome {}

        record NotSent(Cause cause, String reason) implements Outcome {}
    }

    /** One way to send a frame. */
    private record Attempt(Eui64 gateway, @Nullable Reception after, int window) {}

    private static final class Job {
        private final byte[] bytes;
        private final Eui64 device;
        private final List<Order.Window> windows;
        private final List<Attempt> attempts = new ArrayList<>();
        private final Set<Attempt> taken = new HashSet<>();
        private final List<String> refusals = new ArrayList<>();
        private final Consumer<Outcome> done;
        private Cause cause = Cause.NOT_SENT;
        private int next;
        private boolean ended;

        Job(byte[] bytes, Eui64 device, List<Order.Window> windows, Consumer<Outcome> done) {
            this.bytes = bytes;
            this.device = device;
            this.windows = windows;
            this.done = done;
        }
    }

    private record Pending(Job job, Attempt attempt) {}

    private final RadioThread thread;
    private final RadioPlan plan;
    private final Clock clock;
    private final List<GatewayLink> links = new CopyOnWriteArrayList<>();
    private final Map<String, Pending> pending = new ConcurrentHashMap<>();
    private final AtomicInteger tokens = new AtomicInteger();
    /** On the network's thread only. */
    private final Map<Eui64, DutyCycle> rations = new ConcurrentHashMap<>();

    private @Nullable Region rationed;

    DownlinkSender(RadioThread thread, RadioPlan plan, Clock clock) {
        this.thread = thread;
        this.plan = plan;
        this.clock = clock;
    }

    void use(GatewayLink link) {
        links.add(link);
    }

    /**
     * Answers an uplink.
     *
     * @param receptions how the gateways heard it, the best first
     * @param done is told on the network's thread what became of it
     */
    void answer(
            byte[] bytes,
            Eui64 device,
            List<Reception> receptions,
            List<Order.Window> windows,
            Consumer<Outcome> done) {
        Job job = new Job(bytes, device, windows, done);
        for (int window = 0; window < windows.size(); window++) {
            for (Reception reception : receptions) {
                job.attempts.add(new Attempt(reception.gateway(), reception, window));
            }
        }
        thread.run(() -> tryNext(job));
    }

    /** Sends at once, to a device that always listens. */
    void sendNow(byte[] bytes, Eui64 device, List<Eui64> gateways, Order.Window window, Consumer<Outcome> done) {
        Job job = new Job(bytes, device, List.of(window), done);
        gateways.forEach(gateway -> job.attempts.add(new Attempt(gateway, null, 0)));
        thread.run(() -> tryNext(job));
    }

    private void tryNext(Job job) {
        while (job.next < job.attempts.size()) {
            Attempt attempt = job.attempts.get(job.next++);
            if (!job.taken.contains(attempt) && handed(job, attempt)) {
                return;
            }
        }
        end(
                job,
                new Outcome.NotSent(
                        job.cause,
                        job.refusals.isEmpty()
                                ? "none of the gateways that heard the device can be reached for sending"
                                : String.join(
                                        "; ", job.refusals.stream().distinct().toList())));
    }

    private boolean handed(Job job, Attempt attempt) {
        Order.Window window = job.windows.get(attempt.window());
        Duration air = TimeOnAir.of(window.dataRate(), job.bytes.length, false);
        if (!ration(attempt.gateway()).allows(window.frequencyHz(), air, clock.instant())) {
            job.refusals.add(window.name() + ": the gateway's ration of air at " + window.frequencyHz() / 1e6
                    + " MHz is used up for now");
            return false;
        }
        int token = tokens.incrementAndGet() & 0xFFFF;
        String key = key(attempt.gateway(), token);
        for (GatewayLink link : links) {
            if (pending.size() >= MOST_PENDING) {
                pending.clear();
            }
            // Noted before it is handed over: the gateway's answer may come at once.
            pending.put(key, new Pending(job, attempt));
            int windows = link.hand(
                    attempt.gateway(),
                    token,
                    new Order(job.bytes, job.device, attempt.after(), job.windows),
                    attempt.window());
            if (windows > 0) {
                for (int i = 1; i < windows; i++) {
                    job.taken.add(new Attempt(attempt.gateway(), attempt.after(), attempt.window() + i));
                }
                ration(attempt.gateway()).sent(window.frequencyHz(), air, clock.instant());
                int last = job.windows.get(attempt.window() + windows - 1).delaySeconds();
                thread.after(TimeUnit.SECONDS.toNanos(last) + PATIENCE.toNanos(), () -> assumeSent(key));
                return true;
            }
            pending.remove(key);
        }
        return false;
    }

    /** Some forwarders never answer; what they did not refuse is taken as sent. */
    private void assumeSent(String key) {
        Pending sent = pending.remove(key);
        if (sent != null) {
            end(
                    sent.job(),
                    new Outcome.Sent(
                            sent.attempt().gateway(),
                            sent.job().windows.get(sent.attempt().window()),
                            false));
        }
    }

    /** A gateway said what became of a downlink. */
    void transmitted(Eui64 gateway, int token, Optional<String> error) {
        Pending sent = pending.remove(key(gateway, token));
        if (sent == null) {
            return;
        }
        Order.Window window = sent.job().windows.get(sent.attempt().window());
        thread.run(() -> {
            if (error.isEmpty()) {
                end(sent.job(), new Outcome.Sent(gateway, window, true));
            } else {
                sent.job().refusals.add(window.name() + ": the gateway says " + inWords(error.get()));
                sent.job().cause = cause(error.get());
                tryNext(sent.job());
            }
        });
    }

    private static Cause cause(String error) {
        return switch (error) {
            case "TOO_LATE", "TOO_EARLY" -> Cause.TOO_LATE;
            case "TX_FREQ" -> Cause.OTHER_BAND;
            default -> Cause.NOT_SENT;
        };
    }

    private static String inWords(String error) {
        return switch (error) {
            case "TOO_LATE" ->
                "that it got the answer too late (TOO_LATE): its way to here is slow, or its clock wrong";
            case "TOO_EARLY" -> "that the time lies too far ahead (TOO_EARLY): it was restarted meanwhile";
            case "COLLISION_PACKET" -> "that it sends something else then (COLLISION_PACKET)";
            case "COLLISION_BEACON" -> "that it sends a beacon then (COLLISION_BEACON)";
            case "TX_FREQ" -> "that it cannot send at this frequency (TX_FREQ): its band is another";
            case "TX_POWER" -> "that it cannot send with this power (TX_POWER)";
            case "GPS_UNLOCKED" -> "that it does not know the time (GPS_UNLOCKED)";
            default -> error;
        };
    }

    private void end(Job job, Outcome outcome) {
        if (!job.ended) {
            job.ended = true;
            job.done.accept(outcome);
        }
    }

    private DutyCycle ration(Eui64 gateway) {
        Region region = plan.now().region();
        if (!region.equals(rationed)) {
            rations.clear();
            rationed = region;
        }
        return rations.computeIfAbsent(gateway, key -> new DutyCycle(region));
    }

    /** The share of its ration of air that a gateway has used in the last hour; told on the network's thread. */
    public void usedShare(Eui64 gateway, Consumer<Double> told) {
        thread.run(() -> told.accept(ration(gateway).usedShare(clock.instant())));
    }

    private static String key(Eui64 gateway, int token) {
        return gateway + "/" + token;
    }
}
