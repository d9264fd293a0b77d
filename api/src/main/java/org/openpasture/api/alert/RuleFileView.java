package org.openpasture.api.alert;

import java.util.List;

/**
 * What a file of rules does.
 *
 * @param applied whether it was done; false for a dry run
 * @param rules in the order of the file
 */
public record RuleFileView(boolean applied, List<PlannedRule> rules) {
    /**
     * What becomes of a rule of the file.
     *
     * @param fate added, changed or same
     * @param changed which parts of a rule that is changed become others
     */
    public record PlannedRule(String id, String name, String fate, List<String> changed) {}
}
