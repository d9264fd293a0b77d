package org.openpasture.store.series;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.Pace;
import org.openpasture.core.series.Records;
import org.openpasture.core.series.Reducer;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.core.series.TimedMean;

/**
 * The readings of all points: the newest in memory (they are in the journal), the others in chunks on disk, with hour
 * and day summaries beside them. A question is answered from memory first and the disk after it, so that what moves
 * from one to the other meanwhile is seen twice rather than not at all; what is seen twice counts once.
 */
public final class SeriesStore implements Records {
    private static final long HOUR = Duration.ofHours(1).toMillis();
    private final Head head = new Head();
    private final SeriesTables tables;
    private final Map<Integer, PointRecord> records = new ConcurrentHashMap<>();
    private volatile IntFunction<PointProfile> profiles = point -> PointProfile.UNKNOWN;

    public SeriesStore(Supplier<DSLContext> reader) {
        tables = new SeriesTables(reader);
        for (PointRecord record : tables.records()) {
            records.put(record.point(), record);
            if (record.readings() > 0) {
                head.setLast(record.point(), record.last());
            }
        }
    }

    /** Where the store learns in which zone a point's days are counted, and by which limits. */
    public void useProfiles(IntFunction<PointProfile> source) {
        profiles = source;
    }

    /** Takes an event that is on disk; for the one thread that commits. */
    public void take(Event event) {
        head.take(event);
    }

    Head head() {
        return head;
    }

    /** The newest reading of a point is another one now, or none. */
    public void newestIs(int point) {
        SeriesSlice newest =
                newestInChunks(point, Long.MAX_VALUE).merge(head.range(point, Long.MIN_VALUE, Long.MAX_VALUE));
        head.setLast(point, newest.size() == 0 ? null : newest.reading(newest.size() - 1));
    }

    SeriesTables tables() {
        return tables;
    }

    PointProfile profile(int point) {
        return profiles.apply(point);
    }

    PointRecord record(int point) {
        return records.getOrDefault(point, PointRecord.none(point));
    }

    void remember(PointRecord record) {
        records.put(record.point(), record);
    }

    /** What is kept of each point in chunks. */
    public Collection<PointRecord> records() {
        return records.values();
    }

    /** How many readings are kept; one that is sent again counts twice until it is sealed. */
    public long readingCount() {
        return records.values().stream().mapToLong(PointRecord::readings).sum() + head.waiting();
    }

    /** How many readings are in memory and journal only. */
    public long waiting() {
        return head.waiting();
    }

    @Override
    public Optional<Reading> last(int point) {
        return head.last(point);
    }

    @Override
    public void read(int point, Instant from, Instant until, Consumer<SeriesSlice> pieces) {
        read(point, millis(from), millis(until), pieces);
    }

    private void read(int point, long from, long until, Consumer<SeriesSlice> pieces) {
        SeriesSlice late = head.range(point, from, until);
        long cursor = from;
        boolean more;
        do {
            List<SeriesTables.ChunkRow> page = cursor < until ? tables.pageOfChunks(point, cursor, until) : List.of();
            more = page.size() == SeriesTables.CHUNKS_AT_ONCE;
            for (SeriesTables.ChunkRow row : page) {
                SeriesSlice slice = row.slice().between(cursor, until);
                if (slice.size() > 0) {
                    long next = slice.times()[slice.size() - 1] + 1;
                    pieces.accept(slice.merge(late.between(cursor, next)));
                    cursor = next;
                }
            }
        } while (more);
        SeriesSlice rest = late.between(cursor, until);
        if (rest.size() > 0) {
            pieces.accept(rest);
        }
    }

