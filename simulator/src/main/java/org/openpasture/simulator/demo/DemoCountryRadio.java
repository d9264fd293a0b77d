package org.openpasture.simulator.demo;

import static org.openpasture.simulator.demo.DemoAir.heard;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedGateway;

/** The radio of the farm and of the spring: a gateway each; the way from the intake is as long as it can be. */
final class DemoCountryRadio implements AutoCloseable {
    private static final int LEVEL_PORT = 8;
    private static final double GOOD_CELL_VOLTS = 3.58;

    private final CountryWorld world;
    private final DemoAir air;
    private final SimulatedGateway farm;
    private final SimulatedGateway spring;

    DemoCountryRadio(InetSocketAddress service, CountryWorld world, Clock clock) throws IOException {
        this.world = world;
        air = new DemoAir(clock);
        farm = new SimulatedGateway(Farm.GATEWAY, service);
        spring = new SimulatedGateway(Spring.GATEWAY, service);
    }

    void play() {
        sends(Farm.VACUUM_PUMP, farm, -83, 8, 15, 2, this::vacuumPump);
        sends(Farm.MILK_TANK, farm, -79, 9, 20, 7, this::bulkTank);
        sends(Farm.SLURRY, farm, -101, -1, 30, LEVEL_PORT, level(world::slurry));
        sends(Farm.FEED, farm, -92, 5, 30, LEVEL_PORT, level(world::feed));
        sends(Farm.TROUGH, farm, -107, -5, 30, LEVEL_PORT, level(world::trough));
        sends(Farm.SOIL, farm, -110, -7.5, 30, 10, this::soil);
        sends(Spring.INTAKE, spring, -121, -17.8, 60, LEVEL_PORT, this::intake);
        sends(Spring.RESERVOIR, spring, -95, 4, 30, LEVEL_PORT, level(world::reservoir));
        sends(Spring.TURBINE, spring, -71, 10, 15, 2, this::turbine);
        sends(Spring.GENERATOR, spring, -70, 10, 20, 11, time -> new Bytes()
                .u16be(Math.round(world.turbineVoltage(time) * 10))
                .u16be(Math.round(world.turbineFrequency(time) * 100))
                .done());
        sends(Spring.BATTERIES, spring, -69, 10, 30, 12, time -> new Bytes()
                .u16be(Math.round(world.bankVoltage(time) * 100))
                .u16be(Math.round(world.bankCurrent(time) * 10))
                .done());
    }

    private void sends(
            Sender sender,
            SimulatedGateway to,
            double rssi,
            double snr,
            int seconds,
            int port,
            Function<Instant, byte[]> payload) {
        ThreadLocalRandom random = ThreadLocalRandom.current();
        air.every(
                seconds,
                random.nextInt(2, 15),
                air.reporting(sender.device(random.nextInt(1, 60_000)), port, payload, List.of(heard(to, rssi, snr))));
    }

    private Function<Instant, byte[]> level(Function<Instant, Double> metres) {
        return time -> levelPayload(metres.apply(time), GOOD_CELL_VOLTS);
    }

    private byte[] intake(Instant time) {
        return levelPayload(world.intake(time), world.intakeBattery(time));
    }

    private static byte[] levelPayload(double metres, double volts) {
        return new Bytes()
                .u16be(Math.round(metres * 1_000))
                .u16be(Math.round(volts * 1_000))
                .done();
    }

    private byte[] vacuumPump(Instant time) {
        return vibration(direction -> world.vacuumPump(direction, time), world.vacuumPumpTemperature(time));
    }

    private byte[] turbine(Instant time) {
        return vibration(direction -> world.turbine(direction, time), world.turbineTemperature(time));
    }

    private static byte[] vibration(Function<String, Double> velocity, double celsius) {
        return new Bytes()
                .u16be(Math.round(velocity.apply("axial") * 100))
                .u16be(Math.round(velocity.apply("horizontal") * 100))
                .u16be(Math.round(velocity.apply("vertical") * 100))
                .u16be(Math.round(celsius * 10))
                .u16be(Math.round(GOOD_CELL_VOLTS * 1_000))
                .done();
    }

    private byte[] bulkTank(Instant time) {
        return new Bytes()
                .u16be(Math.round(world.bulkMilk(time) * 100))
                .u8(world.isMilkCooled(time) ? 1 : 0)
                .done();
    }

    private byte[] soil(Instant time) {
        DoubleUnaryOperator quarters = percent -> percent * 4;
        return new Bytes()
                .u8(Math.round(quarters.applyAsDouble(world.soil(20, time))))
                .u8(Math.round(quarters.applyAsDouble(world.soil(40, time))))
                .u8(Math.round(quarters.applyAsDouble(world.soil(60, time))))
                .u16be(Math.round(world.soilTemperature(time) * 100))
                .u16be(2_870)
                .done();
    }

    @Override
    public void close() {
        air.close();
        farm.close();
        spring.close();
    }
}
