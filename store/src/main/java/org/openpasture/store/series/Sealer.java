package org.openpasture.store.series;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.core.series.ChunkCodec;
import org.openpasture.core.series.Pace;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.core.series.SummaryCodec;

/**
 * Moves readings from memory into chunks and summaries. Everything is worked out here and handed to the writer in small
 * transactions, so that ingest hardly waits. Late readings are merged into the chunks that they belong to, and the
 * summaries that they change are made anew. Sealing the same readings twice changes nothing. For one thread.
 */
public final class Sealer implements AutoCloseable {
    private static final int MOST_IN_CHUNK = 1_536;
    private static final int CUT_CHUNKS_AT = 1_024;
    /** A last chunk with fewer than this goes on growing. */
    private static final int OPEN_BELOW = 384;

    private static final int FEW = 128;
    /** Late readings further apart than this are merged one group after the other. */
    private static final long GROUP_MILLIS = 24 * 3_600_000L;

    private static final int MOST_IN_BLOCK = 96;
    private static final int CUT_BLOCKS_AT = 64;
    private static final int POINTS_AT_ONCE = 64;

    private final SeriesStore store;
    private final Writer writer;
    private final Clock clock;
    private final ChunkCodec chunks = new ChunkCodec();
    private final SummaryCodec summaries = new SummaryCodec();
    private final Map<Integer, Tail> tails = new HashMap<>();
    private long lastChunkId;
    private long lastBlockId;

    public Sealer(SeriesStore store, Writer writer, Clock clock) {
        this.store = store;
        this.writer = writer;
        this.clock = clock;
        this.lastChunkId = store.tables().lastChunkId();
        this.lastBlockId = store.tables().lastBlockId();
    }

    /**
     * The last chunk and the last block of hours of a point as they are on disk, so that readings that come in order
     * are sealed without asking the disk.
     */
    private record Tail(SeriesTables.ChunkRow chunk, SeriesTables.BlockRow hours) {
        boolean isBefore(long time) {
            return chunk.lastTime() < time;
        }
    }

    /**
     * Seals what is in memory of all points.
     *
     * @param stop whether to stop between two groups of points; what is not sealed is safe in the journal
     * @return whether all that was there when it began is in chunks now
     */
    public boolean sealAll(BooleanSupplier stop) {
        List<Integer> points = store.head().pointsWaiting();
        boolean all = true;
        for (int i = 0; i < points.size(); i += POINTS_AT_ONCE) {
            if (stop.getAsBoolean()) {
                return false;
            }
            all &= seal(points.subList(i, Math.min(points.size(), i + POINTS_AT_ONCE)));
        }
        return all;
    }

    /** Seals some points in one transaction, then the days that are over in another. */
    private boolean seal(List<Integer> points) {
        SealPlan plan = new SealPlan();
        List<SealPlan.Part> inGroups = new ArrayList<>();
        for (int point : points) {
            Head.Leaving leaving = store.head().leave(point);
            if (leaving.slice().size() > 0) {
                leaving.replaced().forEach(one -> plan.replaced.add(new SealPlan.PointReplaced(point, one)));
                List<SealPlan.Part> parts = groups(point, leaving.slice());
                if (parts.size() == 1) {
                    plan(parts.getFirst(), plan);
                } else {
                    inGroups.addAll(parts);
                }
            }
        }
        return writeWithDays(plan) & sealInGroups(inGroups);
    }

    /** Groups of one point touch the same rows, so each is written before the next is worked out. */
    private boolean sealInGroups(List<SealPlan.Part> parts) {
        boolean all = true;
        for (SealPlan.Part part : parts) {
            SealPlan plan = new SealPlan();
            plan(part, plan);
            all &= writeWithDays(plan);
        }
        return all;
    }

