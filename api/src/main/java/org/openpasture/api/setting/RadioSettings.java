package org.openpasture.api.setting;

import org.openpasture.api.problem.Require;

/**
 * The band of the radio network.
 *
 * @param region "eu868", "us915", "au915", "as923-1" or "in865"
 * @param subBand of eight channels, from 1, in regions that have them; 0 for gateways that hear all, and elsewhere
 */
public record RadioSettings(String region, int subBand) {
    public RadioSettings {
        region = Require.text(region, "the region", 20);
    }
}
