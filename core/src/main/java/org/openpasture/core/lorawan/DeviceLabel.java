package org.openpasture.core.lorawan;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What the QR code on a LoRaWAN device says (LoRa Alliance TR005, "LoRaWAN Device Identification QR Codes"):
 * {@code LW:D0:JoinEUI:DevEUI:ProfileID}, then in any number fields that begin with O (owner token), S (serial number),
 * P (proprietary) or C (checksum). It does not say the key.
 *
 * @param vendorId four hex digits, given by the LoRa Alliance
 * @param profileId four hex digits, given by the vendor
 * @param serialNumber null if the label does not say it
 */
public record DeviceLabel(
        Eui64 joinEui,
        Eui64 devEui,
        String vendorId,
        String profileId,
        @Nullable String serialNumber) {
    private static final int LONGEST = 300;

    /**
     * Reads the text of a code.
     *
     * @throws IllegalArgumentException saying what is wrong with it
     */
    public static DeviceLabel parse(String scanned) {
        String text = scanned.strip();
        if (text.length() > LONGEST) {
            throw new IllegalArgumentException("the code is too long for a device's label");
        }
        String[] fields = text.split(":", -1);
        if (fields.length < 5 || !fields[0].equalsIgnoreCase("LW") || !fields[1].equalsIgnoreCase("D0")) {
            throw new IllegalArgumentException("this is not the code of a LoRaWAN device; that begins with LW:D0:");
        }
        String profile = fields[4];
        if (!profile.matches("[0-9A-Fa-f]{8}")) {
            throw new IllegalArgumentException("the profile in the code has eight hex digits, not '" + profile + "'");
        }
        String serial = null;
        for (int i = 5; i < fields.length; i++) {
            String field = fields[i];
            char kind = field.isEmpty() ? ' ' : Character.toUpperCase(field.charAt(0));
            if (kind == 'S') {
                serial = field.substring(1);
            } else if (kind == 'C') {
                check(text, field.substring(1));
            }
        }
        return new DeviceLabel(
                eui(fields[2], "JoinEUI"),
                eui(fields[3], "DevEUI"),
                profile.substring(0, 4).toUpperCase(Locale.ROOT),
                profile.substring(4).toUpperCase(Locale.ROOT),
                serial);
    }

    private static Eui64 eui(String text, String what) {
        try {
            return Eui64.of(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("the " + what + " in the code is wrong: " + e.getMessage(), e);
        }
    }

    /**
     * The checksum covers everything before its own field: CRC-16 with the polynomial 0x8005, reflected, from 0xFFFF.
     */
    private static void check(String text, String sum) {
        int end = text.toUpperCase(Locale.ROOT).lastIndexOf(":C" + sum.toUpperCase(Locale.ROOT));
        String right = String.format("%04X", crc(text.substring(0, end).getBytes(StandardCharsets.US_ASCII)));
        if (!right.equalsIgnoreCase(sum)) {
            throw new IllegalArgumentException("the code's checksum does not fit: it was misread, or mistyped");
        }
    }

    private static int crc(byte[] bytes) {
        int crc = 0xFFFF;
        for (byte one : bytes) {
            crc ^= one & 0xFF;
            for (int bit = 0; bit < 8; bit++) {
                crc = (crc & 1) != 0 ? crc >>> 1 ^ 0xA001 : crc >>> 1;
            }
        }
        return crc;
    }
}