    private static List<SealPlan.Part> groups(int point, SeriesSlice whole) {
        List<SealPlan.Part> groups = new ArrayList<>();
        int begin = 0;
        for (int i = 1; i <= whole.size(); i++) {
            if (i == whole.size() || whole.times()[i] - whole.times()[i - 1] > GROUP_MILLIS) {
                groups.add(new SealPlan.Part(point, whole, whole.part(begin, i), i == whole.size()));
                begin = i;
            }
        }
        return groups;
    }

    private boolean writeWithDays(SealPlan plan) {
        Map<Integer, Long> lastBefore = new HashMap<>();
        plan.parts.forEach(
                part -> lastBefore.put(part.point(), store.record(part.point()).lastTime()));
        if (!write(plan)) {
            return false;
        }
        SealPlan days = new SealPlan();
        for (SealPlan.Part part : plan.parts) {
            planDays(part, lastBefore.getOrDefault(part.point(), Long.MIN_VALUE), days);
        }
        return write(days);
    }

    /** Writes a plan, unless an erasure has taken back meanwhile what it was made from. */
    private boolean write(SealPlan plan) {
        if (plan.isEmpty()) {
            return true;
        }
        boolean[] written = {false};
        writer.write(dsl -> {
            written[0] = plan.parts.stream().allMatch(part -> store.head().isLeaving(part.point(), part.whole()));
            if (written[0]) {
                plan.write(dsl, clock.instant());
            }
        });
        if (written[0]) {
            rememberTails(plan);
            plan.records.forEach(store::remember);
            plan.parts.stream().filter(SealPlan.Part::isLast).forEach(part -> store.head()
                    .left(part.point()));
        }
        return written[0];
    }

    /**
     * Puts other readings in place of those of a range, on disk and in the summaries, and runs something in the same
     * transaction. Readings of the point that are in memory are sealed first.
     *
     * @param with what belongs to it, such as the journal row that says so
     */
    public void rewrite(Rewrite rewrite, Consumer<DSLContext> with) {
        int point = rewrite.point();
        while (!seal(List.of(point))) {
            Thread.onSpinWait();
        }
        SealPlan plan = new SealPlan();
        PointRecord record = store.record(point);
        SeriesSlice old = SeriesSlice.empty();
        for (SeriesTables.ChunkRow row : store.tables().chunks(point, rewrite.from(), rewrite.until())) {
            if (row.lastTime() >= rewrite.from()) {
                SeriesSlice slice = row.slice();
                old = old.merge(slice);
                plan.chunksGone.add(row.id());
                record = record.changed(-slice.size(), -row.bytes(), 0);
            }
        }
        SeriesSlice merged = old.without(rewrite.from(), rewrite.until()).merge(rewrite.readings());
        record = planHours(
                point,
                rewrite.from(),
                rewrite.until() - 1,
                merged,
                planChunks(point, merged, record, plan),
                null,
                plan);
        SeriesSlice newest = newest(point, rewrite, merged);
        record = newest.size() == 0
                ? record.withLast(Long.MIN_VALUE, 0, 0)
                : record.withLast(newest.times()[0], newest.values()[0], newest.qualities()[0]);
        plan.records.add(record);
        writer.write(dsl -> {
            plan.write(dsl, clock.instant());
            with.accept(dsl);
        });
        tails.remove(point);
        plan.records.forEach(store::remember);
        SealPlan days = new SealPlan();
        SeriesSlice ends =
                new SeriesSlice(new long[] {rewrite.from(), rewrite.until() - 1}, new double[2], new byte[2]);
        planDays(new SealPlan.Part(point, ends, ends, true), Long.MAX_VALUE, days);
        write(days);
    }

    /** The newest reading that is left of a point; none if nothing is. */
    private SeriesSlice newest(int point, Rewrite rewrite, SeriesSlice merged) {
        if (store.record(point).lastTime() >= rewrite.until()) {
            return store.newestInChunks(point, Long.MAX_VALUE);
        }
        return merged.size() > 0
                ? merged.part(merged.size() - 1, merged.size())
                : store.newestInChunks(point, rewrite.from());
    }

