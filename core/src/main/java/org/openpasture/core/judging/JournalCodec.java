package org.openpasture.core.judging;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * The bytes of one journal row: everything that one commit made durable, in order.
 *
 * <p>Version 1: {@code 0x01}, then per event a tag byte. Tag 1, arrival: received at (8 bytes, epoch ms), origin (1),
 * count (4), then per reading point (4), time (8, epoch ms), quality (1), value (8, IEEE 754). Tag 2, acknowledgement:
 * at (8), alert id, person's name and note, each as modified UTF-8 with a 2-byte length. Tag 3, erasure: at (8), point
 * (4), from (8), until (8). Tag 4, clock moved: at (8), by how many ms (8). Tag 5, rule shelved: at (8), until (8; the
 * greatest number for out of service), rule id, person's name and reason as texts like those of an acknowledgement. Tag
 * 6, unshelved: at (8), rule id and person's name. Integers are big-endian. Rows are sealed into chunks soon, so they
 * are plain rather than small.
 */
public final class JournalCodec {
    private static final int VERSION = 1;
    private static final int ARRIVAL = 1;
    private static final int ACKNOWLEDGED = 2;
    private static final int ERASED = 3;
    private static final int CLOCK_MOVED = 4;
    private static final int SHELVED = 5;
    private static final int UNSHELVED = 6;
    private static final int ARRIVAL_BYTES = 14;
    private static final int READING_BYTES = 21;

    private JournalCodec() {}

    /** The bytes for events; {@link Event.TimePassed} is not kept, since it follows from the others' times. */
    public static byte[] encode(List<Event> events) {
        int size = 1;
        byte[][] texts = new byte[events.size()][];
        for (int i = 0; i < texts.length; i++) {
            switch (events.get(i)) {
                case Event.ReadingsArrived arrived ->
                    size += ARRIVAL_BYTES
                            + READING_BYTES * arrived.arrival().readings().size();
                case Event.AlertAcknowledged acknowledged -> {
                    texts[i] = texts(acknowledged.alertId(), acknowledged.personName(), acknowledged.note());
                    size += 9 + texts[i].length;
                }
                case Event.RuleShelved(Instant at, String rule, Shelf shelf) -> {
                    texts[i] = texts(rule, shelf.person(), shelf.reason());
                    size += 17 + texts[i].length;
                }
                case Event.RuleUnshelved(Instant at, String rule, String person) -> {
                    texts[i] = texts(rule, person);
                    size += 9 + texts[i].length;
                }
                case Event.ReadingsErased erased -> size += 29;
                case Event.ClockMoved moved -> size += 17;
                case Event.TimePassed passed -> {}
            }
        }
        ByteBuffer out = ByteBuffer.allocate(size);
        out.put((byte) VERSION);
        for (int i = 0; i < texts.length; i++) {
            switch (events.get(i)) {
                case Event.ReadingsArrived arrived -> writeArrival(out, arrived.arrival());
                case Event.AlertAcknowledged acknowledged ->
                    out.put((byte) ACKNOWLEDGED)
                            .putLong(acknowledged.at().toEpochMilli())
                            .put(texts[i]);
                case Event.RuleShelved(Instant at, String rule, Shelf shelf) ->
                    out.put((byte) SHELVED)
                            .putLong(at.toEpochMilli())
                            .putLong(untilMillis(shelf))
                            .put(texts[i]);
                case Event.RuleUnshelved(Instant at, String rule, String person) ->
                    out.put((byte) UNSHELVED).putLong(at.toEpochMilli()).put(texts[i]);
                case Event.ReadingsErased(Instant at, int point, Instant from, Instant until) ->
                    out.put((byte) ERASED)
                            .putLong(at.toEpochMilli())
                            .putInt(point)
                            .putLong(from.toEpochMilli())
                            .putLong(until.toEpochMilli());
                case Event.ClockMoved(Instant at, Duration by) ->
                    out.put((byte) CLOCK_MOVED).putLong(at.toEpochMilli()).putLong(by.toMillis());
                case Event.TimePassed passed -> {}
            }
        }
        return out.array();
    }

