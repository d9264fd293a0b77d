package org.openpasture.service.fleet;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.problem.Require;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.SharedEdits;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.radio.KeyList;
import org.openpasture.engine.radio.RadioKeys;
import org.openpasture.engine.radio.RadioNetwork;
import org.openpasture.inlets.fieldbus.FieldbusAddress;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * Brings devices in: checks all that is said of them, keeps their keys, and makes points for their channels if that is
 * wanted.
 */
@Component
class BringIn {
    private final RegistryStore registry;
    private final RadioNetwork network;
    private final RadioKeys keys;
    private final KeyList list;
    private final Reader reader;
    private final TelemetryStore telemetry;

    BringIn(
            RegistryStore registry,
            RadioNetwork network,
            RadioKeys keys,
            KeyList list,
            Reader reader,
            TelemetryStore telemetry) {
        this.telemetry = telemetry;
        this.registry = registry;
        this.network = network;
        this.keys = keys;
        this.list = list;
        this.reader = reader;
    }

    /** A request that was found right. */
    private record Checked(
            DeviceModel model,
            DeviceIdentity identity,
            @Nullable AesKey appKey,
            boolean fromList,
            @Nullable Session session) {}

    /**
     * Says what is wrong with a request, without doing anything.
     *
     * @throws Problem or IllegalArgumentException in words
     */
    void check(DeviceRequest request) {
        refuseKnown(reader.access(), checked(request).identity());
    }

    /** Brings a device in. */
    Device bringIn(DeviceRequest request) {
        return bringIn(List.of(request)).getFirst();
    }

    /** Brings devices in, all of them or none. */
    List<Device> bringIn(List<DeviceRequest> requests) {
        List<Newcomer> newcomers = requests.stream()
                .map(request -> newcomer(request, checked(request)))
                .toList();
        newcomers.forEach(newcomer -> {
            if (newcomer.checked().appKey() != null) {
                keys.save(newcomer.device().id(), newcomer.checked().appKey());
            }
        });
        try {
            Person asks = reader.person();
            registry.change(asks.name(), now -> changes(reader.access(now, asks), newcomers));
        } catch (RuntimeException clash) {
            newcomers.forEach(newcomer -> keys.forget(newcomer.device().id()));
            throw clash;
        }
        newcomers.forEach(newcomer -> {
            if (newcomer.checked().fromList()) {
                newcomer.device().devEui().ifPresent(list::forget);
            }
            if (newcomer.checked().session() != null) {
                network.begin(newcomer.device().id(), newcomer.checked().session());
            }
        });
        return newcomers.stream().map(Newcomer::device).toList();
    }

    /** A device that is about to come in. */
    private record Newcomer(Device device, Checked checked, boolean makePoints) {}

    private static Newcomer newcomer(DeviceRequest request, Checked checked) {
        return new Newcomer(
                new Device(Accounts.newId(), request.name(), request.modelId(), request.placeId(), checked.identity()),
                checked,
                Boolean.TRUE.equals(request.makePoints()));
    }

