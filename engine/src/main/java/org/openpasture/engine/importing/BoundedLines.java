package org.openpasture.engine.importing;

import java.io.FilterReader;
import java.io.IOException;
import java.io.Reader;

/**
 * Text that is read line by line, in which no line, with what stands in quotes over several, may be longer than a
 * quarter of a million characters: a quote that nobody closes would make one line of the whole file. For one thread.
 */
public final class BoundedLines extends FilterReader {
    private static final int LONGEST = 1 << 18;
    private long sinceLine;

    public BoundedLines(Reader text) {
        super(text);
    }

    /** A line has been read to its end. */
    public void next() {
        sinceLine = 0;
    }

    private void count(int characters) throws IOException {
        sinceLine += Math.max(0, characters);
        if (sinceLine > LONGEST) {
            throw new IOException(
                    "a line is longer than " + LONGEST + " characters; perhaps a quote is opened and never closed");
        }
    }

    @Override
    public int read() throws IOException {
        int one = super.read();
        count(one < 0 ? 0 : 1);
        return one;
    }

    @Override
    public int read(char[] into, int from, int length) throws IOException {
        int read = super.read(into, from, length);
        count(read);
        return read;
    }
}
