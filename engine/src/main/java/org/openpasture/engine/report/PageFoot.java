package org.openpasture.engine.report;

import java.util.Optional;
import org.openpdf.text.Document;
import org.openpdf.text.Element;
import org.openpdf.text.pdf.PdfContentByte;
import org.openpdf.text.pdf.PdfPageEventHelper;
import org.openpdf.text.pdf.PdfTemplate;
import org.openpdf.text.pdf.PdfWriter;

/** The foot of each page: what the report is of, and which page of how many it is. */
final class PageFoot extends PdfPageEventHelper {
    private static final float LETTERS = 8;
    private static final float ROOM = 24;

    private final String text;
    private final Ink ink;
    /** Where the number of pages is written once it is known. */
    private Optional<PdfTemplate> total = Optional.empty();

    PageFoot(Report report, Times times, Ink ink) {
        this.text = report.title() + ", " + times.period(report.from(), report.until());
        this.ink = ink;
    }

    @Override
    public void onOpenDocument(PdfWriter writer, Document document) {
        total = Optional.of(writer.getDirectContent().createTemplate(ROOM, LETTERS + 4));
    }

    @Override
    public void onEndPage(PdfWriter writer, Document document) {
        PdfContentByte canvas = writer.getDirectContent();
        float y = document.bottom() - 20;
        write(canvas, Element.ALIGN_LEFT, shortened(document.right() - document.left() - 4 * ROOM), document.left(), y);
        write(canvas, Element.ALIGN_RIGHT, "page " + writer.getPageNumber() + " of ", document.right() - ROOM / 2, y);
        total.ifPresent(template -> canvas.addTemplate(template, document.right() - ROOM / 2, y));
    }

    private String shortened(float room) {
        String shown = text;
        while (shown.length() > 1 && ink.letters().getWidthPoint(shown, LETTERS) > room) {
            shown = shown.substring(0, shown.length() - 2) + "…";
        }
        return shown;
    }

    @Override
    public void onCloseDocument(PdfWriter writer, Document document) {
        total.ifPresent(
                template -> write(template, Element.ALIGN_LEFT, Integer.toString(writer.getPageNumber() - 1), 0, 0));
    }

    private void write(PdfContentByte canvas, int alignment, String line, float x, float y) {
        canvas.beginText();
        canvas.setColorFill(Ink.SOFT);
        canvas.setFontAndSize(ink.letters(), LETTERS);
        canvas.showTextAligned(alignment, line, x, y, 0);
        canvas.endText();
    }
}
