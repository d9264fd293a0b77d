package org.openpasture.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/**
 * Looks back at a stretch of the past of which more has been learnt: readings that came after newer ones of their
 * point. Where a rule looks at one point alone, these readings say it all. Where it has further conditions, or compares
 * with another point, what the others said at each moment comes from the record.
 */
final class Hindsight {
    /** The record is looked through in pieces of this length, until nothing that was learnt late counts any more. */
    private static final Duration PIECE = Duration.ofDays(1);

    private static final int MOST_PIECES = 31;

    private final Registry registry;
    private final Past past;

    Hindsight(Registry registry, Past past) {
        this.registry = registry;
        this.past = past;
    }

    /** Whether a rule needs to know what other points said at the same time. */
    static boolean looksAtOthers(Watch watch) {
        return !watch.terms().isEmpty() || watch.points().stream().anyMatch(point -> point.other() != null);
    }

    /**
     * A time in which the condition held for long enough and which was over again, by the late readings of one point
     * alone.
     *
     * @param latest what is compared of the point now; null where nothing is known
     * @param told up to when there was an alert of the rule
     */
    Optional<Excursion.Found> ofOne(
            Watch watch, WatchedPoint of, List<Reading> readings, @Nullable Reading latest, Instant told, Instant now) {
        Excursion excursion = new Excursion(watch.rule().hold(), now);
        Window memory = watch.measure(0).seconds() == 0 ? null : new Window(watch.measure(0));
        for (Reading reading : readings) {
            if (memory != null && reading.quality() != Quality.BAD) {
                memory.update(reading.time(), reading.value());
            }
            Reading measured = memory == null ? reading : Compared.measured(memory, of, reading);
            Verdict verdict = measured == null ? null : watch.inHours(Verdict.of(of, measured), reading.time());
            Optional<Excursion.Found> found = verdict == null || measured == null
                    ? Optional.empty()
                    : excursion.next(measured, verdict, true).filter(isNews(told));
            if (found.isPresent()) {
                return found;
            }
        }
        // What still holds is for the readings that come now.
        Verdict present = latest == null ? null : watch.inHours(Verdict.of(of, latest), now);
        return present == null || latest == null || present.holds()
                ? Optional.empty()
                : excursion.next(latest, present, true).filter(isNews(told));
    }

    /**
     * The same where other points have a say.
     *
     * @param late the point of which something was learnt late
     * @param from the first of what was learnt late
     * @param until the last of it
     */
    Optional<Excursion.Found> ofSeveral(
            Watch watch, WatchedPoint of, int late, Instant from, Instant until, Instant told, Instant now) {
        Excursion excursion = new Excursion(watch.rule().hold(), now);
        Seen seen = new Seen();
        SortedSet<Integer> numbers = watch.numbers(of);
        Instant begin = from.minusSeconds(longest(watch));
        for (int number : numbers) {
            past.before(number, begin).ifPresent(reading -> seen.take(number, reading));
        }
        if (begin.isBefore(from)) {
            read(numbers, begin, from).forEach(one -> seen.remember(watch, of, one));
        }
        boolean isPast = false;
        Instant start = from;
        for (int piece = 0; piece < MOST_PIECES && start.isBefore(now); piece++) {
            Instant end = earlier(start.plus(PIECE), now.plusMillis(1));
            for (PointReading one : read(numbers, start, end)) {
                seen.remember(watch, of, one);
                Instant time = one.reading().time();
                Reading measured = Compared.present(watch, 0, of, seen);
                Verdict verdict =
                        measured == null ? null : watch.inHours(Compared.verdict(watch, of, measured, seen), time);
                if (verdict != null && measured != null) {
                    Reading then = new Reading(time, measured.value(), measured.quality());
                    boolean isReport = one.point() == of.point().number();
                    Optional<Excursion.Found> found =
                            excursion.next(then, verdict, isReport).filter(isNews(told));
                    if (found.isPresent()) {
                        return found;
                    }
                }
                isPast |= one.point() == late && time.isAfter(until);
                if (isPast && !excursion.isRunning()) {
                    return Optional.empty();
                }
            }
            start = end;
        }
        return Optional.empty();
    }

    private static Predicate<Excursion.Found> isNews(Instant told) {
        return found -> found.raisedAt().isAfter(told);
    }

    private static Instant earlier(Instant one, Instant other) {
        return one.isBefore(other) ? one : other;
    }

    /** How far back the measures of a rule look. */
    private static int longest(Watch watch) {
        int longest = 0;
        for (int term = 0; term <= watch.terms().size(); term++) {
            longest = Math.max(longest, watch.measure(term).seconds());
        }
        return longest;
    }

    /**
     * What was measured in a stretch, in the order of the times, without what was measured while a device was tried.
     */
    private List<PointReading> read(SortedSet<Integer> numbers, Instant from, Instant until) {
        List<PointReading> readings = new ArrayList<>();
        for (int number : numbers) {
            past.read(number, from, until, reading -> {
                if (!registry.isBeingChecked(number, reading.time())) {
                    readings.add(new PointReading(number, reading));
                }
            });
        }
        readings.sort(Comparator.comparing(one -> one.reading().time()));
        return readings;
    }

    /** What was known at a moment of the past. */
    private static final class Seen implements Compared.Known {
        private final Map<Integer, Reading> latest = new HashMap<>();
        private final Map<String, Window> windows = new HashMap<>();

        void take(int point, Reading reading) {
            latest.put(point, reading);
        }

        void remember(Watch watch, WatchedPoint of, PointReading one) {
            Reading reading = one.reading();
            take(one.point(), reading);
            if (reading.quality() == Quality.BAD) {
                return;
            }
            update(watch, 0, of, one);
            for (int term = 1; term <= watch.terms().size(); term++) {
                for (WatchedPoint point : watch.points(term)) {
                    update(watch, term, point, one);
                }
            }
        }

        private void update(Watch watch, int term, WatchedPoint of, PointReading one) {
            if (of.point().number() == one.point() && watch.measure(term).seconds() > 0) {
                windows.computeIfAbsent(watch.windowKey(term, of), key -> new Window(watch.measure(term)))
                        .update(one.reading().time(), one.reading().value());
            }
        }

        @Override
        public @Nullable Reading latest(int point) {
            return latest.get(point);
        }

        @Override
        public @Nullable Window window(Watch watch, int term, WatchedPoint of) {
            return windows.get(watch.windowKey(term, of));
        }
    }
}
