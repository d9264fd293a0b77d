package org.openpasture.core.layout;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One kind of message that a device sends.
 *
 * @param port the radio port (FPort) that it comes on; null for any
 * @param fields what it holds
 * @param waveforms samples that fill the rest of it; null for none
 */
public record Message(
        @Nullable Integer port,
        List<Field> fields,
        @Nullable List<WaveformField> waveforms) {
    public Message {
        fields = fields == null ? List.of() : List.copyOf(fields);
        waveforms = waveforms == null ? List.of() : List.copyOf(waveforms);
        waveforms.forEach(WaveformField::requireBytes);
    }

    /** A message without waveforms. */
    public Message(@Nullable Integer port, List<Field> fields) {
        this(port, fields, List.of());
    }

    /** The samples that it holds. */
    @Override
    public List<WaveformField> waveforms() {
        return waveforms == null ? List.of() : waveforms;
    }

    boolean isFor(int receivedPort) {
        return port == null || port == receivedPort;
    }
}
