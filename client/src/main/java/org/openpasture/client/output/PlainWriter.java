package org.openpasture.client.output;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.Writer;
import org.openpasture.core.text.Text;

/**
 * Leaves out of what is printed what would steer a terminal: control characters but tab and line breaks, and marks that
 * turn the direction of text. Names and notes come from others.
 */
public final class PlainWriter extends FilterWriter {
    public PlainWriter(Writer to) {
        super(to);
    }

    private static boolean isShown(int c) {
        return c == '\n' || c == '\t' || c == '\r' || !Text.isControl(c);
    }

    @Override
    public void write(int c) throws IOException {
        if (isShown(c)) {
            super.write(c);
        }
    }

    @Override
    public void write(char[] text, int from, int length) throws IOException {
        write(new String(text, from, length), 0, length);
    }

    @Override
    public void write(String text, int from, int length) throws IOException {
        StringBuilder shown = new StringBuilder(length);
        text.chars().skip(from).limit(length).filter(PlainWriter::isShown).forEach(c -> shown.append((char) c));
        out.write(shown.toString());
    }
}
