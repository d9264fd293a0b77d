package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Numbers at fixed bytes, as most radio sensors send them; one description for each port that a device sends on. */
public record ByteLayout(List<Message> messages) implements Layout {
    public ByteLayout {
        messages = List.copyOf(messages);
    }

    /**
     * All or nothing: a frame that is too short for one field is refused as a whole, since it cannot be the message
     * that is described.
     */
    @Override
    public Decoding decode(int port, byte[] payload) {
        return message(port)
                .map(message -> withWaveforms(message, payload, decode(message.fields(), payload)))
                .orElseGet(() -> new Decoding.Refused("the layout describes no message on port " + port));
    }

    private static Decoding withWaveforms(Message message, byte[] payload, Decoding decoding) {
        if (message.waveforms().isEmpty() || !(decoding instanceof Decoding.Decoded decoded)) {
            return decoding;
        }
        Gathering gathered = new Gathering(decoded.values());
        message.waveforms().forEach(field -> gathered.take(() -> Optional.of(field.read(payload))));
        return gathered.isEmpty() ? new Decoding.Refused(gathered.complaint()) : gathered.decoded();
    }

    private Optional<Message> message(int port) {
        return messages.stream().filter(message -> message.isFor(port)).findFirst();
    }

    @Override
    public List<Part> parts(int port, byte[] payload) {
        return message(port).map(message -> parts(message.fields(), payload, 0)).orElse(List.of());
    }

    @Override
    public Set<String> channels() {
        Set<String> names = new LinkedHashSet<>();
        for (Message message : messages) {
            message.fields().forEach(field -> names.add(field.channel()));
            message.waveforms().forEach(field -> names.addAll(field.channels()));
        }
        return names;
    }

    static List<Part> parts(List<Field> fields, byte[] payload, int shift) {
        return fields.stream()
                .map(field -> new Part(
                        field.channel(),
                        field.start(payload.length),
                        field.start(payload.length) + field.type().bytes()))
                .filter(part -> part.from() >= 0 && part.until() <= payload.length)
                .map(part -> new Part(part.channel(), part.from() + shift, part.until() + shift))
                .toList();
    }

    static Decoding decode(List<Field> fields, byte[] payload) {
        List<ChannelValue> values = new ArrayList<>(fields.size());
        for (Field field : fields) {
            int start = field.start(payload.length);
            int end = start + field.type().bytes();
            if (start < 0 || end > payload.length) {
                return new Decoding.Refused(String.format(
                        Locale.ROOT,
                        "the frame has %d bytes, but '%s' is read from byte %d to %d",
                        payload.length,
                        field.channel(),
                        start,
                        end - 1));
            }
            field.read(payload).ifPresent(value -> values.add(new ChannelValue(field.channel(), value)));
        }
        return new Decoding.Decoded(values);
    }
}
