package org.openpasture.inlets.modbus;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.RegisterImage;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.inlets.poll.Attendance;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Poller;
import org.openpasture.inlets.poll.Rota;
import org.openpasture.inlets.poll.Target;
import org.openpasture.inlets.reach.Reach;

/**
 * Asks Modbus devices. Devices behind one connection or serial line are asked one after the other, devices with
 * connections of their own side by side.
 */
public final class ModbusPoller implements Poller {
    private final Source.Modbus source;
    private final Reach reach;
    private final PollSink sink;
    private final Clock clock;
    private final Attendance attendance;
    private final Map<String, Line> lines = new ConcurrentHashMap<>();

    private record Line(ModbusLine connection, Rota rota) {}

    /** A poller that asks nobody yet. */
    public ModbusPoller(Source.Modbus source, Reach reach, PollSink sink, Clock clock) {
        this.reach = reach;
        this.source = source;
        this.sink = sink;
        this.clock = clock;
        this.attendance = new Attendance(sink);
    }

    @Override
    public String address() {
        return source.address();
    }

    @Override
    public synchronized void ask(List<Target> targets) {
        attendance.of(targets.stream().map(Target::deviceId).toList());
        Map<String, List<Target>> byLine = targets.stream().collect(Collectors.groupingBy(this::lineOf));
        lines.keySet().stream().filter(key -> !byLine.containsKey(key)).toList().forEach(key -> {
            Line gone = lines.remove(key);
            if (gone != null) {
                gone.rota().close();
            }
        });
        byLine.forEach((key, of) -> lines.computeIfAbsent(key, name -> open(name, of.getFirst()))
                .rota()
                .ask(of));
    }

    private Line open(String name, Target first) {
        ModbusLine connection = connection(first);
        return new Line(connection, new Rota("modbus-" + name, new Registers(connection), sink, clock));
    }

    @Override
    public Optional<PollSink.Round> askNow(Target target) {
        return Optional.ofNullable(lines.get(lineOf(target)))
                .map(line -> line.rota().askNow(target));
    }

    @Override
    public Optional<String> identity(Target target) {
        Line line = lines.get(lineOf(target));
        if (line == null) {
            return Optional.empty();
        }
        try {
            return line.rota().using(() -> line.connection().identity(unit(target)));
        } catch (ModbusLine.Dead e) {
            return Optional.empty();
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void set(Target target, String channel, double value) throws SetFailed {
        if (!(target.layout() instanceof RegisterLayout layout)) {
            throw new IllegalArgumentException("its model has no register map");
        }
        RegisterLayout.Write write = layout.write(channel, value);
        Line line = lines.get(lineOf(target));
        if (line == null) {
            throw new SetFailed("it is not asked: it or its inlet is paused");
        }
        try {
            line.rota().using(() -> {
                line.connection().write(unit(target), write);
                return true;
            });
        } catch (ModbusLine.Refused | ModbusLine.Dead e) {
            throw new SetFailed(String.valueOf(e.getMessage()));
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private String lineOf(Target target) {
        return switch (source) {
            case Source.ModbusTcp tcp -> {
                ModbusAddress address = ModbusAddress.of(target.address());
                yield address.host() + ":" + address.port();
            }
            case Source.ModbusRtuOverTcp rtu -> "line";
            case Source.ModbusSerial serial -> "line";
        };
    }

    private ModbusLine connection(Target first) {
        return switch (source) {
            case Source.ModbusTcp tcp -> {
                ModbusAddress address = ModbusAddress.of(first.address());
                yield ModbusLine.tcp(address.host(), address.port(), tcp.timeoutMillis(), reach);
            }
            case Source.ModbusRtuOverTcp rtu -> ModbusLine.rtuOverTcp(rtu, reach);
            case Source.ModbusSerial serial -> ModbusLine.serial(serial);
        };
    }

    private int unit(Target target) {
        return source instanceof Source.ModbusTcp
                ? ModbusAddress.of(target.address()).unit()
                : ModbusAddress.unit(target.address());
    }

    /** The registers of all devices of a line. */
    private final class Registers implements Rota.Wire {
        private final ModbusLine connection;

        private Registers(ModbusLine connection) {
            this.connection = connection;
        }

        @Override
        public PollSink.Answer ask(Target target) {
            List<RegisterImage.Block> blocks = new ArrayList<>();
            List<String> problems = new ArrayList<>();
            try {
                List<RegisterLayout.Request> requests =
                        target.layout() instanceof RegisterLayout layout ? layout.requests() : List.of();
                for (RegisterLayout.Request request : requests) {
                    try {
                        blocks.add(new RegisterImage.Block(
                                request.table(), request.from(), connection.read(unit(target), request)));
                    } catch (ModbusLine.Refused e) {
                        problems.add(String.valueOf(e.getMessage()));
                    }
                }
            } catch (ModbusLine.Dead | IllegalArgumentException e) {
                // An address that is none, for instance: registered before the inlet became one for Modbus.
                problems.add(String.valueOf(e.getMessage()));
            }
            return new PollSink.Answer(
                    new RegisterImage(blocks).toBytes(), !blocks.isEmpty(), String.join("; ", problems));
        }

        @Override
        public void asked(Target target, PollSink.Answer answer) {
            attendance.note(target.deviceId(), answer.something());
        }

        @Override
        public void close() {
            connection.close();
        }
    }

    @Override
    public synchronized void close() {
        lines.values().forEach(line -> line.rota().close());
        lines.clear();
    }
}
