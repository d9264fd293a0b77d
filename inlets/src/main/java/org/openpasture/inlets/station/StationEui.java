package org.openpasture.inlets.station;

import java.util.HexFormat;
import org.openpasture.core.lorawan.Eui64;
import tools.jackson.databind.JsonNode;

/**
 * The ways in which stations write an EUI: with dashes or colons between bytes, as four groups like an IPv6 address, or
 * as a number.
 */
final class StationEui {
    private StationEui() {}

    static Eui64 read(JsonNode node) {
        if (node.isIntegralNumber()) {
            return new Eui64(node.bigIntegerValue().longValue());
        }
        return read(node.asString(""));
    }

    /**
     * Reads an EUI.
     *
     * @throws IllegalArgumentException if it is none
     */
    static Eui64 read(String text) {
        return text.matches("[0-9a-fA-F:]*")
                        && text.contains(":")
                        && text.length() - text.replace(":", "").length() < 7
                ? new Eui64(groups(text))
                : Eui64.of(text);
    }

    /** Up to four groups of 16 bits, {@code ::} standing for as many zeros as are missing. */
    private static long groups(String text) {
        String[] halves = text.split("::", -1);
        if (halves.length > 2) {
            throw new IllegalArgumentException("'" + text + "' is no EUI");
        }
        String[] left = halves[0].isEmpty() ? new String[0] : halves[0].split(":");
        String[] right = halves.length < 2 || halves[1].isEmpty() ? new String[0] : halves[1].split(":");
        if (left.length + right.length > 4 || halves.length == 1 && left.length != 4) {
            throw new IllegalArgumentException("'" + text + "' is no EUI");
        }
        long bits = 0;
        for (int i = 0; i < left.length; i++) {
            bits |= group(left[i]) << (48 - 16 * i);
        }
        for (int i = 0; i < right.length; i++) {
            bits |= group(right[right.length - 1 - i]) << (16 * i);
        }
        return bits;
    }

    private static long group(String text) {
        if (text.isEmpty() || text.length() > 4) {
            throw new IllegalArgumentException("'" + text + "' is no group of an EUI");
        }
        return Integer.parseInt(text, 16);
    }

    /** With dashes between bytes. */
    static String write(Eui64 eui) {
        return HexFormat.ofDelimiter("-")
                .formatHex(java.nio.ByteBuffer.allocate(8).putLong(eui.bits()).array());
    }

    /** As four groups. */
    static String writeGroups(Eui64 eui) {
        return String.format(
                "%x:%x:%x:%x",
                eui.bits() >>> 48, eui.bits() >>> 32 & 0xFFFF, eui.bits() >>> 16 & 0xFFFF, eui.bits() & 0xFFFF);
    }
}