    private void rememberTails(SealPlan plan) {
        Map<Integer, SeriesTables.ChunkRow> lastChunks = new HashMap<>();
        Map<Integer, SeriesTables.BlockRow> lastHours = new HashMap<>();
        plan.newChunks.forEach(chunk -> lastChunks.put(chunk.point(), chunk.row()));
        plan.newBlocks.stream()
                .filter(block -> block.width() == Width.HOUR)
                .forEach(block -> lastHours.put(block.point(), block.row()));
        Map<Integer, Long> newest = new HashMap<>();
        plan.records.forEach(record -> newest.put(record.point(), record.lastTime()));
        lastChunks.forEach((point, chunk) -> {
            SeriesTables.BlockRow hours = lastHours.get(point);
            if (hours != null && chunk.lastTime() == newest.getOrDefault(point, Long.MIN_VALUE)) {
                tails.put(point, new Tail(chunk, hours));
            } else {
                tails.remove(point);
            }
        });
    }

    private void plan(SealPlan.Part part, SealPlan plan) {
        SeriesSlice group = part.group();
        PointRecord record = planGroup(part.point(), group, store.record(part.point()), plan);
        int newest = group.size() - 1;
        if (group.times()[newest] >= record.lastTime()) {
            record = record.withLast(group.times()[newest], group.values()[newest], group.qualities()[newest]);
        }
        plan.records.add(record);
        plan.parts.add(part);
    }

    private PointRecord planGroup(int point, SeriesSlice group, PointRecord before, SealPlan plan) {
        long first = group.times()[0];
        long last = group.times()[group.size() - 1];
        Tail known = tails.get(point);
        Tail tail = known != null && known.isBefore(first) ? known : null;
        List<SeriesTables.ChunkRow> near =
                tail != null ? List.of(tail.chunk()) : store.tables().chunks(point, first, last + 1);
        SeriesSlice old = SeriesSlice.empty();
        PointRecord record = before;
        for (SeriesTables.ChunkRow row : near) {
            boolean touched = row.lastTime() >= first;
            boolean grows = row.readings() + group.size() <= MOST_IN_CHUNK
                    && (row.readings() < OPEN_BELOW || group.size() < FEW);
            if (touched || grows && near.size() == 1) {
                SeriesSlice slice = row.slice();
                old = old.merge(slice);
                plan.chunksGone.add(row.id());
                record = record.changed(-slice.size(), -row.bytes(), 0);
            }
        }
        SeriesSlice.replaced(
                old,
                group,
                (reading, by) ->
                        plan.replaced.add(new SealPlan.PointReplaced(point, new PointSeries.Replaced(reading, by))));
        SeriesSlice merged = old.merge(group);
        return planHours(point, first, last, merged, planChunks(point, merged, record, plan), tail, plan);
    }

    private PointRecord planChunks(int point, SeriesSlice merged, PointRecord before, SealPlan plan) {
        PointRecord record = before;
        int pieces = merged.size() <= MOST_IN_CHUNK
                ? Math.min(1, merged.size())
                : (merged.size() + CUT_CHUNKS_AT - 1) / CUT_CHUNKS_AT;
        for (int i = 0; i < pieces; i++) {
            SeriesSlice piece = pieces == 1
                    ? merged
                    : merged.part(
                            (int) ((long) merged.size() * i / pieces), (int) ((long) merged.size() * (i + 1) / pieces));
            byte[] packed = chunks.encode(piece);
            plan.newChunks.add(new SealPlan.NewChunk(
                    point,
                    new SeriesTables.ChunkRow(
                            ++lastChunkId,
                            piece.times()[0],
                            piece.times()[piece.size() - 1],
                            piece.size(),
                            packed.length,
                            packed)));
            record = record.changed(piece.size(), packed.length, 0);
        }
        return record;
    }

