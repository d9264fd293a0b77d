package org.openpasture.store.series;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.ByPoint;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;

/**
 * The readings that are in the journal and not yet in chunks, and the newest reading of every point. One thread adds,
 * any may read; each point is its own lock, held for a copy at most.
 */
final class Head {
    private final ByPoint<PointHead> points = new ByPoint<>(PointHead::new);
    private final AtomicLong waiting = new AtomicLong();

    private static final class PointHead {
        private PointSeries fresh = new PointSeries();
        private int added;
        /** What is being put into chunks; still answered from here until that is on disk. */
        private @Nullable SeriesSlice leaving;

        private @Nullable Reading last;
    }

    /** Takes an event that is on disk. */
    void take(Event event) {
        switch (event) {
            case Event.ReadingsArrived(Arrival arrival) -> {
                List<PointReading> readings = arrival.readings();
                for (int i = 0; i < readings.size(); i++) {
                    take(readings.get(i).point(), readings.get(i).reading(), arrival.receivedAt());
                }
                waiting.addAndGet(readings.size());
            }
            case Event.ReadingsErased(Instant at, int point, Instant from, Instant until) -> erase(point, from, until);
            case Event.AlertAcknowledged ignored -> {}
            case Event.RuleShelved ignored -> {}
            case Event.RuleUnshelved ignored -> {}
            case Event.ClockMoved ignored -> {}
            case Event.TimePassed ignored -> {}
        }
    }

    private void take(int point, Reading reading, Instant receivedAt) {
        PointHead of = points.get(point);
        synchronized (of) {
            of.fresh.add(reading);
            of.added++;
            if (of.last == null || !reading.time().isBefore(of.last.time()) || of.last.isFromTheFuture(receivedAt)) {
                of.last = reading;
            }
        }
    }

    private void erase(int point, Instant from, Instant until) {
        PointHead of = points.get(point);
        synchronized (of) {
            SeriesSlice all = of.leaving == null ? of.fresh.slice() : of.leaving.merge(of.fresh.slice());
            SeriesSlice kept = all.without(from.toEpochMilli(), until.toEpochMilli());
            of.leaving = null;
            waiting.addAndGet(kept.size() - of.added);
            of.fresh = PointSeries.of(kept);
            of.added = kept.size();
        }
    }

    /** The newest reading of a point is known from the disk; or, after an erasure, is another one. */
    void setLast(int point, @Nullable Reading reading) {
        PointHead of = points.get(point);
        synchronized (of) {
            of.last = reading;
        }
    }

    Optional<Reading> last(int point) {
        PointHead of = points.find(point);
        if (of == null) {
            return Optional.empty();
        }
        synchronized (of) {
            return Optional.ofNullable(of.last);
        }
    }

    /** What is not in chunks for sure, with {@code from <= time < until}. */
    SeriesSlice range(int point, long from, long until) {
        PointHead of = points.find(point);
        if (of == null) {
            return SeriesSlice.empty();
        }
        synchronized (of) {
            SeriesSlice fresh = of.fresh.slice(from, until);
            return of.leaving == null ? fresh : of.leaving.between(from, until).merge(fresh);
        }
    }

    /** The points that have readings to be put into chunks. */
    List<Integer> pointsWaiting() {
        List<Integer> found = new ArrayList<>();
        points.forEach((point, of) -> {
            synchronized (of) {
                if (of.added > 0 || of.leaving != null) {
                    found.add(point);
                }
            }
        });
        return found;
    }

    /**
     * What leaves for the chunks.
     *
     * @param replaced values among them that gave way to others
     */
    record Leaving(SeriesSlice slice, List<PointSeries.Replaced> replaced) {}

    /** Hands a point's readings out to be put into chunks; they are answered from here until {@link #left}. */
    Leaving leave(int point) {
        PointHead of = points.get(point);
        synchronized (of) {
            SeriesSlice fresh = of.fresh.slice();
            List<PointSeries.Replaced> replaced = of.fresh.replaced();
            SeriesSlice leaving = of.leaving == null ? fresh : of.leaving.merge(fresh);
            of.leaving = leaving;
            of.fresh = new PointSeries(fresh.size());
            waiting.addAndGet(-of.added);
            of.added = 0;
            return new Leaving(leaving, replaced);
        }
    }

    /** They are in chunks, on disk. */
    void left(int point) {
        PointHead of = points.get(point);
        synchronized (of) {
            of.leaving = null;
        }
    }

    /** Whether what {@link #leave} handed out is still what is to be put into chunks; an erasure takes it back. */
    boolean isLeaving(int point, SeriesSlice slice) {
        PointHead of = points.get(point);
        synchronized (of) {
            return of.leaving == slice;
        }
    }

    /** How many readings are not yet being put into chunks. */
    long waiting() {
        return waiting.get();
    }
}
