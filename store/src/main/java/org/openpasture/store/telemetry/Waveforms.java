package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.WAVEFORM;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.vibration.Waveform;
import org.openpasture.core.vibration.WaveformCodec;

/** The waveforms of points. Any thread may read. */
public final class Waveforms {
    private static final long DAY = Duration.ofDays(1).toMillis();
    private final Supplier<DSLContext> reader;

    Waveforms(Supplier<DSLContext> reader) {
        this.reader = reader;
    }

    /**
     * A waveform without its samples.
     *
     * @param time of its first sample
     * @param bytes that it takes
     */
    public record Kept(Instant time, int samples, double samplesPerSecond, int bytes) {}

    /** One of the same point and time takes the place of the one before. */
    void keep(DSLContext dsl, PointWaveform one) {
        Waveform waveform = one.waveform();
        byte[] packed = WaveformCodec.pack(waveform);
        dsl.insertInto(
                        WAVEFORM,
                        WAVEFORM.POINT,
                        WAVEFORM.TIME,
                        WAVEFORM.SAMPLES,
                        WAVEFORM.RATE,
                        WAVEFORM.BYTES,
                        WAVEFORM.PACKED)
                .values(
                        (long) one.point(),
                        one.time().toEpochMilli(),
                        (long) waveform.length(),
                        waveform.samplesPerSecond(),
                        (long) packed.length,
                        packed)
                .onConflict(WAVEFORM.POINT, WAVEFORM.TIME)
                .doUpdate()
                .set(WAVEFORM.SAMPLES, (long) waveform.length())
                .set(WAVEFORM.RATE, waveform.samplesPerSecond())
                .set(WAVEFORM.BYTES, (long) packed.length)
                .set(WAVEFORM.PACKED, packed)
                .execute();
    }

    /** The points that have waveforms. */
    public Set<Integer> points() {
        // One look at the index for each point, and not one for each waveform.
        Set<Integer> found = new HashSet<>();
        Optional<Long> next = first(Long.MIN_VALUE);
        while (next.isPresent()) {
            found.add(next.get().intValue());
            next = first(next.get());
        }
        return found;
    }

    /** The highest number of a point that has any; 0 for none. */
    int highestPoint() {
        Long highest = reader.get()
                .select(DSL.max(WAVEFORM.POINT))
                .from(WAVEFORM)
                .fetchSingle()
                .value1();
        return highest == null ? 0 : highest.intValue();
    }

    /** Whether a point has any. */
    public boolean has(int point) {
        return first(point - 1L).filter(found -> found == point).isPresent();
    }

    private Optional<Long> first(long after) {
        return Optional.ofNullable(reader.get()
                .select(DSL.min(WAVEFORM.POINT))
                .from(WAVEFORM)
                .where(WAVEFORM.POINT.gt(after))
                .fetchSingle()
                .value1());
    }

    /**
     * The waveforms of a point, newest first.
     *
     * @param until excluded
     */
    public List<Kept> list(int point, Instant from, Instant until, int most) {
        return reader.get()
                .select(WAVEFORM.TIME, WAVEFORM.SAMPLES, WAVEFORM.RATE, WAVEFORM.BYTES)
                .from(WAVEFORM)
                .where(WAVEFORM.POINT.eq((long) point))
                .and(WAVEFORM.TIME.ge(from.toEpochMilli()))
                .and(WAVEFORM.TIME.lt(until.toEpochMilli()))
                .orderBy(WAVEFORM.TIME.desc())
                .limit(most)
                .fetch(row -> new Kept(
                        Instant.ofEpochMilli(row.value1()),
                        row.value2().intValue(),
                        row.value3(),
                        row.value4().intValue()));
    }

    /** The newest waveform of a point that began at a moment or before it. */
    public Optional<PointWaveform> at(int point, Instant time) {
        return reader.get()
                .select(WAVEFORM.TIME, WAVEFORM.PACKED)
                .from(WAVEFORM)
                .where(WAVEFORM.POINT.eq((long) point))
                .and(WAVEFORM.TIME.le(time.toEpochMilli()))
                .orderBy(WAVEFORM.TIME.desc())
                .limit(1)
                .fetchOptional(row -> new PointWaveform(
                        point, Instant.ofEpochMilli(row.value1()), WaveformCodec.unpack(row.value2())));
    }

    /** How many bytes all of them take. */
    public long bytes() {
        Long sum = reader.get()
                .select(DSL.sum(WAVEFORM.BYTES).cast(Long.class))
                .from(WAVEFORM)
                .fetchSingle()
                .value1();
        return sum == null ? 0 : sum;
    }

    /**
     * Which of a point's waveforms are not to be kept: those beyond the newest that are not the last of their day
     * (UTC), and those from before a moment.
     */
    List<Instant> superfluous(int point, int newest, Instant oldest) {
        List<Instant> gone = new ArrayList<>();
        List<Kept> all = list(point, Instant.EPOCH, Instant.ofEpochMilli(Long.MAX_VALUE), Integer.MAX_VALUE);
        long dayAfter = Long.MAX_VALUE;
        for (int i = 0; i < all.size(); i++) {
            Instant time = all.get(i).time();
            long day = Math.floorDiv(time.toEpochMilli(), DAY);
            boolean lastOfDay = day != dayAfter;
            if (time.isBefore(oldest) || i >= newest && !lastOfDay) {
                gone.add(time);
            }
            dayAfter = day;
        }
        return gone;
    }

    /** Removes those of some moments. */
    void remove(DSLContext dsl, int point, List<Instant> times) {
        dsl.deleteFrom(WAVEFORM)
                .where(WAVEFORM.POINT.eq((long) point))
                .and(WAVEFORM.TIME.in(times.stream().map(Instant::toEpochMilli).toList()))
                .execute();
    }
}
