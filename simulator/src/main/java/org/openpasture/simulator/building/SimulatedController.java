package org.openpasture.simulator.building;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.SocketAddress;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.ToDoubleFunction;

/**
 * A building controller that speaks BACnet/IP (ASHRAE 135): says that it is there, reads one property or several, is
 * written to, tells of changes, and keeps a trend log of its first object.
 */
public final class SimulatedController implements AutoCloseable {
    private static final Duration LOGGED_EVERY = Duration.ofMinutes(5);
    private static final Duration LOG_REACHES_BACK = Duration.ofDays(3);
    private static final int MOST_ENTRIES = 40;
    private static final int DEVICE_TYPE = 8;
    private static final int LOG_TYPE = 20;
    private static final int OBJECT_NAME = 77;
    private static final int OBJECT_LIST = 76;
    private static final int PRESENT_VALUE = 85;
    private static final int STATUS_FLAGS = 111;
    private static final int UNITS = 117;
    private final DatagramSocket socket;
    private final int device;
    private final String name;
    private final ZoneId zone;
    private final List<Thing> things;
    private final Clock clock;
    private final Map<Integer, Double> written = new ConcurrentHashMap<>();
    private final Map<String, Subscription> subscriptions = new ConcurrentHashMap<>();
    private final Deque<Entry> log = new ArrayDeque<>();
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor();

    /**
     * An object.
     *
     * @param type 0 analog input, 1 analog output, 4 binary output, 2 analog value
     * @param unit by the standard's numbers; -1 for none
     * @param step a change by as much is told to subscribers
     */
    public record Thing(int type, int instance, String name, int unit, double step, ToDoubleFunction<Instant> value) {
        int id() {
            return type << 22 | instance;
        }

        boolean isBinary() {
            return type == 3 || type == 4 || type == 5;
        }

        boolean isWritable() {
            return type == 1 || type == 2 || type == 4 || type == 5;
        }
    }

    private record Entry(Instant time, float value) {}

    private record Subscription(SocketAddress to, int process, Thing thing, Instant until, double told) {}

    public SimulatedController(int port, int device, String name, ZoneId zone, List<Thing> things, Clock clock)
            throws IOException {
        this.socket = new DatagramSocket(port, InetAddress.getLoopbackAddress());
        this.device = device;
        this.name = name;
        this.zone = zone;
        this.things = List.copyOf(things);
        this.clock = clock;
        Instant now = clock.instant();
        for (Instant at = now.minus(LOG_REACHES_BACK); at.isBefore(now); at = at.plus(LOGGED_EVERY)) {
            log.addLast(new Entry(at, (float) things.getFirst().value().applyAsDouble(at)));
        }
        Thread.ofVirtual().name("controller-" + device).start(this::run);
        timer.scheduleAtFixedRate(this::tick, 1, 1, TimeUnit.SECONDS);
    }

    public int port() {
        return socket.getLocalPort();
    }

    /** What somebody wrote to an object; empty if it was let go. */
    public Optional<Double> written(int type, int instance) {
        return Optional.ofNullable(written.get(type << 22 | instance));
    }

    private double value(Thing thing) {
        Double wanted = written.get(thing.id());
        return wanted != null ? wanted : thing.value().applyAsDouble(clock.instant());
    }

    private synchronized void tick() {
        Instant now = clock.instant();
        if (log.isEmpty() || !now.isBefore(log.getLast().time().plus(LOGGED_EVERY))) {
            log.addLast(new Entry(now, (float) value(things.getFirst())));
        }
        subscriptions.values().removeIf(one -> one.until().isBefore(now));
        subscriptions.replaceAll((key, one) -> {
            double value = value(one.thing());
            if (Math.abs(value - one.told()) < one.thing().step()) {
                return one;
            }
            tell(one, value);
            return new Subscription(one.to(), one.process(), one.thing(), one.until(), value);
        });
    }

    private void tell(Subscription one, double value) {
        Out out = new Out()
                .raw(0x10, 0x02)
                .context(0, number(one.process()))
                .context(1, id(DEVICE_TYPE << 22 | device))
                .context(2, id(one.thing().id()))
                .context(
                        3,
                        number(Math.max(
                                1,
                                Duration.between(clock.instant(), one.until()).toSeconds())))
                .raw(0x4E)
                .context(0, number(PRESENT_VALUE))
                .raw(0x2E);
        present(out, one.thing(), value)
                .raw(0x2F)
                .context(0, number(STATUS_FLAGS))
                .raw(0x2E, 0x82, 0x04, 0x00, 0x2F, 0x4F);
        send(out, one.to());
    }

    private void run() {
        byte[] buffer = new byte[1_500];
        while (!socket.isClosed()) {
            DatagramPacket packet = new DatagramPacket(buffer, buffer.length);
            try {
                socket.receive(packet);
                answer(ByteBuffer.wrap(buffer, 0, packet.getLength()).slice(), packet.getSocketAddress());
            } catch (BufferUnderflowException | IOException e) {
                // A packet that is none, or the end.
                continue;
            }
        }
    }

