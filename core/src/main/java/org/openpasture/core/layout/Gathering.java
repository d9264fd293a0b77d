package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * What is read out of one message, waveform by waveform: samples that cannot be used become a remark and take nothing
 * else along. For one thread.
 */
final class Gathering {
    private final List<ChannelValue> values;
    private final List<ChannelWaveform> waveforms = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    /** Begins with the values of the message's other fields. */
    Gathering(List<ChannelValue> values) {
        this.values = new ArrayList<>(values);
    }

    /**
     * Takes what a waveform gives.
     *
     * @param read throws an {@link IllegalArgumentException} in words where its samples cannot be used
     * @return whether it was there and could be used
     */
    boolean take(Supplier<Optional<WaveformField.Taken>> read) {
        try {
            Optional<WaveformField.Taken> taken = read.get();
            taken.ifPresent(one -> {
                values.addAll(one.values());
                waveforms.add(one.waveform());
                remarks.addAll(one.remarks());
            });
            return taken.isPresent();
        } catch (IllegalArgumentException e) {
            remarks.add(String.valueOf(e.getMessage()));
            return false;
        }
    }

    boolean isEmpty() {
        return values.isEmpty() && waveforms.isEmpty();
    }

    /** All remarks as one sentence; empty if there are none. */
    String complaint() {
        return String.join("; ", remarks);
    }

    Decoding.Decoded decoded() {
        return new Decoding.Decoded(values, waveforms, remarks);
    }
}
