package org.openpasture.core.inlet;

import org.jspecify.annotations.Nullable;

/**
 * A serial port and how it is set.
 *
 * @param device its path, "/dev/ttyUSB0"
 * @param baud bits in a second
 * @param dataBits 5 to 8; null for 8
 * @param parity none, even or odd; null for none
 * @param stopBits 1 or 2; null for 1
 */
public record SerialLine(
        String device,
        int baud,
        @Nullable Integer dataBits,
        @Nullable String parity,
        @Nullable Integer stopBits) {
    private static final int FASTEST = 4_000_000;

    public SerialLine {
        if (device == null || device.isBlank()) {
            throw new IllegalArgumentException("the serial port is missing, for example /dev/ttyUSB0");
        }
        if (baud < 50 || baud > FASTEST) {
            throw new IllegalArgumentException(
                    "the speed of a serial port is 50 to " + FASTEST + " bits in a second, not " + baud);
        }
        if (dataBits != null && (dataBits < 5 || dataBits > 8) || stopBits != null && stopBits != 1 && stopBits != 2) {
            throw new IllegalArgumentException("a serial port has 5 to 8 data bits and 1 or 2 stop bits");
        }
        if (parity != null && !parity.equals("none") && !parity.equals("even") && !parity.equals("odd")) {
            throw new IllegalArgumentException("parity is none, even or odd, not '" + parity + "'");
        }
    }

    /** With eight data bits, no parity and one stop bit. */
    public static SerialLine of(String device, int baud) {
        return new SerialLine(device, baud, null, null, null);
    }

    /** Where it is, for people. */
    public String address() {
        return device + ", " + baud + " bit/s";
    }
}