    private static byte[] texts(String... all) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(64);
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            for (String text : all) {
                out.writeUTF(text);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private static long untilMillis(Shelf shelf) {
        Instant until = shelf.until();
        return until == null ? Long.MAX_VALUE : until.toEpochMilli();
    }

    private static void writeArrival(ByteBuffer out, Arrival arrival) {
        List<PointReading> readings = arrival.readings();
        out.put((byte) ARRIVAL)
                .putLong(arrival.receivedAt().toEpochMilli())
                .put((byte) arrival.origin().ordinal())
                .putInt(readings.size());
        for (int i = 0; i < readings.size(); i++) {
            PointReading entry = readings.get(i);
            Reading reading = entry.reading();
            out.putInt(entry.point())
                    .putLong(reading.time().toEpochMilli())
                    .put((byte) reading.quality().code())
                    .putDouble(reading.value());
        }
    }

    /**
     * The events of a row.
     *
     * @throws IllegalArgumentException if the bytes are not such a row: the file is damaged
     */
    public static List<Event> decode(byte[] bytes) {
        List<Event> events = new ArrayList<>();
        ByteBuffer in = ByteBuffer.wrap(bytes);
        try {
            int version = in.get();
            if (version != VERSION) {
                throw new IllegalArgumentException("journal row of unknown version " + version);
            }
            while (in.hasRemaining()) {
                int tag = in.get();
                events.add(
                        switch (tag) {
                            case ARRIVAL -> new Event.ReadingsArrived(readArrival(in));
                            case ACKNOWLEDGED -> {
                                Instant at = instant(in);
                                List<String> texts = texts(in, 3);
                                yield new Event.AlertAcknowledged(at, texts.get(0), texts.get(1), texts.get(2));
                            }
                            case SHELVED -> readShelved(in);
                            case UNSHELVED -> {
                                Instant at = instant(in);
                                List<String> texts = texts(in, 2);
                                yield new Event.RuleUnshelved(at, texts.get(0), texts.get(1));
                            }
                            case ERASED -> new Event.ReadingsErased(instant(in), in.getInt(), instant(in), instant(in));
                            case CLOCK_MOVED -> new Event.ClockMoved(instant(in), Duration.ofMillis(in.getLong()));
                            default -> throw new IllegalArgumentException("journal row with unknown tag " + tag);
                        });
            }
        } catch (BufferUnderflowException e) {
            throw new IllegalArgumentException("journal row is cut off", e);
        } catch (IOException e) {
            throw new IllegalArgumentException("journal row with a damaged text", e);
        }
        return events;
    }

    private static Instant instant(ByteBuffer in) {
        return Instant.ofEpochMilli(in.getLong());
    }

    private static Event readShelved(ByteBuffer in) throws IOException {
        Instant at = instant(in);
        long until = in.getLong();
        List<String> texts = texts(in, 3);
        return new Event.RuleShelved(
                at,
                texts.get(0),
                new Shelf(until == Long.MAX_VALUE ? null : Instant.ofEpochMilli(until), texts.get(1), texts.get(2)));
    }

    private static List<String> texts(ByteBuffer in, int count) throws IOException {
        DataInputStream texts =
                new DataInputStream(new ByteArrayInputStream(in.array(), in.position(), in.remaining()));
        List<String> found = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            found.add(texts.readUTF());
        }
        in.position(in.limit() - texts.available());
        return found;
    }

    private static Arrival readArrival(ByteBuffer in) {
        Instant receivedAt = instant(in);
        Arrival.Origin origin = Arrival.Origin.ofCode(in.get());
        int count = in.getInt();
        if (count < 0 || count > in.remaining() / READING_BYTES) {
            throw new IllegalArgumentException("journal row claims " + count + " readings, more than it holds");
        }
        List<PointReading> readings = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            int point = in.getInt();
            Instant time = instant(in);
            Quality quality = Quality.ofCode(in.get());
            double value = in.getDouble();
            if (!Double.isFinite(value)) {
                throw new IllegalArgumentException("journal row with a value that is no number");
            }
            readings.add(new PointReading(point, new Reading(time, value, quality)));
        }
        return new Arrival(receivedAt, origin, readings);
    }
}
