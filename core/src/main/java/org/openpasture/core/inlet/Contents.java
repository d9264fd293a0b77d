package org.openpasture.core.inlet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.layout.JsonPath;

/**
 * How the messages of an inlet are opened: what they are, whose they are, and what in them is for the device model to
 * read.
 *
 * @param form what a message is
 * @param address where the sender's address stands; null where the form tells it itself (SenML)
 * @param separator between the columns of text; null for ";"
 * @param each path to the parts of a JSON message that stand for one device each; the other paths then begin there.
 *     Null for the message as a whole
 * @param payload where the part for the device model stands; null for all of it
 * @param encoding of that part
 * @param time where its time stands, as ISO 8601 or seconds or milliseconds since 1970; null for the time of arrival
 * @param signal where the strength stands with which a relay heard it, in dBm; null for nowhere
 */
public record Contents(
        Form form,
        @Nullable Locator address,
        @Nullable String separator,
        @Nullable JsonPath each,
        @Nullable Locator payload,
        @Nullable Encoding encoding,
        @Nullable Locator time,
        @Nullable Locator signal) {
    public Contents {
        // JSON may leave out what must be there.
        if (form == null) {
            throw new IllegalArgumentException("what a message is is missing (form): text csv json cbor senml bytes");
        }
        if (address == null && form != Form.SENML) {
            throw new IllegalArgumentException(
                    "it has to be told where the sender's address stands, for example column:0 or json:$.mac");
        }
        if (separator != null && (separator.isEmpty() || separator.length() > 4)) {
            throw new IllegalArgumentException("the separator has 1 to 4 characters");
        }
        if (each != null && form != Form.JSON && form != Form.CBOR) {
            throw new IllegalArgumentException("only JSON and CBOR have parts that a path leads to");
        }
    }

    /** What a message is. */
    public enum Form {
        /** One line of text. */
        TEXT,
        /**
         * Several lines, the first of which names the columns; each line is one device's, read as JSON with these
         * names.
         */
        CSV,
        JSON,
        /** What JSON can say, in the bytes of RFC 8949; read as that JSON. */
        CBOR,
        /**
         * Readings as RFC 8428 has them, in JSON or CBOR; the name of each is the device's address, a separator, and
         * the channel.
         */
        SENML,
        BYTES;

        @JsonCreator
        public static Form of(String id) {
            return Ids.of(values(), Form::id, "form", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How bytes are written in a text. */
    public enum Encoding {
        PLAIN,
        HEX,
        BASE64;

        @JsonCreator
        public static Encoding of(String id) {
            return Ids.of(values(), Encoding::id, "encoding", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** Lines of text with the address in a column. */
    public static Contents lines(String separator, int addressColumn) {
        return new Contents(Form.TEXT, new Locator.Column(addressColumn), separator, null, null, null, null, null);
    }

    /** JSON with the address at a path. */
    public static Contents json(String addressPath) {
        return new Contents(
                Form.JSON, new Locator.InJson(JsonPath.of(addressPath)), null, null, null, null, null, null);
    }

    /** What stands between the columns of text. */
    public String columnSeparator() {
        return separator == null ? ";" : separator;
    }
}
