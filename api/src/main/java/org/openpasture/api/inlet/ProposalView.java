package org.openpasture.api.inlet;

import java.util.List;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.layout.Layout;

/**
 * How a model could read a message of somebody who is not known yet.
 *
 * @param example what it would read, "channel=value"
 */
public record ProposalView(Layout layout, List<Channel> channels, String example) {}
