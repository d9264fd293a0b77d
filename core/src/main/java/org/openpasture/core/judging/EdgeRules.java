package org.openpasture.core.judging;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.EdgeVerdict;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/**
 * All that is watched: the rules that people made, and for each channel by which a device gives a verdict of its own
 * one that nobody has to make. Where somebody made one for what the device says (to have mail of it, say), that takes
 * its place.
 */
final class EdgeRules {
    private static final int USUAL_ROUNDS = 3;

    private EdgeRules() {}

    static List<Rule> andThoseOf(Registry registry) {
        List<Rule> rules = new ArrayList<>(registry.all(Rule.class).stream()
                .filter(Rule::enabled)
                .flatMap(rule -> Members.of(registry, rule).stream())
                .flatMap(rule -> Levels.with(rule).stream())
                .toList());
        Set<String> covered = rules.stream()
                .filter(rule -> rule.condition() instanceof Condition.DeviceSays)
                .flatMap(rule -> registry.pointsOf(rule).stream())
                .map(Point::id)
                .collect(Collectors.toSet());
        for (Assignment assignment : registry.all(Assignment.class)) {
            if (assignment.until() == null && !covered.contains(assignment.pointId())) {
                implied(registry, assignment).ifPresent(rules::add);
            }
        }
        return rules;
    }

    private static Optional<Rule> implied(Registry registry, Assignment assignment) {
        Optional<Device> device = registry.find(Device.class, assignment.deviceId());
        Optional<DeviceModel> model = device.flatMap(of -> registry.find(DeviceModel.class, of.modelId()));
        Optional<EdgeVerdict> verdict =
                model.flatMap(of -> of.channel(assignment.channel())).map(Channel::verdict);
        return verdict.map(of -> new Rule(
                "edge-" + assignment.pointId(),
                device.get().name() + " says: " + of.says(),
                new Target.OfPoint(assignment.pointId()),
                new Condition.DeviceSays(
                        of.silentAfterSeconds() == null
                                ? USUAL_ROUNDS * model.get().intervalSeconds()
                                : of.silentAfterSeconds()),
                new Hold.ForReports(1),
                0,
                of.severity(),
                true,
                List.of(),
                ""));
    }
}
