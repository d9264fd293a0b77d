package org.openpasture.core.decoding;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.stream.Collectors;
import org.openpasture.core.layout.ChannelValue;

/** Channel values as frames keep them: "channel=value", separated by blanks. */
public final class ChannelText {
    private ChannelText() {}

    public static String of(List<ChannelValue> values) {
        return values.stream()
                .map(value -> value.channel() + "=" + number(value.value()))
                .collect(Collectors.joining(" "));
    }

    private static String number(double value) {
        return Double.isFinite(value)
                ? BigDecimal.valueOf(value)
                        .setScale(4, RoundingMode.HALF_UP)
                        .stripTrailingZeros()
                        .toPlainString()
                : Double.toString(value);
    }
}
