package org.openpasture.core.decoding;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.BiConsumer;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.ChannelWaveform;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/** From channel values to readings of points: assignment, calibration, and what cannot be real is marked. */
public final class ReadingBuilder {
    private ReadingBuilder() {}

    /**
     * Readings and remarks.
     *
     * @param remarks what is noteworthy about values, in words
     */
    public record Result(List<PointReading> readings, List<String> remarks) {}

    /** The waveforms of a device, each with the points that its channel is assigned to. */
    public static List<PointWaveform> waveforms(
            Registry registry, Device device, List<ChannelWaveform> waveforms, Instant time) {
        List<PointWaveform> found = new ArrayList<>();
        for (ChannelWaveform one : waveforms) {
            eachPoint(
                    registry,
                    device,
                    one.channel(),
                    time,
                    (assignment, point) -> found.add(new PointWaveform(point.number(), time, one.waveform())));
        }
        return found;
    }

    /** The points that a channel feeds at a moment, each with its assignment. */
    private static void eachPoint(
            Registry registry, Device device, String channel, Instant time, BiConsumer<Assignment, Point> each) {
        for (Assignment assignment : registry.assignmentsOf(device.id())) {
            if (assignment.channel().equals(channel) && assignment.holdsAt(time)) {
                registry.find(Point.class, assignment.pointId()).ifPresent(point -> each.accept(assignment, point));
            }
        }
    }

    public static Result build(
            Registry registry, Device device, DeviceModel model, List<ChannelValue> values, Instant time) {
        List<PointReading> readings = new ArrayList<>();
        List<String> remarks = new ArrayList<>();
        for (ChannelValue value : values) {
            eachPoint(
                    registry,
                    device,
                    value.channel(),
                    time,
                    (assignment, point) -> read(point, assignment, model, value, time, readings, remarks));
        }
        return new Result(readings, remarks);
    }

    private static Calibration calibration(Assignment assignment, DeviceModel model) {
        if (assignment.calibration() != null) {
            return assignment.calibration();
        }
        Calibration ofModel =
                model.channel(assignment.channel()).map(Channel::calibration).orElse(null);
        return ofModel == null ? Calibration.none() : ofModel;
    }

    private static void read(
            Point point,
            Assignment assignment,
            DeviceModel model,
            ChannelValue raw,
            Instant time,
            List<PointReading> readings,
            List<String> remarks) {
        Calibration calibration = calibration(assignment, model);
        Optional<String> fault = calibration.fault(raw.value());
        double calibrated = calibration.apply(raw.value());
        // What a person calibrated for this point comes out in its unit; else it has the channel's.
        double value = assignment.calibration() != null
                ? calibrated
                : model.channel(assignment.channel())
                        .map(channel -> Units.convert(calibrated, channel.unit(), point.unit()))
                        .filter(OptionalDouble::isPresent)
                        .map(OptionalDouble::getAsDouble)
                        .orElse(calibrated);
        if (!Double.isFinite(value)) {
            remarks.add(raw.channel() + " is not a number");
            return;
        }
        boolean physical = point.isPhysical(value);
        if (fault.isPresent()) {
            remarks.add(raw.channel() + ": " + fault.get() + ", marked bad");
        } else if (!physical) {
            remarks.add(String.format(
                    Locale.ROOT,
                    "%s: %.6g %s is outside of what %s can be, marked bad",
                    raw.channel(),
                    value,
                    point.unit(),
                    point.quantity().title()));
        }
        readings.add(new PointReading(
                point.number(), new Reading(time, value, physical && fault.isEmpty() ? Quality.GOOD : Quality.BAD)));
    }
}
