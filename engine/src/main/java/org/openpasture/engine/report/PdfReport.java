package org.openpasture.engine.report;

import java.io.OutputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.store.alert.AlertView;
import org.openpdf.text.Chunk;
import org.openpdf.text.Document;
import org.openpdf.text.DocumentException;
import org.openpdf.text.Element;
import org.openpdf.text.Font;
import org.openpdf.text.Image;
import org.openpdf.text.PageSize;
import org.openpdf.text.Paragraph;
import org.openpdf.text.Phrase;
import org.openpdf.text.Rectangle;
import org.openpdf.text.pdf.PdfPCell;
import org.openpdf.text.pdf.PdfPTable;
import org.openpdf.text.pdf.PdfTemplate;
import org.openpdf.text.pdf.PdfWriter;

/**
 * A report as PDF (ISO 32000-1) on A4: in short, the points in a table, their courses, alerts, limits with their
 * sources, lines to sign on. For one thread and one report.
 */
public final class PdfReport {
    /** More courses than this nobody looks through; the table has all points. */
    static final int MOST_COURSES = 120;

    private static final float MARGIN = 48;
    private static final float COURSE_HEIGHT = 104;
    private static final float TEXT = 9;
    private static final float SMALL = 8;
    private static final float HEADING = 13;

    private final Report report;
    private final Times times;
    private final Ink ink = new Ink();
    private final Document document;
    private final PdfWriter writer;

    private PdfReport(Report report, OutputStream out) {
        this.report = report;
        this.times = new Times(report.zone());
        this.document = new Document(PageSize.A4, MARGIN, MARGIN, MARGIN, MARGIN + 12);
        this.writer = PdfWriter.getInstance(document, out);
    }

    /**
     * Writes a report.
     *
     * @throws DocumentException if {@code out} takes no more
     */
    public static void write(Report report, OutputStream out) {
        new PdfReport(report, out).write();
    }

    private void write() {
        document.addTitle(report.title() + ", " + times.period(report.from(), report.until()));
        document.addAuthor(report.madeBy());
        document.addCreator("Open Pasture");
        writer.setPageEvent(new PageFoot(report, times, ink));
        document.open();
        head();
        inShort();
        points();
        courses();
        alerts();
        logbook();
        limits();
        signatures();
        document.close();
    }

    private void head() {
        document.add(new Paragraph("Report", ink.soft(TEXT)));
        Paragraph title = new Paragraph(24, report.title(), ink.strong(20));
        title.setSpacingBefore(2);
        document.add(title);
        if (report.about().size() > 1) {
            document.add(new Paragraph(String.join(" > ", report.about()), ink.soft(TEXT)));
        }
        Paragraph period = new Paragraph(times.period(report.from(), report.until()), ink.plain(11));
        period.setSpacingBefore(4);
        document.add(period);
        document.add(new Paragraph(
                "Made on " + times.minute(report.madeAt()) + " by " + report.madeBy()
                        + ", from the record of Open Pasture",
                ink.soft(SMALL)));
    }

    /** What somebody has to know who reads no further. */
    private void inShort() {
        heading("In short");
        for (String sentence : InShort.of(report)) {
            Paragraph line = new Paragraph(14, sentence, ink.plain(10));
            document.add(line);
        }
    }

