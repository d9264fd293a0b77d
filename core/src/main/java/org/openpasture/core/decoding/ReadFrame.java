package org.openpasture.core.decoding;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.ChannelWaveform;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.registry.Registry;

/**
 * What came of reading a frame of a device.
 *
 * @param outcome refused if it cannot be decoded
 * @param reason why, or what is noteworthy; null if all is well
 * @param values "channel=value"
 */
public record ReadFrame(
        Frame.Outcome outcome,
        @Nullable String reason,
        String values,
        List<PointReading> readings,
        List<PointWaveform> waveforms) {
    /** The same with a remark more. */
    public ReadFrame with(String remark) {
        return new ReadFrame(outcome, reason == null ? remark : remark + "; " + reason, values, readings, waveforms);
    }

    /** A frame that holds nothing to be read. */
    public static ReadFrame ofNothing() {
        return new ReadFrame(Frame.Outcome.ACCEPTED, null, "", List.of(), List.of());
    }

    /**
     * From channel values to readings of points.
     *
     * @param time that the readings belong to
     */
    public static ReadFrame of(Registry registry, Device device, DeviceModel model, Decoding decoding, Instant time) {
        return switch (decoding) {
            case Decoding.Refused(String why) ->
                new ReadFrame(Frame.Outcome.REFUSED, "cannot be decoded: " + why, "", List.of(), List.of());
            case Decoding.Decoded(List<ChannelValue> values, List<ChannelWaveform> waveforms, List<String> remarks) -> {
                ReadingBuilder.Result built = ReadingBuilder.build(registry, device, model, values, time);
                List<String> all = new ArrayList<>(remarks);
                all.addAll(built.remarks());
                yield new ReadFrame(
                        Frame.Outcome.ACCEPTED,
                        all.isEmpty() ? null : String.join("; ", all),
                        ChannelText.of(values),
                        built.readings(),
                        ReadingBuilder.waveforms(registry, device, waveforms, time));
            }
        };
    }
}
