package org.openpasture.simulator.demo;

import static org.openpasture.simulator.demo.DemoAir.hear;
import static org.openpasture.simulator.demo.DemoAir.heard;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import org.openpasture.simulator.demo.DemoAir.Path;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import org.openpasture.simulator.radio.SimulatedStation;

/** The creamery's radio: two gateways that overlap, four devices that report, and what goes wrong now and then. */
final class DemoRadio implements AutoCloseable {
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
    private final DemoAir air;

    DemoRadio(InetSocketAddress service, int stationPort, DemoWorld world, Clock clock) throws IOException {
        this.world = world;
        this.clock = clock;
        air = new DemoAir(clock);
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
        Runnable pumpReport = air.reporting(
                pump, 2, this::pumpPayload, List.of(heard(wheyRoom, -78, 8.5), heard(cellars, -104, -3.5)));
        air.every(10, 1, pumpReport);
        air.every(20, 2, air.reporting(silo1, 5, time -> tankPayload(1, time), List.of(heard(wheyRoom, -91, 6))));
        air.every(20, 7, air.reporting(silo2, 5, time -> tankPayload(2, time), List.of(heard(wheyRoom, -95, 4.5))));
        air.every(
                15,
                4,
                air.reporting(
                        cellar,
                        3,
                        time -> climatePayload(1, time),
                        List.of(heard(cellars, -84, 9), heard(wheyRoom, -112, -9.5))));
        for (int number = 2; number <= 3; number++) {
            int which = number;
            Sender sender = which == 2 ? Creamery.CELLAR_2 : Creamery.CELLAR_3;
            air.every(
                    15,
                    4 + which,
                    air.reporting(
                            sender.device(nonce),
                            3,
                            time -> climatePayload(which, time),
                            List.of(heard(cellars, -80 - 3 * which, 9 - which))));
        }
        air.every(
                10,
                3,
                air.reporting(
                        Creamery.COMPRESSOR.device(nonce),
                        2,
                        this::compressorPayload,
                        List.of(heard(wheyRoom, -88, 6.5))));
        air.every(
                30,
                11,
                air.reporting(
                        Creamery.BOILER_GAS.device(nonce),
                        13,
                        time -> new Bytes()
                                .u16be(Math.round(world.boilerCarbonMonoxide(time) * 10))
                                .done(),
                        List.of(heard(wheyRoom, -93, 5))));
        valve();
        lorry(nonce);
        newSensor();
        air.every(120, 20, () -> hear(spare.joinRequest(), List.of(heard(cellars, -99, 1))));
        SimulatedDevice stranger =
                SimulatedDevice.personalised("02ab5400000009ff", "01cc0909", "0f".repeat(16), "f0".repeat(16));
        air.every(
                60,
                12,
                () -> hear(
                        stranger.uplink(1, new byte[] {1, 2, 3}, false),
                        List.of(heard(unknown, -101, -2), heard(cellars, -110, -8))));
        air.every(180, 65, () -> {
            byte[] frame = silo2.uplink(5, tankPayload(2, clock.instant()), false);
            hear(frame, List.of(heard(wheyRoom, -95, 4)));
            air.after(8_000, () -> hear(frame, List.of(heard(wheyRoom, -71, 10))));
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
                    air.after(1_500, report);
                }
            });
        }));
        air.every(60, 6, report);
    }

    /** Drives its round about the creamery, heard by the station on the roof. */
    private void lorry(int nonce) {
        SimulatedDevice tracker =
                SimulatedDevice.joining(Creamery.LORRY_EUI, Creamery.JOIN_EUI, Creamery.LORRY_KEY, nonce);
        roof.onDownlink(downlink -> {
            tracker.hearJoinAccept(downlink.bytes());
            tracker.hear(downlink.bytes());
        });
        air.after(0, () -> {
            try {
                roof.connect();
            } catch (Exception e) {
                System.err.println("the station could not connect: " + e);
            }
        });
        air.every(30, 9, () -> {
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
        air.every(15, 8, () -> {
            if (newSensorRuns) {
                hear(
                        newSensor.isJoined()
                                ? newSensor.uplink(3, climatePayload(1, clock.instant()), false)
                                : newSensor.joinRequest(),
                        paths);
            }
        });
    }

    /** Somebody presses the join button of the sensor that is not brought in yet. */
    void pressJoinButton() {
        newSensorRuns = true;
    }

    private byte[] compressorPayload(Instant time) {
        return new Bytes()
                .u16be(Math.round(world.compressor("axial", time) * 100))
                .u16be(Math.round(world.compressor("horizontal", time) * 100))
                .u16be(Math.round(world.compressor("vertical", time) * 100))
                .u16be(Math.round((world.compressorDischarge(time) - 26) * 10))
                .u16be(3560)
                .done();
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

    private byte[] climatePayload(int cellar, Instant time) {
        return new Bytes()
                .u16be(Math.round(world.cellarTemperature(cellar, time) * 100))
                .u8(Math.round(world.cellarHumidity(cellar, time) * 2))
                .u16be(Math.round(world.cellarCarbonDioxide(cellar, time)))
                .u16be(Math.round(world.cellarAmmonia(cellar, time) * 10))
                .u16be(3310)
                .done();
    }

    @Override
    public void close() {
        air.close();
        wheyRoom.close();
        cellars.close();
        unknown.close();
        roof.close();
    }
}
