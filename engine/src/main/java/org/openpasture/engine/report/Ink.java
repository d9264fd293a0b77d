package org.openpasture.engine.report;

import java.awt.Color;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.openpasture.core.limit.Severity;
import org.openpdf.text.Font;
import org.openpdf.text.pdf.BaseFont;

/**
 * Type and colours of a report: ink on paper, and colour only where something is abnormal. One for each report, since
 * the letters that are used are gathered while it is written. For one thread.
 */
final class Ink {
    static final Color BLACK = new Color(0x23261f);
    static final Color SOFT = new Color(0x55584c);
    static final Color LINE = new Color(0xddd6c4);
    static final Color MOSS = new Color(0x4a5a3c);

    private final BaseFont regular = load("SourceSans3-Regular.ttf");
    private final BaseFont semibold = load("SourceSans3-Semibold.ttf");

    private static BaseFont load(String name) {
        try (InputStream in = Ink.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the typeface " + name + " is missing");
            }
            return BaseFont.createFont(
                    name, BaseFont.IDENTITY_H, BaseFont.EMBEDDED, BaseFont.NOT_CACHED, in.readAllBytes(), null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    BaseFont letters() {
        return regular;
    }

    Font plain(float points) {
        return new Font(regular, points, Font.NORMAL, BLACK);
    }

    Font soft(float points) {
        return new Font(regular, points, Font.NORMAL, SOFT);
    }

    Font strong(float points) {
        return new Font(semibold, points, Font.NORMAL, BLACK);
    }

    /** The colour of a severity: ink for what is normal. */
    static Color of(Severity severity) {
        return switch (severity) {
            case NORMAL -> MOSS;
            case ADVISORY -> new Color(0x6b5a00);
            case WARNING -> new Color(0x8f4000);
            case CRITICAL -> new Color(0xa81e22);
        };
    }

    /** The same as a tint behind something: paper for what is normal. */
    static Color tint(Severity severity) {
        return switch (severity) {
            case NORMAL -> Color.WHITE;
            case ADVISORY -> new Color(0xfbf5dc);
            case WARNING -> new Color(0xfcecdc);
            case CRITICAL -> new Color(0xfbe4e2);
        };
    }
}
