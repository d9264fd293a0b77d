package org.openpasture.engine.report;

import java.awt.Color;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.series.SeriesSlice;
import org.openpdf.text.Element;
import org.openpdf.text.pdf.PdfContentByte;
import org.openpdf.text.pdf.PdfTemplate;

/**
 * The course of a point over time as lines: its values, broken where nothing came or a value was bad, over the zones of
 * its limits. Lengths are points of 1/72 inch. For one thread.
 */
final class CourseDrawing {
    private static final float LEFT = 42;
    private static final float RIGHT = 6;
    private static final float TOP = 6;
    private static final float BOTTOM = 16;
    private static final float LETTERS = 7;
    private static final float DASH = 3;
    /** A limit farther away from the values than so many times their span would flatten them. */
    private static final double SIGHT = 1.5;

    private final PdfTemplate into;
    private final Ink ink;
    private final ReportedPoint point;
    private final long from;
    private final long until;
    private final double lowest;
    private final double highest;

    private CourseDrawing(PdfTemplate into, Ink ink, Report report, ReportedPoint point) {
        this.into = into;
        this.ink = ink;
        this.point = point;
        this.from = report.from().toEpochMilli();
        this.until = report.until().toEpochMilli();
        double low = point.summary().min();
        double high = point.summary().max();
        double span = high > low ? high - low : Math.max(Math.abs(high) * 0.1, 1);
        // What stays the same lies in the middle of a scale, and not on its edge.
        double around = high > low ? 0 : span / 2;
        double nearLow = low >= 0 ? Math.max(0, low - around) : low - around;
        double nearHigh = high + around;
        for (Zone zone : point.limits().map(LimitSet::zones).orElse(List.of())) {
            Double bound = zone.from();
            if (bound != null && bound > low - SIGHT * span && bound < high + SIGHT * span) {
                nearLow = Math.min(nearLow, bound);
                nearHigh = Math.max(nearHigh, bound);
            }
        }
        double room = Math.max((nearHigh - nearLow) * 0.06, span * 0.06);
        this.lowest = nearLow - (nearLow >= 0 && nearLow < room ? nearLow : room);
        this.highest = nearHigh + room;
    }

    /** Draws it into a template of any size. */
    static void draw(PdfTemplate into, Ink ink, Report report, ReportedPoint point) {
        CourseDrawing drawing = new CourseDrawing(into, ink, report, point);
        into.setLineWidth(0.4f);
        drawing.zones();
        drawing.axes(report.zone());
        drawing.bounds();
        drawing.line();
    }

    private float x(double time) {
        return (float) (LEFT + (time - from) / (until - from) * (into.getWidth() - LEFT - RIGHT));
    }

    private float y(double value) {
        double clamped = Math.clamp(value, lowest, highest);
        return (float) (BOTTOM + (clamped - lowest) / (highest - lowest) * (into.getHeight() - BOTTOM - TOP));
    }

    private void zones() {
        for (Zone zone : point.limits().map(LimitSet::zones).orElse(List.of())) {
            float low = y(zone.from() == null ? lowest : zone.from());
            float high = y(zone.to() == null ? highest : zone.to());
            if (zone.severity() != Severity.NORMAL && high > low) {
                into.setColorFill(Ink.tint(zone.severity()));
                into.rectangle(LEFT, low, into.getWidth() - LEFT - RIGHT, high - low);
                into.fill();
            }
        }
    }

    private void axes(ZoneId zone) {
        into.setColorStroke(Ink.LINE);
        for (Axis.Mark mark : Axis.values(lowest, highest)) {
            stroke(LEFT, y(mark.at()), into.getWidth() - RIGHT, y(mark.at()));
            write(Element.ALIGN_RIGHT, mark.text(), LEFT - 4, y(mark.at()) - LETTERS / 3);
        }
        for (Axis.Mark mark : Axis.times(Instant.ofEpochMilli(from), Instant.ofEpochMilli(until), zone)) {
            stroke(x(mark.at()), BOTTOM, x(mark.at()), BOTTOM - 3);
            if (x(mark.at()) < into.getWidth() - RIGHT - LETTERS * 3) {
                write(Element.ALIGN_LEFT, mark.text(), x(mark.at()) + 1, BOTTOM - LETTERS - 3);
            }
        }
    }

    private void bounds() {
        List<Zone> zones = point.limits().map(LimitSet::zones).orElse(List.of());
        into.setLineDash(DASH, DASH, 0);
        for (int i = 1; i < zones.size(); i++) {
            Double bound = zones.get(i).from();
            if (bound != null && bound > lowest && bound < highest) {
                Severity severity =
                        zones.get(i).severity().worse(zones.get(i - 1).severity());
                into.setColorStroke(Ink.of(severity));
                stroke(LEFT, y(bound), into.getWidth() - RIGHT, y(bound));
            }
        }
        into.setLineDash(0);
    }

    private void line() {
        SeriesSlice slice = point.drawn().slice();
        into.setLineWidth(0.8f);
        into.setColorStroke(Ink.BLACK);
        into.setLineJoin(PdfContentByte.LINE_JOIN_ROUND);
        boolean drawing = false;
        int gap = 0;
        for (int i = 0; i < slice.size(); i++) {
            long time = slice.times()[i];
            while (gap < point.drawn().gaps().size()
                    && point.drawn().gaps().get(gap).until().toEpochMilli() <= time) {
                drawing = false;
                gap++;
            }
            if (slice.qualities()[i] >= Quality.BAD.code()) {
                drawing = false;
            } else if (drawing) {
                into.lineTo(x(time), y(slice.values()[i]));
            } else {
                into.moveTo(x(time), y(slice.values()[i]));
                // A value that stands alone is seen as a dot.
                into.lineTo(x(time) + 0.4f, y(slice.values()[i]));
                drawing = true;
            }
        }
        into.stroke();
    }

    private void stroke(float fromX, float fromY, float toX, float toY) {
        into.moveTo(fromX, fromY);
        into.lineTo(toX, toY);
        into.stroke();
    }

    private void write(int alignment, String text, float x, float y) {
        into.beginText();
        into.setColorFill(Ink.SOFT);
        into.setFontAndSize(ink.letters(), LETTERS);
        into.showTextAligned(alignment, text, x, y, 0);
        into.endText();
        into.setColorFill(Color.BLACK);
    }
}
