package org.openpasture.inlets.gateway;

import org.openpasture.core.frame.Reception;

/** One frame that one gateway heard (rxpk), with how it heard it. */
public record RadioFrame(byte[] bytes, Reception reception) {}