    private void points() {
        heading("Points");
        if (report.points().isEmpty()) {
            document.add(new Paragraph("There are no points here that you may see.", ink.plain(TEXT)));
            return;
        }
        PdfPTable table = table(0.5f, 4, 2, 2, 2, 2, 2.2f);
        header(table, "", "Point", "Lowest", "Mean", "Highest", "Last", "Not normal");
        for (ReportedPoint point : report.points()) {
            table.addCell(mark(point.worst(), point.limits().isPresent() && point.hasReadings()));
            PdfPCell name = cell(new Phrase(name(point), ink.plain(TEXT)));
            if (!point.place().isEmpty()) {
                name.addElement(new Paragraph(10, name(point), ink.plain(TEXT)));
                name.addElement(new Paragraph(9, point.place(), ink.soft(7)));
            }
            table.addCell(name);
            if (point.hasReadings()) {
                table.addCell(right(point.read(point.summary().min()), ink.plain(TEXT)));
                table.addCell(right(mean(point), ink.plain(TEXT)));
                table.addCell(right(point.read(point.summary().max()), ink.plain(TEXT)));
                table.addCell(right(point.read(point.summary().last()), ink.plain(TEXT)));
                table.addCell(right(abnormal(point), ink.plain(TEXT)));
            } else {
                PdfPCell none = cell(new Phrase("no readings in this period", ink.soft(TEXT)));
                none.setColspan(5);
                table.addCell(none);
            }
        }
        document.add(table);
    }

    /** Between words there is no mean to be named, but a share of the time. */
    private static String mean(ReportedPoint point) {
        return point.words().isEmpty() ? point.written(point.summary().mean()) : "";
    }

    /** How long a point was outside of normal, and which part that is of the time of which it is known. */
    private static String abnormal(ReportedPoint point) {
        if (point.limits().isEmpty()) {
            return "no limits";
        }
        Duration judged = point.judged();
        if (judged.isZero()) {
            return "not known";
        }
        Duration abnormal = point.abnormal();
        return abnormal.isZero() ? "never" : Times.lasting(abnormal) + " (" + percent(abnormal, judged) + ")";
    }

    private static String percent(Duration part, Duration whole) {
        double share = 100.0 * part.toMillis() / whole.toMillis();
        return share < 1 ? "under 1 %" : Math.round(share) + " %";
    }

    private void courses() {
        List<ReportedPoint> shown =
                report.points().stream().filter(ReportedPoint::hasReadings).toList();
        if (shown.isEmpty()) {
            return;
        }
        heading("Courses");
        if (shown.size() > MOST_COURSES) {
            document.add(new Paragraph(
                    "The first " + MOST_COURSES + " of " + shown.size()
                            + " points. Make a report of a part of it for the others.",
                    ink.soft(TEXT)));
        }
        shown.stream().limit(MOST_COURSES).forEach(this::course);
    }

    private void course(ReportedPoint point) {
        PdfPTable block = new PdfPTable(1);
        block.setWidthPercentage(100);
        block.setKeepTogether(true);
        block.setSpacingBefore(6);
        Phrase title = new Phrase();
        title.add(new Chunk(name(point), ink.strong(10)));
        title.add(new Chunk(
                (point.place().isEmpty() ? "" : "  " + point.place())
                        + (point.point().unit().isEmpty()
                                ? ""
                                : ", in " + point.point().unit()),
                ink.soft(SMALL)));
        block.addCell(bare(title));
        PdfTemplate drawing = writer.getDirectContent().createTemplate(width(), COURSE_HEIGHT);
        CourseDrawing.draw(drawing, ink, report, point);
        PdfPCell picture = new PdfPCell(Image.getInstance(drawing), true);
        picture.setBorder(Rectangle.NO_BORDER);
        picture.setPadding(0);
        block.addCell(picture);
        block.addCell(bare(new Phrase(facts(point), ink.soft(SMALL))));
        block.setSplitRows(false);
        document.add(block);
    }

    private String facts(ReportedPoint point) {
        List<String> facts = new ArrayList<>();
        facts.add("lowest on " + times.minute(point.summary().minAt()) + ", highest on "
                + times.minute(point.summary().maxAt()));
        point.limits()
                .filter(set -> !point.judged().isZero())
                .ifPresent(set -> facts.add(set.zones().stream()
                        .map(Zone::label)
                        .distinct()
                        .filter(label -> !point.in(label).isZero())
                        .map(label -> label + " " + percent(point.in(label), point.judged()))
                        .collect(Collectors.joining(", ", "time in zones: ", ""))));
        facts.add(point.summary().count() + " readings");
        if (point.summary().bad() > 0) {
            facts.add(point.summary().bad() + " bad ones left out");
        }
        if (!point.drawn().gaps().isEmpty()) {
            facts.add(
                    point.drawn().gaps().size() == 1
                            ? "1 gap"
                            : point.drawn().gaps().size() + " gaps");
        }
        return String.join("; ", facts);
    }

