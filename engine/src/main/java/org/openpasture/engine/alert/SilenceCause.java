package org.openpasture.engine.alert;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.heard.GatewayStates;
import org.springframework.stereotype.Component;

/** Names the gateways where a device is silent because all that heard it are: nobody drives to a sensor for that. */
@Component
class SilenceCause {
    private final GatewayStates gateways;

    SilenceCause(GatewayStates gateways) {
        this.gateways = gateways;
    }

    /** The alert, with the gateways in its summary if it is one of silence and they are silent too. */
    Alert of(Registry registry, Alert alert) {
        boolean silence = registry.find(Rule.class, alert.ruleId())
                .filter(rule -> rule.condition() instanceof Condition.Silent)
                .isPresent();
        String pointId = alert.pointId();
        if (!silence || pointId == null) {
            return alert;
        }
        Optional<Gateway> itself = registry.gatewayCountedAt(pointId);
        if (itself.isPresent()) {
            // Who is notified of it need not be notified of each device behind it.
            return alert.becauseOf(cause(List.of(itself.get().eui())), alert.summary());
        }
        List<Eui64> heardBy = registry.assignmentsTo(pointId).stream()
                .filter(assignment -> assignment.until() == null)
                .map(Assignment::deviceId)
                .flatMap(device -> gateways.gatewaysOf(device).stream())
                .distinct()
                .toList();
        if (!gateways.areAllSilent(heardBy)) {
            return alert;
        }
        String names = heardBy.stream()
                .map(eui -> registry.gateway(eui)
                        .map(gateway -> "'" + gateway.name() + "'")
                        .orElse(eui.toString()))
                .collect(Collectors.joining(", "));
        return alert.becauseOf(
                cause(heardBy),
                alert.summary() + "; so " + (heardBy.size() == 1 ? "is its gateway " : "are its gateways ") + names
                        + ", look there first");
    }

    private static String cause(List<Eui64> silent) {
        return "gateway " + silent.stream().map(Eui64::toString).sorted().collect(Collectors.joining(" "));
    }
}
