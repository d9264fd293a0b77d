package org.openpasture.core.layout;

import java.util.List;

/** What came of reading a frame by a layout. */
public sealed interface Decoding {
    /** It could be read; channels for which the device had no value are absent. */
    record Decoded(List<ChannelValue> values) implements Decoding {
        public Decoded {
            values = List.copyOf(values);
        }
    }

    /**
     * It could not.
     *
     * @param reason why, in words for the technician
     */
    record Refused(String reason) implements Decoding {}
}
