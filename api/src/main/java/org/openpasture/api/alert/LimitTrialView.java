package org.openpasture.api.alert;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * What a limit set would say of what was measured.
 *
 * @param points that measure its quantity, worst first
 * @param rules that look at zones of points for which the set holds: how often each would have raised an alert
 */
public record LimitTrialView(Instant since, Instant until, List<TriedPoint> points, List<TriedRule> rules) {
    /**
     * A point under the set.
     *
     * @param path names of the places from the site down
     * @param value the newest good one; null if there is none
     * @param zoneNow by the limits that hold for it now; null if none do
     * @param zoneThen by the set that is tried; null without a value
     * @param secondsInZone by the set that is tried
     * @param crossings how often it went from normal to abnormal by the set that is tried
     */
    public record TriedPoint(
            String pointId,
            int number,
            String name,
            List<String> path,
            String unit,
            @Nullable Double value,
            @Nullable String zoneNow,
            @Nullable Severity severityNow,
            @Nullable String zoneThen,
            @Nullable Severity severityThen,
            Map<String, Long> secondsInZone,
            int crossings) {}

    /**
     * A rule on zones.
     *
     * @param times how many alerts with the limits as they are
     * @param timesThen how many with the set that is tried
     */
    public record TriedRule(String ruleId, String name, long times, long timesThen) {}
}
