package org.openpasture.engine.radio;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.BiConsumer;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Session;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.store.telemetry.RadioMemory;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * The sessions of all devices, found by device and by address. A device has one session, and beside it what its newest
 * join offered until a frame uses that. Filled from the disk at the start; after that on the network's thread.
 */
@Component
final class SessionTable {
    private static final int ADDRESS_BITS = 25;

    private final Map<String, LinkedDevice> links = new HashMap<>();
    private final Map<DevAddr, Set<String>> devicesByAddress = new HashMap<>();

    SessionTable(TelemetryStore telemetry, RadioPlan plan) {
        RadioMemory memory = telemetry.radioMemory();
        memory.sessions().forEach((id, session) -> {
            MacState known = memory.macStates().get(id);
            LinkedDevice link = begin(
                    id,
                    session,
                    known != null ? known : MacState.fresh(plan.now().region(), List.of(), false));
            link.onDisk = true;
            RadioMemory.Offer offer = memory.offers().get(id);
            if (offer != null) {
                offer(id, link, offer);
            }
        });
    }

    /** The session of a device. */
    Optional<LinkedDevice> of(String deviceId) {
        return Optional.ofNullable(links.get(deviceId));
    }

    /** The devices that have an address, or were offered it. */
    Set<String> at(DevAddr address) {
        return devicesByAddress.getOrDefault(address, Set.of());
    }

    void forEach(BiConsumer<String, LinkedDevice> each) {
        links.forEach(each);
    }

    /** A session in place of whatever the device had. */
    LinkedDevice begin(String deviceId, Session session, MacState mac) {
        forget(deviceId);
        LinkedDevice link = new LinkedDevice(session, mac);
        links.put(deviceId, link);
        index(deviceId, session.devAddr());
        return link;
    }

    /** The newest join of a device that has a session: both hold until a frame uses the new one. */
    void offer(String deviceId, LinkedDevice link, RadioMemory.Offer offer) {
        if (link.offer != null && !link.offer.session().devAddr().equals(link.session.devAddr())) {
            unindex(deviceId, link.offer.session().devAddr());
        }
        link.offer = offer;
        index(deviceId, offer.session().devAddr());
    }

    void forget(String deviceId) {
        LinkedDevice old = links.remove(deviceId);
        if (old != null) {
            unindex(deviceId, old.session.devAddr());
            if (old.offer != null) {
                unindex(deviceId, old.offer.session().devAddr());
            }
        }
    }

    /** An address that no device has. */
    DevAddr freeAddress() {
        DevAddr address;
        do {
            address = new DevAddr(ThreadLocalRandom.current().nextInt(1, 1 << ADDRESS_BITS));
        } while (devicesByAddress.containsKey(address));
        return address;
    }

    private void index(String deviceId, DevAddr address) {
        devicesByAddress.computeIfAbsent(address, key -> new HashSet<>()).add(deviceId);
    }

    private void unindex(String deviceId, DevAddr address) {
        Set<String> ids = devicesByAddress.get(address);
        if (ids != null) {
            ids.remove(deviceId);
            if (ids.isEmpty()) {
                devicesByAddress.remove(address);
            }
        }
    }
}
