package org.openpasture.core.edit;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

/** Changes of what devices' channels feed, and of their calibrations, of which each stretch of time keeps its own. */
public final class AssignmentEdits {
    private AssignmentEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     * @param now what the clock says
     */
    public static Edited edit(Access access, AssignmentWish wish, Instant now) {
        return switch (wish) {
            case AssignmentWish.Assign assign -> assign(access, assign, now);
            case AssignmentWish.End(String id) -> end(access, id, now);
        };
    }

    private static Edited assign(Access access, AssignmentWish.Assign wish, Instant now) {
        Registry registry = access.registry();
        Optional<Device> device =
                registry.find(Device.class, wish.deviceId()).filter(one -> access.may(Right.LOOK, one));
        if (device.isEmpty()) {
            return Refused.unknown("device");
        }
        Optional<Point> point = registry.find(Point.class, wish.pointId()).filter(access::maySee);
        if (point.isEmpty()) {
            return Refused.unknown("point");
        }
        Optional<Refused> refused = (access.may(Right.EDIT, device.get())
                        ? Optional.<Refused>empty()
                        : Optional.of(Refused.notAllowed("assign this device's channels")))
                .or(() -> Rights.on(access, Right.EDIT, point.get().placeId(), "assign to this point"))
                .or(() -> fits(registry, device.get(), point.get(), wish))
                .or(() -> inTime(registry, wish, now));
        return Edited.unless(refused, () -> steps(access, wish, now));
    }

    private static Optional<Refused> fits(Registry registry, Device device, Point point, AssignmentWish.Assign wish) {
        Optional<DeviceModel> model = registry.find(DeviceModel.class, device.modelId());
        Optional<Channel> channel = model.flatMap(one -> one.channel(wish.channel()));
        if (channel.isEmpty()) {
            return Optional.of(Refused.invalid(
                    "The model of '" + device.name() + "' has no channel '" + wish.channel() + "'.",
                    "Choose one of its channels."));
        }
        return alike(channel.get(), point, wish);
    }

    /** A channel feeds a point of its own quantity, unless a calibration says how one becomes the other. */
    private static Optional<Refused> alike(Channel channel, Point point, AssignmentWish.Assign wish) {
        if (point.formula() != null) {
            return Optional.of(Refused.clash(
                    "'" + point.name() + "' is derived from other points, so that no device can measure it.",
                    "Choose another point, or remove the formula first."));
        }
        boolean says = wish.calibration() != null
                || channel.quantity() == Quantity.OTHER
                || point.quantity() == Quantity.OTHER;
        boolean alike = channel.quantity() == point.quantity() && Units.areAlike(channel.unit(), point.unit());
        return says || alike
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "The channel '" + channel.title() + "' is "
                                + channel.quantity().title() + " in '" + channel.unit() + "', the point '"
                                + point.name() + "' is " + point.quantity().title() + " in '" + point.unit() + "'.",
                        "Choose another point, or give the calibration by which one becomes the other."));
    }

    /** What begins at a time begins after what it follows, and not in the future. */
    private static Optional<Refused> inTime(Registry registry, AssignmentWish.Assign wish, Instant now) {
        Instant from = wish.from();
        if (from == null) {
            return Optional.empty();
        }
        if (from.isAfter(now)) {
            return Optional.of(Refused.invalid(
                    "A calibration cannot begin in the future (" + from + ").", "Choose a time up to now."));
        }
        return registry.assignmentsTo(wish.pointId()).stream()
                .filter(one -> one.until() == null
                        ? !one.from().isBefore(from)
                        : one.until().isAfter(from))
                .findFirst()
                .map(one -> Refused.clash(
                        "The point has another source or calibration since "
                                + (one.until() == null ? one.from() : one.until()) + ", which is not before " + from
                                + ".",
                        "Choose a later time, or correct the calibration for all of its time."));
    }

    private static Changes steps(Access access, AssignmentWish.Assign wish, Instant now) {
        List<Change> steps = new ArrayList<>();
        List<Assignment> lasting = access.registry().assignmentsTo(wish.pointId()).stream()
                .filter(one -> one.until() == null)
                .toList();
        Optional<Assignment> same = lasting.stream()
                .filter(one -> one.deviceId().equals(wish.deviceId())
                        && one.channel().equals(wish.channel())
                        && wish.from() == null)
                .findFirst();
        Instant from = wish.from() == null ? now : wish.from();
        lasting.stream()
                .filter(one -> !same.equals(Optional.of(one)))
                .forEach(one -> steps.add(new Change.Put(one.endedAt(from))));
        steps.add(new Change.Put(new Assignment(
                same.map(Assignment::id).orElseGet(wish::id),
                wish.deviceId(),
                wish.channel(),
                wish.pointId(),
                same.map(Assignment::from).orElse(from),
                null,
                wish.calibration(),
                access.person().name(),
                wish.note())));
        return new Changes(steps);
    }

    private static Edited end(Access access, String id, Instant now) {
        Optional<Assignment> found = access.registry().find(Assignment.class, id);
        Optional<Device> device = found.flatMap(one -> access.registry().find(Device.class, one.deviceId()))
                .filter(one -> access.may(Right.LOOK, one));
        if (found.isEmpty() || device.isEmpty()) {
            return Refused.unknown("assignment");
        }
        if (!access.may(Right.EDIT, device.get())) {
            return Refused.notAllowed("end this assignment");
        }
        return found.get().until() == null ? Changes.put(found.get().endedAt(now)) : new Changes(List.of());
    }
}
