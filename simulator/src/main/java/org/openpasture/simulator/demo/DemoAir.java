package org.openpasture.simulator.demo;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/** The air between simulated devices and gateways: what is sent, when, and how well it is heard where. */
final class DemoAir implements AutoCloseable {
    private static final double[] CHANNELS_MHZ = {868.1, 868.3, 868.5};
    private final Clock clock;
    private final ScheduledExecutorService timer = Executors.newScheduledThreadPool(2);

    DemoAir(Clock clock) {
        this.clock = clock;
    }

    /** A way from a device to a gateway, with the signal at its end in dBm and dB. */
    record Path(SimulatedGateway gateway, double rssi, double snr) {}

    static Path heard(SimulatedGateway gateway, double rssi, double snr) {
        return new Path(gateway, rssi, snr);
    }

    /** Does something again and again; what fails is said, and tried again at its next turn. */
    void every(int seconds, int first, Runnable task) {
        timer.scheduleAtFixedRate(
                () -> {
                    try {
                        task.run();
                    } catch (RuntimeException e) {
                        System.err.println("simulated device: " + e);
                    }
                },
                first,
                seconds,
                TimeUnit.SECONDS);
    }

    void after(long millis, Runnable task) {
        timer.schedule(task, millis, TimeUnit.MILLISECONDS);
    }

    /** Gateways hear a frame, at the data rate that their weakest path allows. */
    static void hear(byte[] frame, List<Path> paths) {
        ThreadLocalRandom random = ThreadLocalRandom.current();
        double frequency = CHANNELS_MHZ[random.nextInt(CHANNELS_MHZ.length)];
        double weakest = paths.stream().mapToDouble(Path::snr).min().orElse(0);
        String dataRate =
                weakest < -14 ? "SF12BW125" : weakest < -6 ? "SF10BW125" : weakest < -2 ? "SF9BW125" : "SF7BW125";
        paths.forEach(path -> path.gateway()
                .hear(
                        frame,
                        path.rssi() + random.nextInt(-3, 4),
                        path.snr() + random.nextDouble(-1, 1),
                        dataRate,
                        frequency));
    }

    /** Joins first if the device has to, then sends what it measures. */
    Runnable reporting(SimulatedDevice device, int port, Function<Instant, byte[]> payload, List<Path> paths) {
        paths.forEach(path -> path.gateway().onDownlink(downlink -> {
            device.hearJoinAccept(downlink.bytes());
            device.hear(downlink.bytes());
        }));
        return () -> hear(
                device.isJoined() ? device.uplink(port, payload.apply(clock.instant()), false) : device.joinRequest(),
                paths);
    }

    @Override
    public void close() {
        timer.shutdownNow();
    }
}
