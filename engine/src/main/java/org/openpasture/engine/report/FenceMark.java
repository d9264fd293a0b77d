package org.openpasture.engine.report;

import org.openpasture.core.limit.Severity;
import org.openpdf.text.Rectangle;
import org.openpdf.text.pdf.PdfContentByte;
import org.openpdf.text.pdf.PdfPCell;
import org.openpdf.text.pdf.PdfPCellEvent;
import org.openpdf.text.pdf.PdfPTable;

/** Our mark of severity, drawn at the top of a cell: two posts, with a rail for each step from normal. */
record FenceMark(Severity severity) implements PdfPCellEvent {
    private static final float WIDTH = 9;
    private static final float HEIGHT = 9;

    @Override
    public void cellLayout(PdfPCell cell, Rectangle position, PdfContentByte[] canvases) {
        PdfContentByte canvas = canvases[PdfPTable.LINECANVAS];
        float left = position.getLeft() + 4;
        float bottom = position.getTop() - HEIGHT - 4;
        canvas.saveState();
        canvas.setColorStroke(Ink.of(severity));
        canvas.setLineWidth(1.2f);
        for (float post : new float[] {left, left + WIDTH}) {
            canvas.moveTo(post, bottom);
            canvas.lineTo(post, bottom + HEIGHT);
        }
        for (int rail = 1; rail <= severity.ordinal(); rail++) {
            float y = bottom + HEIGHT * rail / (severity.ordinal() + 1);
            canvas.moveTo(left, y);
            canvas.lineTo(left + WIDTH, y);
        }
        canvas.stroke();
        canvas.restoreState();
    }
}
