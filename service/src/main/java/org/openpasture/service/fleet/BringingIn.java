package org.openpasture.service.fleet;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.problem.Require;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Addresses;
import org.openpasture.core.edit.BringIn;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.NewDevice;
import org.openpasture.core.edit.Rights;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.people.Right;
import org.openpasture.engine.radio.KeyList;
import org.openpasture.engine.radio.RadioKeys;
import org.openpasture.engine.radio.RadioNetwork;
import org.openpasture.inlets.fieldbus.FieldbusAddress;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Brings devices in, with their keys and sessions. Who may, and what clashes, is the core's matter. */
@Component
class BringingIn {
    private static final Addresses ADDRESSES = new Addresses() {
        @Override
        public Optional<String> problem(Source source, String address) {
            try {
                if (source instanceof Source.Polled polled) {
                    FieldbusAddress.check(polled, address);
                }
                return Optional.empty();
            } catch (IllegalArgumentException e) {
                return Optional.of(String.valueOf(e.getMessage()));
            }
        }

        @Override
        public String normal(Source source, String address) {
            return source instanceof Source.Polled polled ? FieldbusAddress.normal(polled, address) : address;
        }
    };

    private final RadioNetwork network;
    private final RadioKeys keys;
    private final KeyList list;
    private final Editor editor;
    private final TelemetryStore telemetry;

    BringingIn(RadioNetwork network, RadioKeys keys, KeyList list, Editor editor, TelemetryStore telemetry) {
        this.network = network;
        this.keys = keys;
        this.list = list;
        this.editor = editor;
        this.telemetry = telemetry;
    }

    /** A device that is about to come in, with what its radio needs. */
    private record Newcomer(
            Device device,
            boolean makePoints,
            @Nullable AesKey appKey,
            boolean fromList,
            @Nullable Session session) {
        NewDevice wish() {
            return new NewDevice(device, makePoints);
        }
    }

    /**
     * Says what is wrong with a request, without doing anything.
     *
     * @throws Problem or IllegalArgumentException in words
     */
    void check(DeviceRequest request) {
        List<Newcomer> one = List.of(newcomer(request));
        editor.check(access -> edit(access, one));
    }

    /** By what a request is the same as another one, however that is spelt. */
    String key(Access access, DeviceRequest request) {
        return BringIn.key(access.registry(), newcomer(request).device().identity(), ADDRESSES);
    }

    /** Brings a device in. */
    Device bringIn(DeviceRequest request) {
        return bringIn(List.of(request)).getFirst();
    }

    /** Brings devices in, all of them or none. */
    List<Device> bringIn(List<DeviceRequest> requests) {
        List<Newcomer> newcomers = requests.stream().map(this::newcomer).toList();
        editor.edit(
                access -> edit(access, newcomers),
                () -> newcomers.forEach(newcomer -> {
                    if (newcomer.appKey() != null) {
                        keys.save(newcomer.device().id(), newcomer.appKey());
                    }
                }),
                () -> newcomers.forEach(
                        newcomer -> keys.forget(newcomer.device().id())));
        newcomers.forEach(newcomer -> {
            if (newcomer.fromList()) {
                newcomer.device().devEui().ifPresent(list::forget);
            }
            if (newcomer.session() != null) {
                network.begin(newcomer.device().id(), newcomer.session());
            }
        });
        return newcomers.stream().map(Newcomer::device).toList();
    }

    private Edited edit(Access access, List<Newcomer> newcomers) {
        return BringIn.edit(
                access,
                newcomers.stream().map(Newcomer::wish).toList(),
                ADDRESSES,
                telemetry.highestPoint(),
                Accounts::newId);
    }

    private Newcomer newcomer(DeviceRequest request) {
        // First, so that nobody without a right there learns which keys are in the list.
        editor.require(access -> Rights.on(access, Right.EDIT, request.placeId(), "bring devices in here"));
        if (request.inletId() != null) {
            return newcomer(
                    request,
                    new DeviceIdentity.OfInlet(request.inletId(), String.valueOf(request.address())),
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
            return newcomer(request, new RadioIdentity.Personalised(devEui, session.devAddr()), null, false, session);
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
        return newcomer(request, new RadioIdentity.OverTheAir(devEui, joinEui), key, listed.isPresent(), null);
    }

    private static Newcomer newcomer(
            DeviceRequest request,
            DeviceIdentity identity,
            @Nullable AesKey appKey,
            boolean fromList,
            @Nullable Session session) {
        return new Newcomer(
                new Device(Accounts.newId(), request.name(), request.modelId(), request.placeId(), identity),
                Boolean.TRUE.equals(request.makePoints()),
                appKey,
                fromList,
                session);
    }
}
