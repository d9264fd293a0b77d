package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;

/** Brings devices in: who may, where, and that none is there already, by whichever spelling of its address. */
public final class BringIn {
    private final Access access;
    private final Addresses addresses;
    /** By inlet, the devices that are there by the one form of their addresses. */
    private final Map<String, Map<String, Device>> atInlets = new HashMap<>();

    private BringIn(Access access, Addresses addresses) {
        this.access = access;
        this.addresses = addresses;
    }

    /**
     * What becomes of the wish to bring devices in, all of them or none.
     *
     * @param access what is registered, and what the person who wishes may do
     * @param highestKept the highest number of a point that the record knows of, also of points that are gone
     * @param ids for points and assignments
     */
    public static Edited edit(
            Access access, List<NewDevice> devices, Addresses addresses, int highestKept, Supplier<String> ids) {
        BringIn wish = new BringIn(access, addresses);
        Map<String, Device> seen = new HashMap<>();
        List<Change> steps = new ArrayList<>();
        int number = Math.max(access.registry().highestPointNumber(), highestKept);
        for (NewDevice one : devices) {
            Device device = one.device();
            Optional<Refused> refused = wish.refusal(device);
            if (refused.isPresent()) {
                return refused.get();
            }
            Device twice = seen.putIfAbsent(key(access.registry(), device.identity(), addresses), device);
            if (twice != null) {
                return Refused.clash(
                        "'" + twice.name() + "' and '" + device.name() + "' have the same EUI or address.",
                        "Leave one of them out.");
            }
            steps.add(new Change.Put(device));
            for (Channel channel : one.makePoints() ? wish.measuring(device) : List.<Channel>of()) {
                number++;
                Point point = new Point(
                        ids.get(),
                        number,
                        channel.title(),
                        device.placeId(),
                        channel.quantity(),
                        channel.unit(),
                        null,
                        channel.direction(),
                        null,
                        false);
                steps.add(new Change.Put(point));
                // From of old: device and point are both new, so that what it logged before it was brought in can
                // belong to nobody else.
                steps.add(new Change.Put(new Assignment(
                        ids.get(), device.id(), channel.name(), point.id(), Reading.EARLIEST, null, null)));
            }
        }
        return new Changes(steps);
    }

    /** What no two devices have in common: an EUI, or an address at an inlet in its one form. */
    public static String key(Registry now, DeviceIdentity identity, Addresses addresses) {
        return switch (identity) {
            case RadioIdentity radio -> "EUI " + radio.devEui();
            case DeviceIdentity.OfInlet of ->
                of.inletId() + " "
                        + now.find(Inlet.class, of.inletId())
                                .map(inlet -> addresses.normal(inlet.source(), of.address()))
                                .orElse(of.address());
        };
    }

    private Optional<Refused> refusal(Device device) {
        return Rights.on(access, Right.EDIT, device.placeId(), "bring devices in here")
                .or(() -> model(device))
                .or(() -> device.identity() instanceof DeviceIdentity.OfInlet of ? inlet(of) : Optional.empty())
                .or(() -> known(device.identity()));
    }

    private Optional<Refused> model(Device device) {
        Optional<DeviceModel> model =
                access.registry().find(DeviceModel.class, device.modelId()).filter(access::maySee);
        return model.isEmpty()
                ? Optional.of(Refused.unknown("device model"))
                : SharedEdits.usable(access, model.get(), device.placeId());
    }

    private Optional<Refused> inlet(DeviceIdentity.OfInlet of) {
        Optional<Inlet> inlet =
                access.registry().find(Inlet.class, of.inletId()).filter(one -> access.may(Right.LOOK, one));
        return inlet.isEmpty()
                ? Optional.of(Refused.unknown("inlet"))
                : Rights.of(access, Right.EDIT, inlet.get().siteId(), "bring devices in at this inlet")
                        .or(() -> addresses
                                .problem(inlet.get().source(), of.address())
                                .map(problem -> Refused.invalid(problem + ".", "Correct the address.")));
    }

    private Optional<Refused> known(DeviceIdentity identity) {
        return switch (identity) {
            case RadioIdentity radio ->
                access.registry()
                        .device(radio.devEui())
                        .map(other -> Refused.clash(
                                "A device with the EUI " + radio.devEui() + " is here already" + named(other) + ".",
                                "Look at that one, or check the EUI on the label."));
            case DeviceIdentity.OfInlet of ->
                Optional.ofNullable(atInlets.computeIfAbsent(of.inletId(), this::devicesAt)
                                .get(key(access.registry(), of, addresses)))
                        .map(other -> Refused.clash(
                                "A device with the address " + of.address() + " is at this inlet already" + named(other)
                                        + ".",
                                "Look at that one, or check the address."));
        };
    }

    private Map<String, Device> devicesAt(String inletId) {
        Map<String, Device> found = new HashMap<>();
        access.registry()
                .devicesOf(inletId)
                .forEach(device -> found.putIfAbsent(key(access.registry(), device.identity(), addresses), device));
        return found;
    }

    /** What belongs to others is not named. */
    private String named(Device other) {
        return access.may(Right.LOOK, other) ? ": '" + other.name() + "'" : "";
    }

    /** The channels that points are made for: all but that of the battery. */
    private List<Channel> measuring(Device device) {
        return access.registry().find(DeviceModel.class, device.modelId()).stream()
                .flatMap(model -> model.channels().stream()
                        .filter(channel -> !channel.name().equals(model.batteryChannel())))
                .toList();
    }
}