    /** The hours that the group's readings lie in, and those into which the value before or the last of them holds. */
    private PointRecord planHours(
            int point,
            long first,
            long last,
            SeriesSlice merged,
            PointRecord before,
            @Nullable Tail tail,
            SealPlan plan) {
        SeriesSlice context = context(point, first, last, merged, tail, plan.chunksGone);
        int firstIndex = context.indexOf(first);
        long from = Summarizer.hourOf(firstIndex > 0 ? context.times()[firstIndex - 1] : first);
        int after = context.indexOf(last + 1);
        long until = Summarizer.hourOf(after < context.size() ? context.times()[after] : last) + Width.HOUR.millis();
        long hold = Pace.gapMillis(Pace.typicalMillis(merged));
        from = Math.max(from, Summarizer.hourOf(first - hold - Width.HOUR.millis()));
        until = Math.min(until, Summarizer.hourOf(last + hold) + 2 * Width.HOUR.millis());
        List<Summary> fresh =
                new Summarizer(store.profile(point).limits(), hold).over(context, Summarizer.hours(from, until));
        List<SeriesTables.BlockRow> rows = tail != null && tail.hours().firstStart() <= from
                ? List.of(tail.hours())
                : store.tables().blocks(point, Width.HOUR, from, until);
        return planBlocks(point, Width.HOUR, rows, fresh, from, until, before.detailFrom(), before, plan);
    }

    /** Readings around a group, from the hour of the reading before it to the reading after it, as they will be. */
    private SeriesSlice context(
            int point, long first, long last, SeriesSlice merged, @Nullable Tail tail, List<Long> gone) {
        SeriesSlice context = merged;
        boolean beginsHere = merged.size() == 0 || merged.times()[0] >= first;
        if (beginsHere && tail != null) {
            context = tail.chunk().slice().merge(context);
        } else if (beginsHere) {
            context = withChunks(store.tables().chunks(point, first - 1, first), gone, context);
        }
        int before = context.indexOf(first) - 1;
        if (before >= 0 && Summarizer.hourOf(context.times()[before]) < context.times()[0]) {
            context = withChunks(
                    store.tables().chunks(point, Summarizer.hourOf(context.times()[before]), context.times()[0]),
                    gone,
                    context);
        }
        if (tail == null && (merged.size() == 0 || merged.times()[merged.size() - 1] <= last)) {
            context = withChunks(store.tables().chunkAfter(point, last), gone, context);
        }
        return tail == null ? toTheEndOfTheHour(point, last, context, gone) : context;
    }

    /**
     * The hour of the reading after a group is made anew too, so all of it has to be there, and the reading that ends
     * its last value.
     */
    private SeriesSlice toTheEndOfTheHour(int point, long last, SeriesSlice context, List<Long> gone) {
        int after = context.indexOf(last + 1);
        long end = Summarizer.hourOf(after < context.size() ? context.times()[after] : last) + Width.HOUR.millis();
        SeriesSlice whole = context;
        long newest = newestTime(whole, last);
        if (newest < end) {
            whole = withChunks(store.tables().chunks(point, newest + 1, end), gone, whole);
        }
        long reached = newestTime(whole, last);
        return reached < end && reached > newest
                ? withChunks(store.tables().chunkAfter(point, reached), gone, whole)
                : whole;
    }

    private static long newestTime(SeriesSlice slice, long otherwise) {
        return slice.size() == 0 ? otherwise : slice.times()[slice.size() - 1];
    }

    private static SeriesSlice withChunks(List<SeriesTables.ChunkRow> rows, List<Long> gone, SeriesSlice newer) {
        SeriesSlice all = newer;
        for (SeriesTables.ChunkRow row : rows) {
            all = gone.contains(row.id()) ? all : row.slice().merge(all);
        }
        return all;
    }

