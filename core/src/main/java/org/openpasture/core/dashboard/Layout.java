package org.openpasture.core.dashboard;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.rule.PointSelection;

/** Puts panels beside and below one another, in the order in which they come, without gaps in a row. */
final class Layout {
    private final Supplier<String> ids;
    private final List<Panel> panels = new ArrayList<>();
    private int x;
    private int y;
    private int rowHeight;

    /** @param ids gives each panel its id */
    Layout(Supplier<String> ids) {
        this.ids = ids;
    }

    /** Adds a panel for points. */
    void add(String title, List<String> points, @Nullable String range, int w, int h, Function<Frame, Panel> make) {
        add(title, points, null, range, w, h, make);
    }

    /** Adds a panel for a selection. */
    void add(
            String title, PointSelection selection, @Nullable String range, int w, int h, Function<Frame, Panel> make) {
        add(title, List.of(), selection, range, w, h, make);
    }

    private void add(
            String title,
            List<String> points,
            @Nullable PointSelection selection,
            @Nullable String range,
            int w,
            int h,
            Function<Frame, Panel> make) {
        if (x + w > Frame.COLUMNS) {
            newRow();
        }
        panels.add(make.apply(new Frame(ids.get(), title, points, selection, range, null, x, y, w, h)));
        x += w;
        rowHeight = Math.max(rowHeight, h);
    }

    /** What comes next begins on the left. */
    void newRow() {
        y += rowHeight;
        x = 0;
        rowHeight = 0;
    }

    List<Panel> panels() {
        return List.copyOf(panels);
    }
}