    private void alerts() {
        heading("Alerts");
        if (report.alerts().isEmpty()) {
            document.add(new Paragraph("No alert was raised in this period.", ink.plain(TEXT)));
            return;
        }
        PdfPTable table = table(0.5f, 2.2f, 5, 2.6f, 4);
        header(table, "", "Raised", "What", "Back to normal", "Who, and what was done");
        for (AlertView alert : report.alerts()) {
            table.addCell(mark(alert.alert().severity(), true));
            table.addCell(cell(new Phrase(times.minute(alert.alert().raisedAt()), ink.plain(SMALL))));
            table.addCell(cell(new Phrase(
                    alert.alert().severity().id() + ": " + alert.alert().summary(), ink.plain(SMALL))));
            table.addCell(cell(new Phrase(
                    alert.returnedAt() == null
                            ? "not yet"
                            : times.minute(alert.returnedAt()) + ", after "
                                    + Times.lasting(
                                            Duration.between(alert.alert().startedAt(), alert.returnedAt())),
                    ink.plain(SMALL))));
            table.addCell(cell(new Phrase(done(alert), ink.plain(SMALL))));
        }
        document.add(table);
        if (report.moreAlerts() > 0) {
            document.add(new Paragraph(
                    "and " + report.moreAlerts() + " older ones, which are in the list of alerts and its export",
                    ink.soft(TEXT)));
        }
    }

    private String done(AlertView alert) {
        List<String> lines = new ArrayList<>();
        if (alert.acknowledgedAt() != null) {
            lines.add("Acknowledged by " + alert.acknowledgedBy() + " on " + times.minute(alert.acknowledgedAt()));
        }
        alert.notes().forEach(note -> lines.add(note.person() + ": " + note.text()));
        return lines.isEmpty() ? "not acknowledged" : String.join("\n", lines);
    }

    private void logbook() {
        if (report.logbook().isEmpty()) {
            return;
        }
        heading("Logbook");
        PdfPTable table = table(2.2f, 2, 6);
        header(table, "When", "Who", "What");
        for (LogEntry entry : report.logbook()) {
            table.addCell(cell(new Phrase(times.minute(entry.at()), ink.plain(SMALL))));
            table.addCell(cell(new Phrase(entry.personName(), ink.plain(SMALL))));
            table.addCell(cell(new Phrase(about(entry) + entry.text(), ink.plain(SMALL))));
        }
        document.add(table);
    }

    private String about(LogEntry entry) {
        return report.points().stream()
                .filter(point -> point.point().id().equals(entry.pointId()))
                .map(point -> point.point().name() + ": ")
                .findFirst()
                .orElse("");
    }

    private void limits() {
        if (report.limits().isEmpty()) {
            return;
        }
        heading("Limits and their sources");
        for (LimitSet set : report.limits()) {
            PdfPTable block = new PdfPTable(1);
            block.setWidthPercentage(100);
            block.setKeepTogether(true);
            block.setSpacingBefore(4);
            block.addCell(bare(new Phrase(set.title(), ink.strong(TEXT))));
            block.addCell(bare(new Phrase(source(set), ink.soft(SMALL))));
            block.addCell(bare(new Phrase(
                    set.zones().stream().map(zone -> zone(set, zone)).collect(Collectors.joining("; ")),
                    ink.plain(SMALL))));
            document.add(block);
        }
        document.add(new Paragraph(14, "The published documents are authoritative, not this list.", ink.soft(SMALL)));
    }

