package org.openpasture.core.registry;

import java.util.Map;
import java.util.Optional;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;

/** How the values of points are written. */
public final class PointValues {
    private PointValues() {}

    /**
     * The words that stand for values of a point, by the value as text: its own, else those of the model of the device
     * that feeds it now; empty for none.
     */
    public static Map<String, String> words(Registry registry, Point point) {
        return point.shown().words().isEmpty()
                ? channel(registry, point).map(Channel::words).orElse(Map.of())
                : point.shown().words();
    }

    private static Optional<Channel> channel(Registry registry, Point point) {
        return registry.assignmentsTo(point.id()).stream()
                .filter(assignment -> assignment.until() == null)
                .findFirst()
                .flatMap(assignment -> channel(registry, assignment));
    }

    private static Optional<Channel> channel(Registry registry, Assignment assignment) {
        return registry.find(Device.class, assignment.deviceId())
                .flatMap(device -> registry.find(DeviceModel.class, device.modelId()))
                .flatMap(model -> model.channels().stream()
                        .filter(channel -> channel.name().equals(assignment.channel()))
                        .findFirst());
    }

    /** A value as people write it: the word that stands for it, or the number with its unit. */
    public static String inWords(Registry registry, Point point, double value) {
        return Shown.word(words(registry, point), value).orElseGet(() -> point.inWords(value));
    }
}
