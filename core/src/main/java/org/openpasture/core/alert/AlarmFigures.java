package org.openpasture.core.alert;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;

/**
 * How alerts do over a period, by the measures of IEC 62682 (clause 16) and EEMUA 191: how many come, whether more come
 * than somebody can look at, and which of them come again and again.
 *
 * @param count how often an alert came, those that came again included
 * @param perDay the mean of a day
 * @param mostInTenMinutes the greatest number in ten minutes, counted from full ten minutes on
 * @param floodShare the share of the period in flood: ten minutes with more than {@link #FLOOD}; 0 to 1
 * @param chattering what came {@link #CHATTER} times or more within a minute, and how often it did
 * @param top what came most often, {@link #TOP} at most, the most frequent first
 */
public record AlarmFigures(
        int count, double perDay, int mostInTenMinutes, double floodShare, List<Source> chattering, List<Source> top) {
    /** More than so many in ten minutes are a flood. */
    public static final int FLOOD = 10;
    /** So many of one within a minute chatter. */
    public static final int CHATTER = 3;

    public static final int TOP = 10;
    private static final Duration WINDOW = Duration.ofMinutes(10);
    private static final Duration MINUTE = Duration.ofMinutes(1);

    /**
     * An alert that came, or came again.
     *
     * @param source by which it is known what comes again: rule and place
     */
    public record Came(String source, Instant at) {}

    /**
     * What came, and how often.
     *
     * @param times altogether, or how often it chattered
     */
    public record Source(String source, int times) {}

    /**
     * The figures of a period.
     *
     * @param came in any order; what lies outside of the period is left out
     */
    public static AlarmFigures of(Collection<Came> came, Instant since, Instant until) {
        List<Came> within = came.stream()
                .filter(one -> !one.at().isBefore(since) && one.at().isBefore(until))
                .sorted(Comparator.comparing(Came::at))
                .toList();
        Duration period = Duration.between(since, until);
        Map<Long, Long> windows = within.stream()
                .collect(Collectors.groupingBy(
                        one -> Duration.between(since, one.at()).dividedBy(WINDOW), Collectors.counting()));
        long floods = windows.values().stream().filter(count -> count > FLOOD).count();
        double all = Math.max(1, Math.ceil((double) period.toMillis() / WINDOW.toMillis()));
        Map<String, List<Instant>> bySource = within.stream()
                .collect(Collectors.groupingBy(
                        Came::source, TreeMap::new, Collectors.mapping(Came::at, Collectors.toList())));
        return new AlarmFigures(
                within.size(),
                period.isZero()
                        ? 0
                        : within.size() * (double) Duration.ofDays(1).toMillis() / period.toMillis(),
                windows.values().stream().mapToInt(Long::intValue).max().orElse(0),
                floods / all,
                sorted(bySource, AlarmFigures::chatters),
                sorted(bySource, List::size).stream().limit(TOP).toList());
    }

    private static List<Source> sorted(Map<String, List<Instant>> bySource, ToIntFunction<List<Instant>> times) {
        return bySource.entrySet().stream()
                .map(one -> new Source(one.getKey(), times.applyAsInt(one.getValue())))
                .filter(one -> one.times() > 0)
                .sorted(Comparator.comparingInt(Source::times).reversed().thenComparing(Source::source))
                .toList();
    }

    /** How often three or more came within a minute; what belongs to one burst counts once. */
    private static int chatters(List<Instant> times) {
        int bursts = 0;
        for (int i = 0; i + CHATTER - 1 < times.size(); i++) {
            if (Duration.between(times.get(i), times.get(i + CHATTER - 1)).compareTo(MINUTE) <= 0) {
                bursts++;
                i += CHATTER - 1;
            }
        }
        return bursts;
    }
}
