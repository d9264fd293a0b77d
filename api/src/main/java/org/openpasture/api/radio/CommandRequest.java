package org.openpasture.api.radio;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Something to be sent to a device: a value for a setting of its model, or bytes.
 *
 * @param setting name of the model's setting; null for bytes
 * @param value for the setting
 * @param port 1 to 223, for bytes
 * @param payload hex digits, for bytes
 * @param confirmed whether the device has to acknowledge it; null for yes
 */
public record CommandRequest(
        @Nullable String setting,
        @Nullable Double value,
        @Nullable Integer port,
        @Nullable String payload,
        @Nullable Boolean confirmed) {
    private static final int MOST_BYTES = 222;

    public CommandRequest {
        if (setting != null) {
            Require.present(value, "the value of the setting");
        } else {
            int on = Require.present(port, "the port, or a setting with its value");
            if (on < 1 || on > 223) {
                throw new IllegalArgumentException("the port is 1 to 223, not " + on);
            }
            String digits = Require.present(payload, "the payload").replaceAll("\\s", "");
            if (!digits.matches("([0-9a-fA-F]{2})*") || digits.length() > 2 * MOST_BYTES) {
                throw new IllegalArgumentException(
                        "the payload is hex digits, two for each byte, for " + MOST_BYTES + " bytes at most");
            }
            payload = digits;
        }
    }

    public boolean isConfirmed() {
        return !Boolean.FALSE.equals(confirmed);
    }
}
