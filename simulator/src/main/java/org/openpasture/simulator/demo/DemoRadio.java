package org.openpasture.simulator.demo;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import org.openpasture.simulator.radio.SimulatedStation;

/** The creamery's radio: two gateways that overlap, four devices that report, and what goes wrong now and then. */
final class DemoRadio implements AutoCloseable {
    private static final double[] CHANNELS_MHZ = {868.1, 868.3, 868.5};
    private static final long[] CHANNELS_HZ = {868_100_000, 868_300_000, 868_500_000};
    private final DemoWorld world;
    private final Clock clock;
    private final SimulatedGateway wheyRoom;
    private final SimulatedGateway cellars;
    private final SimulatedGateway unknown;
    private final SimulatedStation roof;
    private final SimulatedDevice newSensor =
            SimulatedDevice.joining(Creamery.NEW_EUI, Creamery.JOIN_EUI, Creamery.NEW_KEY, 1);
    private volatile int valveOpening;
    private volatile boolean newSensorRuns;
    private final ScheduledExecutorService timer = Executors.newScheduledThreadPool(2);

    DemoRadio(InetSocketAddress service, int stationPort, DemoWorld world, Clock clock) throws IOException {
        this.world = world;
        this.clock = clock;
        wheyRoom = new SimulatedGateway(Creamery.GATEWAY_WHEY_ROOM, service);
        cellars = new SimulatedGateway(Creamery.GATEWAY_CELLARS, service);
        unknown = new SimulatedGateway(Creamery.GATEWAY_UNKNOWN, service);
        roof = new SimulatedStation(
                Creamery.STATION, URI.create("ws://" + service.getHostString() + ":" + stationPort), null, null);
    }

    void play() {
        int nonce = ThreadLocalRandom.current().nextInt(1, 60_000);
        SimulatedDevice pump = SimulatedDevice.joining(Creamery.PUMP_EUI, Creamery.JOIN_EUI, Creamery.PUMP_KEY, nonce);
        SimulatedDevice silo1 =
                SimulatedDevice.joining(Creamery.SILO1_EUI, Creamery.JOIN_EUI, Creamery.SILO1_KEY, nonce);
        SimulatedDevice silo2 = SimulatedDevice.personalised(
                Creamery.SILO2_EUI, Creamery.SILO2_ADDR, Creamery.SILO2_NWK, Creamery.SILO2_APP);
        SimulatedDevice cellar =
                SimulatedDevice.joining(Creamery.CELLAR_EUI, Creamery.JOIN_EUI, Creamery.CELLAR_KEY, nonce);
        SimulatedDevice spare = SimulatedDevice.joining(
                Creamery.SPARE_EUI, Creamery.JOIN_EUI, "000102030405060708090a0b0c0d0e0f", nonce);
        Runnable pumpReport =
                reporting(pump, 2, this::pumpPayload, List.of(heard(wheyRoom, -78, 8.5), heard(cellars, -104, -3.5)));
        every(10, 1, pumpReport);
        every(20, 2, reporting(silo1, 5, time -> tankPayload(1, time), List.of(heard(wheyRoom, -91, 6))));
        every(20, 7, reporting(silo2, 5, time -> tankPayload(2, time), List.of(heard(wheyRoom, -95, 4.5))));
        every(
                15,
                4,
                reporting(
                        cellar, 3, this::climatePayload, List.of(heard(cellars, -84, 9), heard(wheyRoom, -112, -9.5))));
        valve();
        lorry(nonce);
        newSensor();
        every(120, 20, () -> hear(spare.joinRequest(), List.of(heard(cellars, -99, 1))));
        SimulatedDevice stranger =
                SimulatedDevice.personalised("02ab5400000009ff", "01cc0909", "0f".repeat(16), "f0".repeat(16));
        every(
                60,
                12,
                () -> hear(
                        stranger.uplink(1, new byte[] {1, 2, 3}, false),
                        List.of(heard(unknown, -101, -2), heard(cellars, -110, -8))));
        every(180, 65, () -> {
            byte[] frame = silo2.uplink(5, tankPayload(2, clock.instant()), false);
            hear(frame, List.of(heard(wheyRoom, -95, 4)));
            timer.schedule(() -> hear(frame, List.of(heard(wheyRoom, -71, 10))), 8, TimeUnit.SECONDS);
        });
    }

    /** Listens always; does what it is told and says so at once. */
    private void valve() {
        SimulatedDevice valve = SimulatedDevice.joining(
                Creamery.VALVE_EUI,
                Creamery.JOIN_EUI,
                Creamery.VALVE_KEY,
                ThreadLocalRandom.current().nextInt(1, 60_000));
        valve.battery(0);
        List<Path> paths = List.of(heard(wheyRoom, -82, 7), heard(cellars, -101, -2));
        Runnable report = () -> hear(
                valve.isJoined() ? valve.uplink(3, new byte[] {(byte) valveOpening}, false) : valve.joinRequest(),
                paths);
        paths.forEach(path -> path.gateway().onDownlink(downlink -> {
            valve.hearJoinAccept(downlink.bytes());
            valve.hear(downlink.bytes()).ifPresent(told -> {
                if (told.port() == 20 && told.payload().length == 2 && told.payload()[0] == 0x0a) {
                    valveOpening = told.payload()[1] & 0xFF;
                }
                if (told.confirmed()) {
                    timer.schedule(report, 1_500, TimeUnit.MILLISECONDS);
                }
            });
        }));
        every(60, 6, report);
    }

