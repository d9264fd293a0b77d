package org.openpasture.core.lorawan;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.HexFormat;

/** The 32-bit address of a device in its network (LoRaWAN L2 1.0.4, 6.1.1), written as 8 hex digits. */
public record DevAddr(int bits) {
    /** Reads 8 hex digits. */
    @JsonCreator
    public static DevAddr of(String text) {
        String digits = text.strip();
        if (digits.length() != 8) {
            throw new IllegalArgumentException(
                    "a device address has 8 hex digits, '" + digits + "' has " + digits.length());
        }
        try {
            return new DevAddr(Integer.parseUnsignedInt(digits, 16));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(
                    "a device address is made of the digits 0-9 and a-f only: '" + digits + "'", e);
        }
    }

    @JsonValue
    @Override
    public String toString() {
        return HexFormat.of().toHexDigits(bits);
    }
}
