package org.openpasture.core.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.quantity.Quantity;

/**
 * One value that all devices of a model report.
 *
 * @param name as in the layout
 * @param title for people; also the name that a new point gets
 * @param direction for a vibration channel, the axis it measures; null otherwise
 * @param calibration holds for all devices of the model unless an assignment says otherwise; null for none
 */
public record Channel(String name, String title, Quantity quantity, String unit, @Nullable String direction,
    @Nullable Calibration calibration) {}