    private synchronized void answer(ByteBuffer in, SocketAddress from) {
        in.position(5);
        int control = in.get();
        if (control != 0 && control != 4) {
            return;
        }
        int kind = in.get() & 0xF0;
        if (kind == 0x10) {
            if (in.get() == 0x08) {
                whoIs(in, from);
            }
            return;
        }
        in.get();
        int invoke = in.get();
        int service = in.get() & 0xFF;
        switch (service) {
            case 5 -> subscribe(in, invoke, from);
            case 12 -> readProperty(in, invoke, from);
            case 14 -> readProperties(in, invoke, from);
            case 15 -> write(in, invoke, from);
            case 26 -> readLog(in, invoke, from);
            default -> send(new Out().raw(0x60, invoke, 0x09), from);
        }
    }

    private void whoIs(ByteBuffer in, SocketAddress from) {
        if (in.hasRemaining() && (tagged(in) > device || tagged(in) < device)) {
            return;
        }
        send(
                new Out()
                        .raw(0x10, 0x00)
                        .application(12, id(DEVICE_TYPE << 22 | device))
                        .application(2, number(1_476))
                        .application(9, number(3))
                        .application(2, number(999)),
                from);
    }

    /** The value of the next tag that has one. */
    private static long tagged(ByteBuffer in) {
        int length = in.get() & 0x07;
        if (length == 5) {
            length = in.get() & 0xFF;
        }
        long value = 0;
        for (int i = 0; i < length; i++) {
            value = value << 8 | in.get() & 0xFF;
        }
        return value;
    }

    private Optional<Thing> thing(long id) {
        return things.stream().filter(one -> one.id() == id).findFirst();
    }

    /** Writes what a property holds; says whether there is such a one. */
    private boolean property(Out out, int id, int property) {
        if (id == (DEVICE_TYPE << 22 | device)) {
            switch (property) {
                case OBJECT_NAME -> out.text(name);
                case 121 -> out.text("Example Controls");
                case 70 -> out.text("Barn unit");
                case OBJECT_LIST -> {
                    out.application(12, id(id));
                    things.forEach(one -> out.application(12, id(one.id())));
                    out.application(12, id(LOG_TYPE << 22 | 1));
                }
                default -> {
                    return false;
                }
            }
            return true;
        }
        Optional<Thing> found = thing(id);
        if (found.isEmpty() || property == UNITS && found.get().unit() < 0) {
            return false;
        }
        switch (property) {
            case OBJECT_NAME -> out.text(found.get().name());
            case PRESENT_VALUE -> present(out, found.get(), value(found.get()));
            case STATUS_FLAGS -> out.raw(0x82, 0x04, 0x00);
            case UNITS -> out.application(9, number(found.get().unit()));
            default -> {
                return false;
            }
        }
        return true;
    }

    private static Out present(Out out, Thing thing, double value) {
        return thing.isBinary()
                ? out.application(9, number(value == 0 ? 0 : 1))
                : out.application(
                        4, ByteBuffer.allocate(4).putFloat((float) value).array());
    }

    private void readProperty(ByteBuffer in, int invoke, SocketAddress from) {
        int id = (int) tagged(in);
        int property = (int) tagged(in);
        Out out = new Out()
                .raw(0x30, invoke, 12)
                .context(0, id(id))
                .context(1, number(property))
                .raw(0x3E);
        if (in.hasRemaining() || !property(out, id, property)) {
            send(new Out().raw(0x50, invoke, 12, 0x91, 0x02, 0x91, 0x20), from);
        } else {
            send(out.raw(0x3F), from);
        }
    }

    private void readProperties(ByteBuffer in, int invoke, SocketAddress from) {
        Out out = new Out().raw(0x30, invoke, 14);
        while (in.hasRemaining()) {
            int id = (int) tagged(in);
            in.get();
            out.context(0, id(id)).raw(0x1E);
            while (in.get(in.position()) != 0x1F) {
                int property = (int) tagged(in);
                out.context(2, number(property));
                Out value = new Out();
                if (property(value, id, property)) {
                    out.raw(0x4E).bytes(value).raw(0x4F);
                } else {
                    out.raw(0x5E, 0x91, 0x02, 0x91, thing(id).isPresent() ? 0x20 : 0x1F, 0x5F);
                }
            }
            in.get();
            out.raw(0x1F);
        }
        if (out.size() > 1_476) {
            send(new Out().raw(0x70, invoke, 0x04), from);
        } else {
            send(out, from);
        }
    }

