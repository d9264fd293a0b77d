package org.openpasture.core.lorawan;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.HexFormat;

/** A 64-bit extended unique identifier of a device, gateway or join server (IEEE EUI-64), written as 16 hex digits. */
public record Eui64(long bits) {
    /**
     * Reads 16 hex digits; colons, dashes and spaces between them are forgiven, since labels are printed in many ways.
     *
     * @throws IllegalArgumentException saying what is wrong with the text
     */
    @JsonCreator
    public static Eui64 of(String text) {
        String digits = text.replaceAll("[\\s:-]", "");
        if (digits.length() != 16) {
            throw new IllegalArgumentException(
                    "an EUI has 16 hex digits, '" + text.strip() + "' has " + digits.length());
        }
        try {
            return new Eui64(Long.parseUnsignedLong(digits, 16));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(
                    "an EUI is made of the digits 0-9 and a-f only: '" + text.strip() + "'", e);
        }
    }

    @JsonValue
    @Override
    public String toString() {
        return HexFormat.of().toHexDigits(bits);
    }
}
