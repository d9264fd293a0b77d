package org.openpasture.api.setting;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.net.URI;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.text.WebAddress;

/**
 * The gateway that sends text messages: an address to which each message is posted.
 *
 * @param url http or https
 * @param format how the fields are written; null for JSON
 * @param toField name of the field with the telephone number; null for "to"
 * @param textField name of the field with the text; null for "text"
 * @param fields further fields and their values, such as a sender's name; null for none
 * @param header name of the header that holds the secret; null for "Authorization"
 * @param secret value of that header, to set it; never given back
 */
public record TextSettings(
        URI url,
        @Nullable Format format,
        @Nullable String toField,
        @Nullable String textField,
        @Nullable Map<String, String> fields,
        @Nullable String header,
        @Nullable String secret) {
    private static final int MOST_FIELDS = 20;

    public TextSettings {
        url = WebAddress.checked(url, "the address of the gateway");
        format = format == null ? Format.JSON : format;
        toField = toField == null ? "to" : Require.text(toField, "the name of the field with the number", 60);
        textField = textField == null ? "text" : Require.text(textField, "the name of the field with the text", 60);
        fields = fields == null ? Map.of() : Map.copyOf(fields);
        header = header == null ? "Authorization" : Require.text(header, "the name of the header", 60);
        if (!header.matches("[A-Za-z0-9-]+")) {
            throw new IllegalArgumentException("the name of a header has letters, digits and dashes only");
        }
        secret = secret == null || secret.isEmpty() ? null : Require.text(secret, "the secret", 1_000);
        if (fields.size() > MOST_FIELDS
                || fields.entrySet().stream()
                        .anyMatch(one -> one.getKey().isBlank()
                                || one.getKey().length() > 60
                                || one.getValue().length() > 500)) {
            throw new IllegalArgumentException("there are " + MOST_FIELDS
                    + " further fields at most, with names of 60 and values of 500 characters");
        }
        if (toField.equals(textField) || fields.containsKey(toField) || fields.containsKey(textField)) {
            throw new IllegalArgumentException("each field has a name of its own");
        }
    }

    /** The same as it may be shown. */
    public TextSettings withoutSecret() {
        return new TextSettings(url, format, toField, textField, fields, header, null);
    }

    /** How the fields are written. */
    @Override
    public Format format() {
        return format == null ? Format.JSON : format;
    }

    /** Name of the field with the telephone number. */
    @Override
    public String toField() {
        return toField == null ? "to" : toField;
    }

    /** Name of the field with the text. */
    @Override
    public String textField() {
        return textField == null ? "text" : textField;
    }

    /** Further fields and their values. */
    @Override
    public Map<String, String> fields() {
        return fields == null ? Map.of() : fields;
    }

    /** Name of the header that holds the secret. */
    @Override
    public String header() {
        return header == null ? "Authorization" : header;
    }

    /** How fields are written in the body of a post. */
    public enum Format {
        JSON("application/json"),
        FORM("application/x-www-form-urlencoded");

        private final String mediaType;

        Format(String mediaType) {
            this.mediaType = mediaType;
        }

        @JsonCreator
        public static Format of(String id) {
            return Ids.of(values(), Format::id, "format", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }

        public String mediaType() {
            return mediaType;
        }
    }
}