    @Override
    public Drawn drawn(int point, Instant from, Instant until, int buckets, long typicalMillis) {
        long begin = millis(from);
        long end = millis(until);
        Reducer reducer = new Reducer(begin, end, buckets, typicalMillis);
        boolean wide = (end - begin) / buckets >= HOUR;
        PointRecord record = record(point);
        long days = Math.clamp(record.hoursFrom(), begin, end);
        for (Summary day : tables.summaries(point, Width.DAY, begin, days)) {
            reducer.add(day, Width.DAY.millis());
        }
        long hours = wide ? end : Math.clamp(record.detailFrom(), days, end);
        walkHours(
                point,
                days,
                hours,
                new TreeSet<>(),
                hour -> reducer.add(hour, HOUR),
                (stretchFrom, stretchUntil) -> read(point, stretchFrom, stretchUntil, reducer::add));
        read(point, hours, end, reducer::add);
        return reducer.result();
    }

    /** A stretch that has to be answered in full detail. */
    private interface Stretch {
        void in(long from, long until);
    }

    /**
     * Goes through a range in order: hours that are summarized and complete one by one, the rest as stretches of
     * detail: hours cut by the range or by an edge, and those of which readings are still in memory only.
     */
    private void walkHours(
            int point, long from, long until, NavigableSet<Long> cut, Consumer<Summary> whole, Stretch detail) {
        if (from >= until) {
            return;
        }
        NavigableSet<Long> inDetail = new TreeSet<>(cut);
        long erasedBefore = record(point).detailFrom();
        if (from % HOUR != 0) {
            inDetail.add(Summarizer.hourOf(from));
        }
        if (until % HOUR != 0) {
            inDetail.add(Summarizer.hourOf(until));
        }
        // Where every reading was erased, an hour that is cut counts whole.
        inDetail.headSet(erasedBefore).clear();
        for (long time : head.range(point, Math.max(from, erasedBefore), until).times()) {
            inDetail.add(Summarizer.hourOf(time));
        }
        long cursor = from;
        for (Summary hour : tables.summaries(point, Width.HOUR, Summarizer.hourOf(from), until)) {
            long start = hour.start().toEpochMilli();
            if (!inDetail.contains(start)) {
                details(inDetail, cursor, start, until, detail);
                whole.accept(hour);
                cursor = start + HOUR;
            }
        }
        details(inDetail, cursor, until, until, detail);
    }

    private static void details(NavigableSet<Long> hours, long from, long until, long end, Stretch detail) {
        long begin = Long.MIN_VALUE;
        long stop = Long.MIN_VALUE;
        for (long hour : hours.subSet(Summarizer.hourOf(from), true, until, false)) {
            if (hour != stop) {
                if (stop > begin) {
                    detail.in(Math.max(begin, from), Math.min(stop, end));
                }
                begin = hour;
            }
            stop = hour + HOUR;
        }
        if (stop > begin && Math.max(begin, from) < Math.min(stop, end)) {
            detail.in(Math.max(begin, from), Math.min(stop, end));
        }
    }

    @Override
    public List<Summary> summaries(int point, long[] edges) {
        if (edges.length < 2) {
            return List.of();
        }
        TreeMap<Long, List<Summary>> parts = new TreeMap<>();
        for (int i = 0; i < edges.length - 1; i++) {
            parts.put(edges[i], new ArrayList<>());
        }
        long begin = edges[0];
        long end = edges[edges.length - 1];
        Consumer<Summary> put =
                part -> parts.floorEntry(Math.max(begin, part.start().toEpochMilli()))
                        .getValue()
                        .add(part);
        long hours = Math.clamp(record(point).hoursFrom(), begin, end);
        tables.summaries(point, Width.DAY, begin, hours).forEach(put);
        NavigableSet<Long> cut = new TreeSet<>();
        for (long edge : edges) {
            if (edge % HOUR != 0) {
                cut.add(Summarizer.hourOf(edge));
            }
        }
        walkHours(point, hours, end, cut, put, (from, until) -> summarize(point, from, until, edges)
                .forEach(put));
        List<Summary> found = new ArrayList<>();
        parts.forEach((start, list) -> {
            if (!list.isEmpty()) {
                found.add(Summary.merge(Instant.ofEpochMilli(start), list));
            }
        });
        return found;
    }