    /** Drives its round about the creamery, heard by the station on the roof. */
    private void lorry(int nonce) {
        SimulatedDevice tracker =
                SimulatedDevice.joining(Creamery.LORRY_EUI, Creamery.JOIN_EUI, Creamery.LORRY_KEY, nonce);
        roof.onDownlink(downlink -> {
            tracker.hearJoinAccept(downlink.bytes());
            tracker.hear(downlink.bytes());
        });
        timer.schedule(
                () -> {
                    try {
                        roof.connect();
                    } catch (Exception e) {
                        System.err.println("the station could not connect: " + e);
                    }
                },
                0,
                TimeUnit.SECONDS);
        every(30, 9, () -> {
            double way = clock.instant().getEpochSecond() % 1_800 / 1_800.0 * 2 * Math.PI;
            byte[] payload = new Bytes()
                    .u32be(Math.round((54.21 + 0.03 * Math.sin(way)) * 1e6))
                    .u32be(Math.round((-2.34 + 0.05 * Math.cos(way)) * 1e6))
                    .u16be(Math.round((4.4 + 0.6 * Math.sin(3 * way)) * 100))
                    .u8(1)
                    .done();
            roof.hear(
                    tracker.isJoined() ? tracker.uplink(12, payload, false) : tracker.joinRequest(),
                    -92,
                    5.5,
                    5,
                    CHANNELS_HZ[ThreadLocalRandom.current().nextInt(3)]);
        });
    }

    /** A sensor in its box: it joins when its button is pressed, and reports from then on. */
    private void newSensor() {
        List<Path> paths = List.of(heard(cellars, -88, 6.5), heard(wheyRoom, -109, -7));
        paths.forEach(path -> path.gateway().onDownlink(downlink -> {
            newSensor.hearJoinAccept(downlink.bytes());
            newSensor.hear(downlink.bytes());
        }));
        every(15, 8, () -> {
            if (newSensorRuns) {
                hear(
                        newSensor.isJoined()
                                ? newSensor.uplink(3, climatePayload(clock.instant()), false)
                                : newSensor.joinRequest(),
                        paths);
            }
        });
    }

    /** Somebody presses the join button of the sensor that is not brought in yet. */
    void pressJoinButton() {
        newSensorRuns = true;
    }

    private void every(int seconds, int first, Runnable task) {
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

    private record Path(SimulatedGateway gateway, double rssi, double snr) {}

    private static Path heard(SimulatedGateway gateway, double rssi, double snr) {
        return new Path(gateway, rssi, snr);
    }

    private static void hear(byte[] frame, List<Path> paths) {
        ThreadLocalRandom random = ThreadLocalRandom.current();
        double frequency = CHANNELS_MHZ[random.nextInt(CHANNELS_MHZ.length)];
        double weakest = paths.stream().mapToDouble(Path::snr).min().orElse(0);
        String dataRate = weakest < -6 ? "SF10BW125" : weakest < -2 ? "SF9BW125" : "SF7BW125";
        paths.forEach(path -> path.gateway()
                .hear(
                        frame,
                        path.rssi() + random.nextInt(-3, 4),
                        path.snr() + random.nextDouble(-1, 1),
                        dataRate,
                        frequency));
    }

    /** Joins first if the device has to, then sends what it measures. */
    private Runnable reporting(SimulatedDevice device, int port, Function<Instant, byte[]> payload, List<Path> paths) {
        paths.forEach(path -> path.gateway().onDownlink(downlink -> {
            device.hearJoinAccept(downlink.bytes());
            device.hear(downlink.bytes());
        }));
        return () -> hear(
                device.isJoined() ? device.uplink(port, payload.apply(clock.instant()), false) : device.joinRequest(),
                paths);
    }

    private byte[] pumpPayload(Instant time) {
        return new Bytes()
                .u16be(Math.round(world.pump("axial", time) * 100))
                .u16be(Math.round(world.pump("horizontal", time) * 100))
                .u16be(Math.round(world.pump("vertical", time) * 100))
                .u16be(Math.round(world.pumpTemperature(time) * 10))
                .u16be(3580)
                .done();
    }

    private byte[] tankPayload(int silo, Instant time) {
        return new Bytes()
                .u16le(Math.round(4000 + world.siloLevel(silo, time) / 8 * 16_000))
                .u16le(Math.round(world.siloTemperature(silo, time) * 100))
                .done();
    }

    private byte[] climatePayload(Instant time) {
        return new Bytes()
                .u16be(Math.round(world.cellarTemperature(time) * 100))
                .u8(Math.round(world.cellarHumidity(time) * 2))
                .u16be(Math.round(world.cellarCarbonDioxide(time)))
                .u16be(Math.round(world.cellarAmmonia(time) * 10))
                .u16be(3310)
                .done();
    }

    @Override
    public void close() {
        timer.shutdownNow();
        wheyRoom.close();
        cellars.close();
        unknown.close();
        roof.close();
    }
}
