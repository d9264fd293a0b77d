package org.openpasture.client;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.StatePartsRequest.StateRequest;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A state as it is entered: {@code standing=0}, {@code idling=2..15}, {@code "under load=15.."}, {@code off=..2}. */
final class StateRange implements ITypeConverter<StateRequest> {
    private static final String NUMBER = "[-+]?\\d+(?:\\.\\d+)?";
    private static final Pattern ONE = Pattern.compile("(.+?)\\s*=\\s*(" + NUMBER + ")");
    private static final Pattern RANGE =
            Pattern.compile("(.+?)\\s*=\\s*(" + NUMBER + ")?\\s*\\.\\.\\s*(" + NUMBER + ")?");

    @Override
    public StateRequest convert(String entered) {
        Matcher one = ONE.matcher(entered.strip());
        if (one.matches()) {
            return new StateRequest(one.group(1), number(one.group(2)), null, null);
        }
        Matcher range = RANGE.matcher(entered.strip());
        if (range.matches() && (range.group(2) != null || range.group(3) != null)) {
            return new StateRequest(range.group(1), null, number(range.group(2)), number(range.group(3)));
        }
        throw new TypeConversionException(
                "'" + entered + "' is no state. Enter a name with a value or a range, such as standing=0, idling=2..15"
                        + " or \"under load=15..\".");
    }

    private static @Nullable Double number(@Nullable String text) {
        return text == null ? null : Double.valueOf(text);
    }
}
