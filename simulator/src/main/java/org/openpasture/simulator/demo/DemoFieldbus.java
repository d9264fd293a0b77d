package org.openpasture.simulator.demo;

import com.digitalpetri.modbus.server.ModbusTcpServer;
import com.digitalpetri.modbus.server.ProcessImage;
import com.digitalpetri.modbus.server.ReadWriteModbusServices;
import com.digitalpetri.modbus.tcp.server.NettyTcpServerTransport;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * The creamery's wired devices: a silo's transmitter and a power meter behind one Modbus TCP port, as units 1 and 2.
 */
final class DemoFieldbus implements AutoCloseable {
    static final int SILO = 1;
    static final int METER = 2;
    private final DemoWorld world;
    private final Clock clock;
    private final int port;
    private final ProcessImage silo = new ProcessImage();
    private final ProcessImage meter = new ProcessImage();
    private final ModbusTcpServer server;
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor();

    DemoFieldbus(DemoWorld world, Clock clock) throws IOException {
        this.world = world;
        this.clock = clock;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        server = ModbusTcpServer.create(
                NettyTcpServerTransport.create(
                        config -> config.setBindAddress("127.0.0.1").setPort(port)),
                new ReadWriteModbusServices() {
                    @Override
                    protected Optional<ProcessImage> getProcessImage(int unit) {
                        return unit == SILO ? Optional.of(silo) : unit == METER ? Optional.of(meter) : Optional.empty();
                    }
                });
        measure();
        try {
            server.start();
        } catch (ExecutionException e) {
            throw new IOException("the fieldbus devices cannot be played: " + e.getMessage(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        timer.scheduleAtFixedRate(this::measure, 1, 1, TimeUnit.SECONDS);
    }

    /** Where a unit is asked. */
    String address(int unit) {
        return "127.0.0.1:" + port + "/" + unit;
    }

    private void measure() {
        Instant now = clock.instant();
        int level = Float.floatToIntBits((float) world.siloLevel(3, now));
        silo.with(image -> {
            image.writeHoldingRegisters(registers -> {
                for (int at = 100; at < 110; at++) {
                    registers.put(at, word(0));
                }
                registers.put(100, word(level >>> 16));
                registers.put(101, word(level));
                registers.put(104, word((int) Math.round(world.siloTemperature(3, now) * 10)));
            });
            image.writeDiscreteInputs(inputs -> inputs.put(4, now.getEpochSecond() / 600 % 2 == 0));
        });
        int watts = Float.floatToIntBits((float) (world.plantPower(now) * 1_000));
        long energy = Math.round(world.plantEnergy(now) * 10);
        meter.with(image -> image.writeInputRegisters(registers -> {
            for (int at = 0; at < 60; at++) {
                registers.put(at, word(0));
            }
            registers.put(0, word((int) Math.round(world.mainsVoltage(now) * 10)));
            registers.put(12, word(watts >>> 16));
            registers.put(13, word(watts));
            registers.put(30, word((int) Math.round(world.mainsFrequency(now) * 100)));
            registers.put(40, word((int) energy));
            registers.put(41, word((int) (energy >>> 16)));
        }));
    }

    private static byte[] word(int number) {
        return new byte[] {(byte) (number >> 8), (byte) number};
    }

    @Override
    public void close() {
        timer.shutdownNow();
        try {
            server.stop();
        } catch (ExecutionException e) {
            // It was not running.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
