package org.openpasture.api.alert;

import org.openpasture.core.alert.Shelf;

/**
 * A rule that is set aside.
 *
 * @param memberId of a rule over a selection, the point or asset that is set aside; else empty
 */
public record ShelfView(String ruleId, String ruleName, String memberId, Shelf shelf) {}
