package org.openpasture.core.layout;

import java.util.List;

/** What came of reading a frame by a layout. */
public sealed interface Decoding {
    /**
     * It could be read; channels for which the device had no value are absent.
     *
     * @param remarks what of it could not be used, in words for the technician
     */
    record Decoded(List<ChannelValue> values, List<ChannelWaveform> waveforms, List<String> remarks)
            implements Decoding {
        public Decoded {
            values = List.copyOf(values);
            waveforms = List.copyOf(waveforms);
            remarks = List.copyOf(remarks);
        }

        /** Values only. */
        public Decoded(List<ChannelValue> values) {
            this(values, List.of(), List.of());
        }

        /** The same with other values. */
        public Decoded with(List<ChannelValue> others) {
            return new Decoded(others, waveforms, remarks);
        }
    }

    /**
     * It could not.
     *
     * @param reason why, in words for the technician
     */
    record Refused(String reason) implements Decoding {}
}