    private static String source(LimitSet set) {
        Source source = set.source();
        String document = String.join(
                " ",
                List.of(
                        source.document(),
                        source.edition().isEmpty() ? "" : "(" + source.edition() + ")",
                        source.clause()));
        String from = document.isBlank() ? "own limits" : document.strip().replaceAll(" +", " ");
        return set.appliesTo().isEmpty() ? from : from + ". " + set.appliesTo();
    }

    private static String zone(LimitSet set, Zone zone) {
        String unit = set.unit().isEmpty() ? "" : " " + set.unit();
        String range = zone.from() == null && zone.to() == null
                ? "everything"
                : zone.from() == null
                        ? "up to " + Decimals.text(orZero(zone.to())) + unit
                        : zone.to() == null
                                ? "above " + Decimals.text(zone.from()) + unit
                                : Decimals.text(zone.from()) + " to " + Decimals.text(zone.to()) + unit;
        return zone.label() + " (" + zone.severity().id() + "): " + range;
    }

    private static double orZero(@Nullable Double value) {
        return value == null ? 0 : value;
    }

    private void signatures() {
        PdfPTable lines = new PdfPTable(3);
        lines.setWidthPercentage(100);
        lines.setSpacingBefore(48);
        lines.setKeepTogether(true);
        for (String what : List.of("Checked by", "Date", "Signature")) {
            PdfPCell cell = new PdfPCell(new Phrase(what, ink.soft(SMALL)));
            cell.setBorder(Rectangle.TOP);
            cell.setBorderColor(Ink.SOFT);
            cell.setBorderWidth(0.5f);
            lines.addCell(cell);
        }
        document.add(lines);
    }

    // How it looks.

    private void heading(String text) {
        Paragraph heading = new Paragraph(HEADING + 3, text, ink.strong(HEADING));
        heading.setSpacingBefore(16);
        heading.setSpacingAfter(4);
        heading.setKeepTogether(true);
        document.add(heading);
    }

    private float width() {
        return document.right() - document.left();
    }

    private static PdfPTable table(float... widths) {
        PdfPTable table = new PdfPTable(widths);
        table.setWidthPercentage(100);
        table.setHeaderRows(1);
        table.setSplitLate(true);
        return table;
    }

    private void header(PdfPTable table, String... names) {
        for (String name : names) {
            PdfPCell cell = cell(new Phrase(name, ink.soft(SMALL)));
            cell.setBorderColor(Ink.SOFT);
            boolean ofNumbers =
                    List.of("Lowest", "Mean", "Highest", "Last", "Not normal").contains(name);
            cell.setHorizontalAlignment(ofNumbers ? Element.ALIGN_RIGHT : Element.ALIGN_LEFT);
            table.addCell(cell);
        }
    }

    private static PdfPCell cell(Phrase text) {
        PdfPCell cell = new PdfPCell(text);
        cell.setBorder(Rectangle.BOTTOM);
        cell.setBorderColor(Ink.LINE);
        cell.setBorderWidth(0.5f);
        cell.setPadding(3);
        cell.setPaddingBottom(5);
        return cell;
    }

    private static PdfPCell bare(Phrase text) {
        PdfPCell cell = new PdfPCell(text);
        cell.setBorder(Rectangle.NO_BORDER);
        cell.setPadding(0);
        cell.setPaddingBottom(2);
        return cell;
    }

    private static PdfPCell right(String text, Font font) {
        PdfPCell cell = cell(new Phrase(text, font));
        cell.setNoWrap(true);
        cell.setHorizontalAlignment(Element.ALIGN_RIGHT);
        return cell;
    }

    private static String name(ReportedPoint point) {
        return point.point().name();
    }

    private PdfPCell mark(Severity severity, boolean judged) {
        PdfPCell cell = cell(new Phrase(""));
        if (judged) {
            cell.setCellEvent(new FenceMark(severity));
        }
        return cell;
    }
}