    /**
     * Puts summaries in place of those stored for a range. Where what they would be made from is erased already, the
     * new ones stand for later readings only and are added to what is there.
     */
    private PointRecord planBlocks(
            int point,
            Width width,
            List<SeriesTables.BlockRow> rows,
            List<Summary> fresh,
            long from,
            long until,
            long erasedBefore,
            PointRecord before,
            SealPlan plan) {
        PointRecord record = before;
        TreeMap<Long, Summary> all = new TreeMap<>();
        int open = 0;
        for (SeriesTables.BlockRow row : rows) {
            List<Summary> stored = row.summaries();
            boolean touched = row.lastStart() >= from;
            if (touched || stored.size() < CUT_BLOCKS_AT && rows.size() == 1) {
                plan.blocksGone.add(row.id());
                record = record.changed(0, 0, -row.bytes());
                for (Summary summary : stored) {
                    long start = summary.start().toEpochMilli();
                    if (start < from || start >= until || start < erasedBefore) {
                        all.put(start, summary);
                    }
                }
                open++;
            }
        }
        for (Summary summary : fresh) {
            all.merge(
                    summary.start().toEpochMilli(),
                    summary,
                    (old, more) -> Summary.merge(old.start(), List.of(old, more)));
        }
        if (all.isEmpty() && open == 0) {
            return record;
        }
        List<Summary> list = List.copyOf(all.values());
        int pieces = list.size() <= MOST_IN_BLOCK
                ? Math.min(1, list.size())
                : (list.size() + CUT_BLOCKS_AT - 1) / CUT_BLOCKS_AT;
        for (int i = 0; i < pieces; i++) {
            List<Summary> piece = list.subList(list.size() * i / pieces, list.size() * (i + 1) / pieces);
            byte[] packed = summaries.encode(piece);
            plan.newBlocks.add(new SealPlan.NewBlock(
                    point,
                    width,
                    piece.size(),
                    new SeriesTables.BlockRow(
                            ++lastBlockId,
                            piece.getFirst().start().toEpochMilli(),
                            piece.getLast().start().toEpochMilli(),
                            packed.length,
                            packed)));
            record = record.changed(0, 0, packed.length);
        }
        return record;
    }

    /** The days of the site's calendar that are over and that the readings touched. */
    private void planDays(SealPlan.Part part, long lastBefore, SealPlan plan) {
        PointRecord record = store.record(part.point());
        ZoneId zone = store.profile(part.point()).zone();
        long today = record.lastTime() == Long.MIN_VALUE
                ? Long.MAX_VALUE
                : CalendarPeriod.DAY
                        .startOf(Instant.ofEpochMilli(record.lastTime()), zone)
                        .toEpochMilli();
        long first = part.group().times()[0];
        long last = part.group().times()[part.group().size() - 1];
        if (lastBefore >= today && first >= today) {
            return;
        }
        boolean late = first <= lastBefore;
        long holding = late ? first - GROUP_MILLIS : Math.max(lastBefore, first - GROUP_MILLIS);
        long until = last + (late ? GROUP_MILLIS : 1);
        PointRecord changed = planDays(
                part.point(),
                CalendarPeriod.DAY.edges(Instant.ofEpochMilli(holding), Instant.ofEpochMilli(until), zone),
                today,
                record,
                plan);
        if (!changed.equals(record)) {
            plan.records.add(changed);
        }
    }

    private PointRecord planDays(int point, long[] edges, long today, PointRecord record, SealPlan plan) {
        int over = 0;
        while (over < edges.length && edges[over] <= today) {
            over++;
        }
        if (over < 2) {
            return record;
        }
        long[] closed = Arrays.copyOf(edges, over);
        return planBlocks(
                point,
                Width.DAY,
                store.tables().blocks(point, Width.DAY, closed[0], closed[over - 1]),
                store.summaries(point, closed),
                closed[0],
                closed[over - 1],
                record.hoursFrom(),
                record,
                plan);
    }

    @Override
    public void close() {
        chunks.close();
        summaries.close();
    }
}
