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
 * The creamery's wired devices behind one Modbus TCP port: a silo's transmitter, a power meter, the cooling of a cellar
 * whose fan can be switched, a gauge of two liquids and a compressor, as units 1 to 5.
 */
final class DemoFieldbus implements AutoCloseable {
    static final int SILO = 1;
    static final int METER = 2;
    static final int COOLING = 3;
    static final int WHEY = 4;
    static final int COMPRESSOR = 5;
    private final DemoWorld world;
    private final Clock clock;
    private final int port;
    private final ProcessImage silo = new ProcessImage();
    private final ProcessImage meter = new ProcessImage();
    private final ProcessImage cooling = new ProcessImage();
    private final ProcessImage whey = new ProcessImage();
    private final ProcessImage compressor = new ProcessImage();
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
                        return switch (unit) {
                            case SILO -> Optional.of(silo);
                            case METER -> Optional.of(meter);
                            case COOLING -> Optional.of(cooling);
                            case WHEY -> Optional.of(whey);
                            case COMPRESSOR -> Optional.of(compressor);
                            default -> Optional.empty();
                        };
                    }
                });
        cooling.with(image -> image.writeCoils(coils -> {
            coils.put(0, false);
            coils.put(1, false);
        }));
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
        utilities(now);
    }

    private void utilities(Instant now) {
        cooling.with(image -> {
            boolean[] fan = new boolean[1];
            image.readCoils(coils -> fan[0] = Boolean.TRUE.equals(coils.get(0)));
            world.setCellarFan(fan[0], now);
            image.writeDiscreteInputs(inputs -> inputs.put(0, world.isCellarDoorOpen(now)));
        });
        int surface = Float.floatToIntBits((float) world.wheySurface(now));
        int boundary = Float.floatToIntBits((float) world.wheyBoundary(now));
        whey.with(image -> image.writeHoldingRegisters(registers -> {
            registers.put(0, word(surface >>> 16));
            registers.put(1, word(surface));
            registers.put(2, word(boundary >>> 16));
            registers.put(3, word(boundary));
        }));
        compressor.with(image -> image.writeHoldingRegisters(registers -> {
            registers.put(0, word((int) Math.round(world.compressorDischarge(now) * 10)));
            registers.put(1, word((int) Math.round(world.oilPressure(now) * 100)));
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
