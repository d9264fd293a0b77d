package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Our declarative description of how to read channels out of a frame. It is data: it can be shared and tried, and cannot run away. */
public record Layout(List<Message> messages) {
  public Layout {
    messages = List.copyOf(messages);
  }

  /**
   * Reads a payload. All or nothing: a frame that is too short for one field is refused as a whole, since it cannot be
   * the message that the layout describes.
   *
   * @param port the radio port it came on, 0 where there is none
   */
  public Decoding decode(int port, byte[] payload) {
    for (Message message : messages) {
      if (message.isFor(port)) {
        return decode(message, payload);
      }
    }
    return new Decoding.Refused("the layout describes no message on port " + port);
  }

  /**
   * Where a channel's value lies in a payload.
   *
   * @param from first byte
   * @param until the byte after the last
   */
  public record Part(String channel, int from, int until) {}

  /** Where the channels of a payload lie; those that lie outside of it are left out. */
  public List<Part> parts(int port, byte[] payload) {
    return messages.stream().filter(message -> message.isFor(port)).findFirst().stream().flatMap(message -> message.fields().stream())
        .map(field -> new Part(field.channel(), field.start(payload.length), field.start(payload.length) + field.type().bytes()))
        .filter(part -> part.from() >= 0 && part.until() <= payload.length).toList();
  }

  private static Decoding decode(Message message, byte[] payload) {
    List<ChannelValue> values = new ArrayList<>(message.fields().size());
    for (Field field : message.fields()) {
      int start = field.start(payload.length);
      int end = start + field.type().bytes();
      if (start < 0 || end > payload.length) {
        return new Decoding.Refused(String.format(Locale.ROOT,
            "the frame has %d bytes, but '%s' is read from byte %d to %d", payload.length, field.channel(), start, end - 1));
      }
      field.read(payload).ifPresent(value -> values.add(new ChannelValue(field.channel(), value)));
    }
    return new Decoding.Decoded(values);
  }
}
