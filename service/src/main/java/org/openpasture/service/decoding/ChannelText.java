package org.openpasture.service.decoding;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.openpasture.core.layout.ChannelValue;

/** Channel values as frames keep them: "channel=value", separated by blanks. */
public final class ChannelText {
  private ChannelText() {}

  public static String of(List<ChannelValue> values) {
    return values.stream().map(value -> value.channel() + "=" + number(value.value())).collect(Collectors.joining(" "));
  }

  private static String number(double value) {
    String text = String.format(Locale.ROOT, "%.4f", value);
    return text.contains(".") ? text.replaceAll("0+$", "").replaceAll("\\.$", "") : text;
  }
}
