package org.openpasture.core.edit;

import org.openpasture.core.rule.Rule;

/** What a person wishes to do with a rule. */
public sealed interface RuleWish {
    /** Adds a rule with an id that is new. */
    record Make(Rule rule) implements RuleWish {}

    /** Gives the rule with this id another condition; another target is looked at from then on. */
    record Change(Rule rule) implements RuleWish {}

    /** Removes a rule; its open alert returns. */
    record Remove(String id) implements RuleWish {}
}
