package org.openpasture.engine.radio;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.JoinAccept;
import org.openpasture.core.lorawan.LorawanVersion;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.store.telemetry.RadioMemory;

/** Who may join: known, with the right key, and never with the same nonce twice. On the network's thread. */
final class JoinDesk {
    /** For experimental networks (LoRa Alliance TS002, NetID type 0). */
    private static final int NET_ID = 0;

    private static final int JOIN_NONCES = 1 << 24;

    private final RadioKeys keys;
    private final Map<String, Set<Integer>> usedNonces;
    private final Map<String, Integer> joinNonces;

    JoinDesk(RadioKeys keys, RadioMemory memory) {
        this.keys = keys;
        this.usedNonces = new HashMap<>(memory.usedNonces());
        this.joinNonces = new HashMap<>(memory.joinNonces());
    }

    /** What came of a request. */
    sealed interface Result {
        /**
         * May join.
         *
         * @param nextJoinNonce for the join after this one
         */
        record Welcome(Device device, AesKey appKey, int joinNonce, int nextJoinNonce) implements Result {}

        /**
         * Not answered.
         *
         * @param device whose it seems to be; null for nobody's
         * @param cause for programs
         * @param reason for the technician
         */
        record Refused(@Nullable Device device, Cause cause, String reason) implements Result {}
    }

    /** Checks a request; a welcome uses up its nonces. */
    Result check(Registry now, PhyPayload.JoinRequest join) {
        Optional<Device> found = now.device(join.devEui());
        if (found.isEmpty()) {
            Device swapped = now.device(join.joinEui()).orElse(null);
            return new Result.Refused(
                    swapped,
                    swapped == null ? Cause.UNKNOWN_DEVICE : Cause.EUIS_SWAPPED,
                    swapped == null
                            ? "no device has the EUI " + join.devEui()
                            : "no device has the EUI " + join.devEui() + "; its JoinEUI is the EUI of '"
                                    + swapped.name() + "': the two were swapped in the device");
        }
        Device device = found.get();
        if (!(device.identity() instanceof RadioIdentity.OverTheAir)) {
            return new Result.Refused(
                    device, Cause.IS_PERSONALISED, "the device asks to join, but is registered as personalised");
        }
        Optional<AesKey> appKey = keys.appKey(device.id());
        if (appKey.isEmpty() || !join.isAuthentic(appKey.get())) {
            return new Result.Refused(
                    device,
                    Cause.WRONG_KEY,
                    "the application key is wrong: the integrity code does not fit. Compare the key on the device with the one entered");
        }
        Set<Integer> used = usedNonces.computeIfAbsent(device.id(), id -> new HashSet<>());
        int highest = used.stream().mapToInt(Integer::intValue).max().orElse(-1);
        boolean counts = now.find(DeviceModel.class, device.modelId())
                .filter(model -> LorawanVersion.countsDevNonce(model.lorawan()))
                .isPresent();
        if (counts && join.devNonce() < highest) {
            return new Result.Refused(
                    device,
                    Cause.NONCE_USED,
                    "DevNonce " + join.devNonce() + " is lower than " + highest
                            + ", the last one: LoRaWAN 1.0.4 counts it up, so this is a replayed join request, or a device that lost its memory");
        }
        if (!used.add(join.devNonce())) {
            return new Result.Refused(
                    device,
                    Cause.NONCE_USED,
                    "DevNonce " + join.devNonce()
                            + " was used before: a replayed join request, or a device that lost its memory");
        }
        int joinNonce = joinNonces.getOrDefault(device.id(), 1);
        int next = (joinNonce + 1) % JOIN_NONCES;
        joinNonces.put(device.id(), next);
        return new Result.Welcome(device, appKey.get(), joinNonce, next);
    }

    /** The answer to a welcome, with the session that begins. */
    JoinAccept accept(Result.Welcome welcome, PhyPayload.JoinRequest join, RadioPlan.Now plan, DevAddr address) {
        return JoinAccept.answer(
                join,
                welcome.appKey(),
                welcome.joinNonce(),
                NET_ID,
                address,
                plan.mac().downlinkSettings(),
                plan.mac().rx1DelaySeconds(),
                plan.mac().channelList());
    }

    void forget(String deviceId) {
        usedNonces.remove(deviceId);
        joinNonces.remove(deviceId);
    }
}
