package org.openpasture.api.alert;

import java.util.List;
import org.openpasture.core.edit.StarterRules;
import org.openpasture.core.quantity.Quantity;

/**
 * Rules that are proposed for an asset by what is measured there.
 *
 * @param withoutLimits quantities of the asset that no limit set holds for
 */
public record StarterRulesView(List<StarterRules.Proposal> proposals, List<Quantity> withoutLimits) {}