    private void write(ByteBuffer in, int invoke, SocketAddress from) {
        int id = (int) tagged(in);
        tagged(in);
        in.get();
        Optional<Thing> found = thing(id).filter(Thing::isWritable);
        if (found.isEmpty()) {
            send(new Out().raw(0x50, invoke, 15, 0x91, 0x02, 0x91, 0x28), from);
            return;
        }
        int tag = in.get(in.position()) >> 4 & 0x0F;
        long bits = tagged(in);
        if (tag == 0) {
            written.remove(id);
        } else {
            written.put(id, tag == 4 ? Float.intBitsToFloat((int) bits) : (double) bits);
        }
        send(new Out().raw(0x20, invoke, 15), from);
    }

    private void subscribe(ByteBuffer in, int invoke, SocketAddress from) {
        int process = (int) tagged(in);
        Optional<Thing> found = thing(tagged(in));
        if (found.isEmpty() || !in.hasRemaining()) {
            send(new Out().raw(0x50, invoke, 5, 0x91, 0x01, 0x91, 0x1F), from);
            return;
        }
        tagged(in);
        Subscription one = new Subscription(
                from, process, found.get(), clock.instant().plusSeconds(tagged(in)), value(found.get()));
        subscriptions.put(from + " " + found.get().id(), one);
        send(new Out().raw(0x20, invoke, 5), from);
        tell(one, one.told());
    }

    private void readLog(ByteBuffer in, int invoke, SocketAddress from) {
        int id = (int) tagged(in);
        tagged(in);
        in.get();
        in.get();
        LocalDateTime after = LocalDateTime.of(1900 + (in.get() & 0xFF), in.get(), in.get(), 0, 0);
        in.get();
        in.get();
        after = after.plusHours(in.get())
                .plusMinutes(in.get())
                .plusSeconds(in.get())
                .plusNanos(in.get() * 10_000_000L);
        Instant from0 = after.atZone(zone).toInstant();
        List<Entry> later = new ArrayList<>(
                log.stream().filter(entry -> entry.time().isAfter(from0)).toList());
        List<Entry> piece = later.subList(0, Math.min(MOST_ENTRIES, later.size()));
        Out out = new Out()
                .raw(0x30, invoke, 26)
                .context(0, id(id))
                .context(1, number(131))
                .raw(0x3A, 0x05, piece.size() < later.size() ? 0x20 : 0x40)
                .context(4, number(piece.size()))
                .raw(0x5E);
        for (Entry entry : piece) {
            LocalDateTime at = LocalDateTime.ofInstant(entry.time(), zone);
            out.raw(
                            0x0E,
                            0xA4,
                            at.getYear() - 1900,
                            at.getMonthValue(),
                            at.getDayOfMonth(),
                            at.getDayOfWeek().getValue(),
                            0xB4,
                            at.getHour(),
                            at.getMinute(),
                            at.getSecond(),
                            at.getNano() / 10_000_000,
                            0x0F,
                            0x1E)
                    .context(2, ByteBuffer.allocate(4).putFloat(entry.value()).array())
                    .raw(0x1F);
        }
        send(out.raw(0x5F), from);
    }

    private void send(Out apdu, SocketAddress to) {
        int length = 6 + apdu.size();
        byte[] packet = new Out()
                .raw(0x81, 0x0A, length >> 8, length, 0x01, 0x00)
                .bytes(apdu)
                .toBytes();
        try {
            socket.send(new DatagramPacket(packet, packet.length, to));
        } catch (IOException e) {
            // Whoever asked asks again.
            return;
        }
    }

    private static byte[] id(int bits) {
        return ByteBuffer.allocate(4).putInt(bits).array();
    }

    private static byte[] number(long value) {
        byte[] eight = ByteBuffer.allocate(8).putLong(value).array();
        int from = 0;
        while (from < 7 && eight[from] == 0) {
            from++;
        }
        byte[] bytes = new byte[8 - from];
        System.arraycopy(eight, from, bytes, 0, bytes.length);
        return bytes;
    }

    /** Bytes on their way out. */
    private static final class Out {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();

        Out raw(int... values) {
            for (int value : values) {
                bytes.write(value);
            }
            return this;
        }

        Out bytes(Out other) {
            bytes.writeBytes(other.toBytes());
            return this;
        }

        Out context(int number, byte[] content) {
            bytes.write(number << 4 | 0x08 | content.length);
            bytes.writeBytes(content);
            return this;
        }

        Out application(int number, byte[] content) {
            if (content.length > 4) {
                bytes.write(number << 4 | 5);
                bytes.write(content.length);
            } else {
                bytes.write(number << 4 | content.length);
            }
            bytes.writeBytes(content);
            return this;
        }

        Out text(String text) {
            byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
            return application(
                    7,
                    ByteBuffer.allocate(utf8.length + 1).put((byte) 0).put(utf8).array());
        }

        int size() {
            return bytes.size();
        }

        byte[] toBytes() {
            return bytes.toByteArray();
        }
    }

    @Override
    public void close() {
        timer.shutdownNow();
        socket.close();
    }
}