    private Checked checked(DeviceRequest request) {
        reader.requirePlace(Right.EDIT, request.placeId(), "bring devices in here");
        DeviceModel model = reader.shared(DeviceModel.class, request.modelId(), "device model");
        if (!SharedEdits.isFor(reader.now(), model, request.placeId())) {
            throw Problem.conflict(
                    "The device model '" + model.name() + "' belongs to another site.",
                    "Choose a model of this site, or one that all sites share.");
        }
        if (request.inletId() != null) {
            Inlet inlet = reader.find(Inlet.class, request.inletId(), "inlet");
            if (!reader.access().may(Right.LOOK, inlet)) {
                throw Problem.notFound("inlet");
            }
            reader.require(Right.EDIT, inlet.siteId(), "bring devices in at this inlet");
            if (inlet.source() instanceof Source.Polled polled) {
                FieldbusAddress.check(polled, String.valueOf(request.address()));
            }
            return new Checked(
                    model,
                    new DeviceIdentity.OfInlet(inlet.id(), String.valueOf(request.address())),
                    null,
                    false,
                    null);
        }
        Eui64 devEui = Require.present(request.devEui(), "the device's EUI");
        if (request.isPersonalised()) {
            Session session = Session.fresh(
                    DevAddr.of(String.valueOf(request.devAddr())),
                    AesKey.ofHex(String.valueOf(request.nwkSKey())),
                    AesKey.ofHex(String.valueOf(request.appSKey())));
            return new Checked(model, new RadioIdentity.Personalised(devEui, session.devAddr()), null, false, session);
        }
        Optional<KeyList.Entry> listed = request.appKey() == null ? list.find(devEui) : Optional.empty();
        AesKey key = request.appKey() != null
                ? AesKey.ofHex(request.appKey())
                : listed.map(KeyList.Entry::appKey)
                        .orElseThrow(() -> Problem.invalid(
                                "the key is missing: give the application key (appKey) for a device that joins, or devAddr, nwkSKey and appSKey for a personalised "
                                        + "one; the list of keys has none for " + devEui));
        Eui64 joinEui = request.joinEui() != null
                ? request.joinEui()
                : listed.map(KeyList.Entry::joinEui).orElseGet(() -> new Eui64(0));
        return new Checked(model, new RadioIdentity.OverTheAir(devEui, joinEui), key, listed.isPresent(), null);
    }

    private static void refuseKnown(Access access, DeviceIdentity identity) {
        Registry now = access.registry();
        switch (identity) {
            case RadioIdentity radio ->
                now.device(radio.devEui()).ifPresent(other -> {
                    throw Problem.conflict(
                            "A device with the EUI " + radio.devEui() + " is here already" + named(access, other) + ".",
                            "Look at that one, or check the EUI on the label.");
                });
            case DeviceIdentity.OfInlet of ->
                now.devicesOf(of.inletId()).stream()
                        .filter(other -> isSame(now, of, other.identity().address()))
                        .findFirst()
                        .ifPresent(other -> {
                            throw Problem.conflict(
                                    "A device with the address " + of.address() + " is at this inlet already"
                                            + named(access, other) + ".",
                                    "Look at that one, or check the address.");
                        });
        }
    }

    /** What belongs to others is not named. */
    private static String named(Access access, Device other) {
        return access.may(Right.LOOK, other) ? ": '" + other.name() + "'" : "";
    }

    private static boolean isSame(Registry now, DeviceIdentity.OfInlet of, String address) {
        return now.find(Inlet.class, of.inletId())
                .map(Inlet::source)
                .filter(Source.Polled.class::isInstance)
                .map(Source.Polled.class::cast)
                .map(polled ->
                        FieldbusAddress.normal(polled, of.address()).equals(FieldbusAddress.normal(polled, address)))
                .orElse(of.address().equals(address));
    }

    private List<Change> changes(Access access, List<Newcomer> newcomers) {
        Registry now = access.registry();
        List<Change> changes = new ArrayList<>();
        int number = Math.max(now.highestPointNumber(), telemetry.highestPoint());
        for (Newcomer newcomer : newcomers) {
            Device device = newcomer.device();
            refuseKnown(access, device.identity());
            changes.add(new Change.Put(device));
            DeviceModel model = newcomer.checked().model();
            for (Channel channel : newcomer.makePoints() ? model.channels() : List.<Channel>of()) {
                if (channel.name().equals(model.batteryChannel())) {
                    continue;
                }
                number++;
                Point point = new Point(
                        Accounts.newId(),
                        number,
                        channel.title(),
                        device.placeId(),
                        channel.quantity(),
                        channel.unit(),
                        null,
                        channel.direction(),
                        null,
                        false);
                changes.add(new Change.Put(point));
                // From of old: device and point are both new, so that what it logged before it was brought in can
                // belong to nobody else.
                changes.add(new Change.Put(new Assignment(
                        Accounts.newId(), device.id(), channel.name(), point.id(), Reading.EARLIEST, null, null)));
            }
        }
        return changes;
    }
}
