package org.openpasture.core.dashboard;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One panel of a dashboard.
 *
 * @param kind value, line, directions, alerts, asked (the devices that are asked and feed its points) or text
 * @param pointIds what it shows
 * @param range how far back it looks, ISO 8601 duration; null to follow the page
 * @param text for text panels
 * @param x column, 0 to 11
 * @param w columns, 1 to 12
 * @param h rows of 80 px
 */
public record Panel(
        String id,
        String kind,
        String title,
        List<String> pointIds,
        @Nullable String assetId,
        @Nullable String range,
        @Nullable String text,
        int x,
        int y,
        int w,
        int h) {
    public Panel {
        title = title == null ? "" : title;
        pointIds = List.copyOf(pointIds);
    }
}
