package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/**
 * Writes lines of times and numbers. A library's formatters take a microsecond for each; here the part of a time that
 * changes once an hour is kept, which is what lets a year leave in a blink.
 */
public final class AsciiWriter {
    private static final int BUFFER = 1 << 16;
    private static final int LONGEST = 64;
    private final OutputStream out;
    private final byte[] buffer = new byte[BUFFER];
    private int size;
    private long hour = Long.MIN_VALUE;
    private byte[] beforeMinutes = new byte[0];
    private byte[] offset = new byte[0];
    private long minutesOff;

    public AsciiWriter(OutputStream out) {
        this.out = out;
    }

    public AsciiWriter put(String text) throws IOException {
        return put(text.getBytes(StandardCharsets.UTF_8));
    }

    public AsciiWriter put(byte[] bytes) throws IOException {
        if (bytes.length > BUFFER - LONGEST) {
            flush();
            out.write(bytes);
            return this;
        }
        room(bytes.length);
        System.arraycopy(bytes, 0, buffer, size, bytes.length);
        size += bytes.length;
        return this;
    }

    public AsciiWriter put(char ascii) throws IOException {
        room(1);
        buffer[size++] = (byte) ascii;
        return this;
    }

    /** A number as Java writes it, without a useless ".0". */
    public AsciiWriter number(double value) throws IOException {
        long whole = (long) value;
        if (whole == value && Math.abs(whole) < 1_000_000_000_000L) {
            return put(Long.toString(whole));
        }
        return put(Double.toString(value));
    }

    /** A time as ISO 8601 with the zone's offset, to the second, or to the millisecond where it has any. */
    public AsciiWriter time(long epochMillis, ZoneId zone) throws IOException {
        long ofHour = Math.floorDiv(epochMillis, 3_600_000L);
        if (ofHour != hour) {
            ZoneOffset at = zone.getRules().getOffset(Instant.ofEpochMilli(ofHour * 3_600_000L));
            boolean steady = zone.getRules()
                            .getOffset(Instant.ofEpochMilli(ofHour * 3_600_000L + 3_599_999))
                            .equals(at)
                    && at.getTotalSeconds() % 3_600 == 0;
            if (!steady) {
                hour = Long.MIN_VALUE;
                return put(java.time.format.DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(
                        Instant.ofEpochMilli(epochMillis).atZone(zone)));
            }
            hour = ofHour;
            minutesOff = ofHour * 3_600_000L;
            String text = Instant.ofEpochMilli(ofHour * 3_600_000L)
                    .atOffset(at)
                    .toLocalDateTime()
                    .toString();
            beforeMinutes = text.substring(0, text.indexOf(':') + 1).getBytes(StandardCharsets.US_ASCII);
            offset = at.getId().getBytes(StandardCharsets.US_ASCII);
        }
        int millis = (int) (epochMillis - minutesOff);
        put(beforeMinutes);
        room(16);
        two(millis / 60_000);
        buffer[size++] = ':';
        two(millis / 1_000 % 60);
        int rest = millis % 1_000;
        if (rest != 0) {
            buffer[size++] = '.';
            buffer[size++] = (byte) ('0' + rest / 100);
            two(rest % 100);
        }
        return put(offset);
    }

    private void two(int number) {
        buffer[size++] = (byte) ('0' + number / 10);
        buffer[size++] = (byte) ('0' + number % 10);
    }

    private void room(int bytes) throws IOException {
        if (size + bytes > BUFFER) {
            flush();
        }
    }

    public void flush() throws IOException {
        out.write(buffer, 0, size);
        size = 0;
    }
}
