package org.openpasture.inlets.modbus;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where a Modbus TCP device is.
 *
 * @param unit 0 to 255; 255 is what devices without units behind them expect (messaging guide 1.0b, 4.4.2), 1 what most
 *     of them take
 */
public record ModbusAddress(String host, int port, int unit) {
    private static final Pattern FORM =
            Pattern.compile("(\\[[0-9a-fA-F:.]+]|[^:/\\s]+)(?::(\\d{1,5}))?(?:/(\\d{1,3}))?");
    private static final int USUAL_PORT = 502;

    /**
     * Reads "host", "host:port" or "host:port/unit".
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    public static ModbusAddress of(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException("'" + text
                    + "' is no address of a Modbus TCP device, such as 192.0.2.7, 192.0.2.7:502 or 192.0.2.7:502/1");
        }
        int port = matcher.group(2) == null ? USUAL_PORT : Integer.parseInt(matcher.group(2));
        if (port < 1 || port > 65_535) {
            throw new IllegalArgumentException("a port is 1 to 65535, not " + port);
        }
        return new ModbusAddress(
                matcher.group(1).replaceAll("[\\[\\]]", ""),
                port,
                unit(matcher.group(3) == null ? "1" : matcher.group(3)));
    }

    /**
     * Reads a unit number.
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    public static int unit(String text) {
        if (!text.strip().matches("\\d{1,3}") || Integer.parseInt(text.strip()) > 255) {
            throw new IllegalArgumentException("a Modbus unit is a number from 0 to 255, not '" + text + "'");
        }
        return Integer.parseInt(text.strip());
    }
}