    private List<Summary> summarize(int point, long from, long until, long[] spanEdges) {
        TreeSet<Long> edges = new TreeSet<>(List.of(from, until));
        for (long edge : spanEdges) {
            if (edge > from && edge < until) {
                edges.add(edge);
            }
        }
        SeriesSlice readings = withNeighbours(point, from, until);
        return new Summarizer(profile(point).limits(), Pace.gapMillis(Pace.typicalMillis(readings)))
                .over(readings, edges.stream().mapToLong(Long::longValue).toArray());
    }

    /** The readings of a range, with the one before it and the one after it. */
    SeriesSlice withNeighbours(int point, long from, long until) {
        SeriesSlice before = before(point, from);
        SeriesSlice inside = range(point, Instant.ofEpochMilli(from), Instant.ofEpochMilli(until));
        SeriesSlice after = after(point, until);
        return before.merge(inside).merge(after);
    }

    /** The mean of a stretch, each value weighted by how long it stood; empty if none did. */
    public Optional<TimedMean> timedMean(int point, Instant from, Instant until) {
        long begin = millis(from);
        long end = millis(until);
        TimedMean.Adding adding = new TimedMean.Adding(begin, end);
        adding.add(before(point, begin));
        read(point, begin, end, adding::add);
        return adding.mean();
    }

    /** The newest reading of a point before a moment. */
    public Optional<Reading> before(int point, Instant moment) {
        SeriesSlice found = before(point, millis(moment));
        return found.size() == 0 ? Optional.empty() : Optional.of(found.reading(0));
    }

    private SeriesSlice before(int point, long time) {
        SeriesSlice late = head.range(point, Long.MIN_VALUE, time);
        SeriesSlice stored = SeriesSlice.empty();
        for (SeriesTables.ChunkRow row : tables.chunks(point, time - 1, time)) {
            stored = row.slice().between(Long.MIN_VALUE, time);
        }
        SeriesSlice both = stored.merge(late);
        return both.part(Math.max(0, both.size() - 1), both.size());
    }

    /** The newest reading in chunks before a moment, alone; none if there is none. */
    SeriesSlice newestInChunks(int point, long before) {
        SeriesSlice found = SeriesSlice.empty();
        for (SeriesTables.ChunkRow row : tables.chunks(point, before - 1, before)) {
            SeriesSlice slice = row.slice().between(Long.MIN_VALUE, before);
            found = slice.part(Math.max(0, slice.size() - 1), slice.size());
        }
        return found;
    }

    private SeriesSlice after(int point, long time) {
        SeriesSlice late = head.range(point, time, Long.MAX_VALUE);
        SeriesSlice stored = SeriesSlice.empty();
        List<SeriesTables.ChunkRow> rows = new ArrayList<>(tables.chunks(point, time, time + 1));
        rows.addAll(tables.chunkAfter(point, time));
        for (SeriesTables.ChunkRow row : rows) {
            stored = stored.size() > 0 ? stored : row.slice().between(time, Long.MAX_VALUE);
        }
        SeriesSlice both = stored.merge(late);
        return both.part(0, Math.min(1, both.size()));
    }

    @Override
    public long estimate(int point, Instant from, Instant until) {
        long begin = millis(from);
        long end = millis(until);
        return tables.estimate(point, begin, end)
                + head.range(point, begin, end).size();
    }

    /** Epoch ms of a moment; moments that are further away than a file can know are as far as it knows. */
    private static long millis(Instant moment) {
        return moment.getEpochSecond() > FAR
                ? FAR * 1000
                : moment.getEpochSecond() < -FAR ? -FAR * 1000 : moment.toEpochMilli();
    }

    private static final long FAR = 1L << 42;
}
