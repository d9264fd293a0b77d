package org.openpasture.core.packing;

import java.util.Set;

/**
 * What goes into a pack. The limit sets that hold for what its rules and dashboards are about come along.
 *
 * @param name of the pack
 * @param about what it is for
 */
public record PackChoice(
        String name,
        String about,
        Set<String> ruleIds,
        Set<String> dashboardIds,
        Set<String> limitSetIds,
        Set<String> modelIds) {
    public PackChoice {
        ruleIds = Set.copyOf(ruleIds);
        dashboardIds = Set.copyOf(dashboardIds);
        limitSetIds = Set.copyOf(limitSetIds);
        modelIds = Set.copyOf(modelIds);
    }
}
