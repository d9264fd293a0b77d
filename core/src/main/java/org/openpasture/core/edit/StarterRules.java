package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/**
 * Rules that are proposed for an asset by what is measured there: values that reach a zone of their limit set, sensors
 * that fall silent or send what cannot be real, and vibration that changes against its baseline. What a rule watches
 * already is not proposed again.
 */
public final class StarterRules {
    private static final int REPORTS_IN_A_ROW = 3;
    private static final int HOLD_SECONDS = 600;
    private static final int MISSED_REPORTS = 3;
    private static final int SILENT_AT_LEAST_SECONDS = 900;
    private static final double DEAD_BAND_SHARE = 0.02;
    /** ISO 20816-1, annex B: a change by a quarter of the limit between zones B and C is significant. */
    private static final double SIGNIFICANT_PERCENT = 25;

    private StarterRules() {}

    /** Why a rule is proposed. */
    public enum Reason {
        /** A limit set holds for what is measured. */
        LIMITS,
        /** The sensor reports at a known interval. */
        SILENCE,
        /** A sensor at fault is judged by no other rule. */
        FAULT,
        /** There is a baseline to compare with. */
        BASELINE
    }

    /**
     * A rule that may be adopted.
     *
     * @param rule whose id names it among the proposals; it is given another one when it is adopted
     */
    public record Proposal(Rule rule, Reason reason) {}

    /**
     * What is proposed.
     *
     * @param withoutLimits quantities of the asset that no limit set holds for, so that no rule can be proposed
     */
    public record Proposed(List<Proposal> proposals, List<Quantity> withoutLimits) {}

    /** What is proposed for an asset, as far as the person may see its points and make the rules. */
    public static Proposed of(Access access, Asset asset) {
        List<Quantity> withoutLimits = new ArrayList<>();
        return new Proposed(
                drafts(access, asset, withoutLimits).stream()
                        .flatMap(draft -> draft.possible(access, draft.key(), List.of()).stream()
                                .map(rule -> new Proposal(rule, draft.reason())))
                        .toList(),
                List.copyOf(withoutLimits));
    }

    private static List<Draft> drafts(Access access, Asset asset, List<Quantity> withoutLimits) {
        Registry now = access.registry();
        SortedMap<Quantity, List<Point>> points = new TreeMap<>();
        now.pointsOf(asset.id()).stream().filter(access::maySee).forEach(point -> points.computeIfAbsent(
                        point.quantity(), of -> new ArrayList<>())
                .add(point));
        List<Draft> all = new ArrayList<>();
        points.forEach((quantity, of) -> {
            Optional<LimitSet> limits =
                    of.stream().flatMap(point -> now.limitsOf(point).stream()).findFirst();
            limits.ifPresentOrElse(
                    set -> {
                        all.add(zone(asset, quantity, set));
                        all.add(fault(asset, quantity));
                    },
                    () -> withoutLimits.add(quantity));
            if (limits.isPresent()
                    && of.stream().anyMatch(point -> now.referenceOf(point.id()).isPresent())) {
                all.add(baseline(asset, quantity));
            }
        });
        all.addAll(silences(now, asset, points));
        return all.stream()
                .filter(draft -> !isWatched(now, draft.rule(draft.key(), 0, List.of())))
                .toList();
    }

