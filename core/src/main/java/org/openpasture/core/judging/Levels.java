package org.openpasture.core.judging;

import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;

/**
 * A rule whose alert has the severity of the zone is watched once for each severity above the one it begins with, under
 * a key of its own. These levels have no alert: they raise or lower the severity of the rule's alert. Each has to hold
 * as long as the rule itself, so that a spike does not make a warning critical.
 */
final class Levels {
    /** Sorts before every id, so that of two things due at once the level comes first and one alert says it all. */
    private static final char MARK = '!';

    private Levels() {}

    /** The rule with its levels, these first, the most severe one at the front. */
    static List<Rule> with(Rule rule) {
        List<Rule> all = new ArrayList<>();
        if (rule.hasSeverityOfZone() && rule.condition() instanceof Condition.InZone(Severity from)) {
            for (Severity severity : List.of(Severity.CRITICAL, Severity.WARNING)) {
                if (severity.compareTo(from) > 0) {
                    all.add(rule.level(key(rule.id(), severity), severity));
                }
            }
        }
        all.add(rule);
        return all;
    }

    static boolean isLevel(String key) {
        return key.charAt(0) == MARK;
    }

    /** The key of the rule that a level belongs to. */
    static String ruleOf(String level) {
        return level.substring(level.lastIndexOf(MARK) + 1);
    }

    /** The key of a level of a rule. */
    static String key(String rule, Severity severity) {
        return MARK + severity.id() + MARK + rule;
    }
}
