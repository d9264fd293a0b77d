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
        Registry now = access.registry();
        SortedMap<Quantity, List<Point>> points = new TreeMap<>();
        now.pointsOf(asset.id()).stream()
                .filter(access::maySee)
                .forEach(point -> points.computeIfAbsent(point.quantity(), of -> new ArrayList<>())
                        .add(point));
        List<Proposal> all = new ArrayList<>();
        List<Quantity> withoutLimits = new ArrayList<>();
        points.forEach((quantity, of) -> {
            Optional<LimitSet> limits =
                    of.stream().flatMap(point -> now.limitsOf(point).stream()).findFirst();
            limits.ifPresentOrElse(
                    set -> {
                        all.add(zone(asset, quantity, set));
                        all.add(fault(asset, quantity));
                    },
                    () -> withoutLimits.add(quantity));
            if (limits.isPresent() && of.stream().anyMatch(point -> now.referenceOf(point.id())
                    .isPresent())) {
                all.add(baseline(asset, quantity));
            }
        });
        all.addAll(silences(now, asset, points));
        return new Proposed(
                all.stream()
                        .filter(one -> !isWatched(now, one.rule()))
                        .flatMap(one -> possible(access, one).stream())
                        .toList(),
                List.copyOf(withoutLimits));
    }

    /**
     * The rules of some proposals, made together or not at all.
     *
     * @param ids of the proposals
     * @param newId gives each its own id
     */
    public static Edited adopt(
            Access access, String assetId, List<String> ids, List<String> recipients, List<String> newIds) {
        Optional<Asset> asset = access.registry().find(Asset.class, assetId);
        Optional<Refused> refusal = Rights.on(access, Right.EDIT, assetId, "change rules here")
                .or(() -> asset.isPresent() ? Optional.empty() : Optional.of(Refused.unknown("asset")));
        if (refusal.isPresent()) {
            return refusal.get();
        }
        List<Proposal> proposals = of(access, asset.orElseThrow()).proposals();
        List<Change> steps = new ArrayList<>();
        for (int i = 0; i < ids.size(); i++) {
            String id = ids.get(i);
            Optional<Proposal> meant =
                    proposals.stream().filter(one -> one.rule().id().equals(id)).findFirst();
            if (meant.isEmpty()) {
                return Refused.clash(
                        "'" + id + "' is not proposed any more: a rule watches it already, or its points are gone.",
                        "Load the proposals again.");
            }
            Rule rule = named(meant.get().rule(), newIds.get(i), recipients);
            switch (RuleEdits.edit(access, new RuleWish.Make(rule))) {
                case Refused refused -> {
                    return refused;
                }
                case Changes(List<Change> one) -> steps.addAll(one);
            }
        }
        return new Changes(steps);
    }

    private static Proposal zone(Asset asset, Quantity quantity, LimitSet limits) {
        boolean vibration = quantity == Quantity.VIBRATION_VELOCITY;
        OptionalDouble limit = limits.warningLimit();
        double band = limit.isPresent() ? rounded(Math.abs(limit.getAsDouble()) * DEAD_BAND_SHARE) : 0;
        return proposal(
                Reason.LIMITS,
                asset,
                quantity,
                words(quantity) + " in a warning zone",
                new Condition.InZone(Severity.WARNING),
                vibration ? new Hold.ForReports(REPORTS_IN_A_ROW) : new Hold.ForTime(HOLD_SECONDS),
                band,
                Severity.WARNING);
    }

    private static Proposal fault(Asset asset, Quantity quantity) {
        return proposal(
                Reason.FAULT,
                asset,
                quantity,
                words(quantity) + " sensor at fault",
                new Condition.Faulty(),
                new Hold.ForTime(HOLD_SECONDS),
                0,
                Severity.ADVISORY);
    }

    private static Proposal baseline(Asset asset, Quantity quantity) {
        return proposal(
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
    private static List<Proposal> silences(Registry now, Asset asset, SortedMap<Quantity, List<Point>> points) {
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
                .map(one -> proposal(
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

    private static Proposal proposal(
            Reason reason,
            Asset asset,
            Quantity quantity,
            String what,
            Condition condition,
            Hold hold,
            double deadBand,
            Severity severity) {
        return new Proposal(
                new Rule(
                        reason.name().toLowerCase(Locale.ROOT) + "-" + quantity.id(),
                        asset.name() + ": " + what,
                        new Target.OfAsset(asset.id(), quantity),
                        Measure.LAST,
                        condition,
                        null,
                        null,
                        hold,
                        null,
                        deadBand,
                        severity,
                        reason == Reason.LIMITS,
                        null,
                        null,
                        null,
                        true,
                        List.of(),
                        ""),
                reason);
    }

    private static Rule named(Rule rule, String id, List<String> recipients) {
        return new Rule(
                id,
                rule.name(),
                rule.target(),
                rule.measure(),
                rule.condition(),
                rule.also(),
                rule.atLeast(),
                rule.hold(),
                rule.active(),
                rule.deadBand(),
                rule.severity(),
                rule.severityOfZone(),
                rule.latching(),
                rule.tellWhenOver(),
                rule.rounds(),
                rule.enabled(),
                recipients,
                rule.guidance());
    }

    /** A rule with the same kind of condition looks at all the same points. */
    private static boolean isWatched(Registry now, Rule proposed) {
        List<Point> points = now.pointsOf(proposed);
        return now.all(Rule.class).stream()
                .filter(rule -> rule.enabled()
                        && rule.condition().getClass() == proposed.condition().getClass())
                .anyMatch(rule -> now.pointsOf(rule).containsAll(points));
    }

    /** As it is proposed, or without a dead band that the limits leave no room for. */
    private static Optional<Proposal> possible(Access access, Proposal proposal) {
        return Stream.of(proposal, new Proposal(withoutBand(proposal.rule()), proposal.reason()))
                .filter(one -> RuleEdits.edit(access, new RuleWish.Make(one.rule())) instanceof Changes)
                .findFirst();
    }

    private static Rule withoutBand(Rule rule) {
        return new Rule(
                rule.id(),
                rule.name(),
                rule.target(),
                rule.measure(),
                rule.condition(),
                rule.also(),
                rule.atLeast(),
                rule.hold(),
                rule.active(),
                0,
                rule.severity(),
                rule.severityOfZone(),
                rule.latching(),
                rule.tellWhenOver(),
                rule.rounds(),
                rule.enabled(),
                rule.recipients(),
                rule.guidance());
    }

    private static String words(Quantity quantity) {
        return quantity.title().toLowerCase(Locale.ROOT);
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