    /**
     * The rules of some proposals, made together or not at all.
     *
     * @param keys the ids of the proposals, each once
     * @param newIds an id for each rule
     */
    public static Edited adopt(
            Access access, String assetId, List<String> keys, List<String> recipients, List<String> newIds) {
        Optional<Asset> asset = access.registry().find(Asset.class, assetId);
        Optional<Refused> refusal = Rights.on(access, Right.EDIT, assetId, "change rules here")
                .or(() -> asset.isPresent() ? Optional.empty() : Optional.of(Refused.unknown("asset")));
        if (refusal.isPresent()) {
            return refusal.get();
        }
        List<Draft> drafts = drafts(access, asset.orElseThrow(), new ArrayList<>());
        List<Change> steps = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            String key = keys.get(i);
            Optional<Draft> meant =
                    drafts.stream().filter(draft -> draft.key().equals(key)).findFirst();
            if (meant.isEmpty()) {
                return Refused.clash(
                        "'" + key + "' is not proposed: a rule watches it already, or its points are gone.",
                        "Load the proposals again.");
            }
            switch (meant.get().make(access, newIds.get(i), recipients)) {
                case Refused refused -> {
                    return refused;
                }
                case Changes(List<Change> one) -> steps.addAll(one);
            }
        }
        return new Changes(steps);
    }

    private static Draft zone(Asset asset, Quantity quantity, LimitSet limits) {
        boolean vibration = quantity == Quantity.VIBRATION_VELOCITY;
        OptionalDouble limit = limits.warningLimit();
        double band = limit.isPresent() ? rounded(Math.abs(limit.getAsDouble()) * DEAD_BAND_SHARE) : 0;
        return new Draft(
                Reason.LIMITS,
                asset,
                quantity,
                words(quantity) + " in a warning zone",
                new Condition.InZone(Severity.WARNING),
                vibration ? new Hold.ForReports(REPORTS_IN_A_ROW) : new Hold.ForTime(HOLD_SECONDS),
                band,
                Severity.WARNING);
    }

    private static Draft fault(Asset asset, Quantity quantity) {
        return new Draft(
                Reason.FAULT,
                asset,
                quantity,
                words(quantity) + " sensor at fault",
                new Condition.Faulty(),
                new Hold.ForTime(HOLD_SECONDS),
                0,
                Severity.ADVISORY);
    }

    private static Draft baseline(Asset asset, Quantity quantity) {
        return new Draft(
                Reason.BASELINE,
                asset,
                quantity,
                words(quantity) + " changed against its baseline",
                new Condition.OffBaseline(SIGNIFICANT_PERCENT, null),
                new Hold.ForReports(REPORTS_IN_A_ROW),
                0,
                Severity.ADVISORY);
    }

    /** One for each device, at the quantity that it measures first. */
    private static List<Draft> silences(Registry now, Asset asset, SortedMap<Quantity, List<Point>> points) {
        SortedMap<Quantity, Integer> seconds = new TreeMap<>();
        List<String> devices = new ArrayList<>();
        points.values().stream().flatMap(List::stream).forEach(point -> devices(now, point)
                .filter(device -> !devices.contains(device.id()))
                .forEach(device -> {
                    devices.add(device.id());
                    now.find(DeviceModel.class, device.modelId())
                            .ifPresent(model -> seconds.merge(
                                    point.quantity(),
                                    Math.max(SILENT_AT_LEAST_SECONDS, MISSED_REPORTS * model.intervalSeconds()),
                                    Math::max));
                }));
        return seconds.entrySet().stream()
                .map(one -> new Draft(
                        Reason.SILENCE,
                        asset,
                        one.getKey(),
                        "no readings of " + words(one.getKey()),
                        new Condition.Silent(one.getValue()),
                        new Hold.ForTime(0),
                        0,
                        Severity.WARNING))
                .toList();
    }

    private static Stream<Device> devices(Registry now, Point point) {
        return now.assignmentsTo(point.id()).stream()
                .filter(assignment -> assignment.until() == null)
                .flatMap(assignment -> now.find(Device.class, assignment.deviceId()).stream())
                .sorted(Comparator.comparing(Device::id));
    }

    /** A rule before it has an id, recipients, and a dead band that fits. */
    private record Draft(
            Reason reason,
            Asset asset,
            Quantity quantity,
            String what,
            Condition condition,
            Hold hold,
            double deadBand,
            Severity severity) {
        String key() {
            return reason.name().toLowerCase(Locale.ROOT) + "-" + quantity.id();
        }

        Rule rule(String id, double band, List<String> recipients) {
            return new Rule(
                    id,
                    asset.name() + ": " + what,
                    new Target.OfAsset(asset.id(), quantity),
                    Measure.LAST,
                    condition,
                    null,
                    null,
                    hold,
                    null,
                    band,
                    severity,
                    reason == Reason.LIMITS,
                    null,
                    null,
                    null,
                    true,
                    recipients,
                    "");
        }

        /** The rule that can be made: as it is meant, or without a dead band that the limits leave no room for. */
        Optional<Rule> possible(Access access, String id, List<String> recipients) {
            return Stream.of(deadBand, 0.0)
                    .map(band -> rule(id, band, recipients))
                    .filter(rule -> RuleEdits.edit(access, new RuleWish.Make(rule)) instanceof Changes)
                    .findFirst();
        }

        /** Makes it, or says why it cannot be made as it is meant. */
        Edited make(Access access, String id, List<String> recipients) {
            return possible(access, id, recipients)
                    .<Edited>map(Changes::put)
                    .orElseGet(() -> RuleEdits.edit(access, new RuleWish.Make(rule(id, deadBand, recipients))));
        }
    }

    /** A rule with the same kind of condition looks at all the same points. */
    private static boolean isWatched(Registry now, Rule proposed) {
        List<Point> points = now.pointsOf(proposed);
        return now.all(Rule.class).stream()
                .filter(rule -> rule.enabled()
                        && rule.condition().getClass() == proposed.condition().getClass())
                .anyMatch(rule -> now.pointsOf(rule).containsAll(points));
    }

    private static String words(Quantity quantity) {
        return quantity.title().split(",")[0];
    }

    /** To one significant digit, so that it reads like a number that somebody chose. */
    private static double rounded(double value) {
        if (value == 0) {
            return 0;
        }
        double step = Math.pow(10, Math.floor(Math.log10(value)));
        return Math.round(value / step) * step;
    }
}
