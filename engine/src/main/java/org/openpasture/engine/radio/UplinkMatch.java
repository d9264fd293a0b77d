package org.openpasture.engine.radio;

import java.util.Optional;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.lorawan.LorawanVersion;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.lorawan.Uplink;
import org.openpasture.core.registry.Registry;
import org.openpasture.store.telemetry.RadioMemory;

/**
 * A device whose address a frame carries, and what came of checking the frame against the device's keys.
 *
 * @param offered whether it was checked by the session that the device's newest join offered
 */
record UplinkMatch(Device device, LinkedDevice link, Uplink result, boolean offered) {
    /**
     * The device that a frame is from, by its key; if none fits, one whose address it carries. Empty if there is none.
     */
    static Optional<UplinkMatch> best(PhyPayload.DataUp data, Registry registry, SessionTable sessions) {
        UplinkMatch best = null;
        for (String id : sessions.at(data.devAddr())) {
            Optional<LinkedDevice> link = sessions.of(id);
            Optional<Device> device = registry.find(Device.class, id);
            if (link.isPresent() && device.isPresent()) {
                UplinkMatch match = of(data, device.get(), link.get(), registry);
                best = best == null || match.fits() ? match : best;
            }
        }
        return Optional.ofNullable(best);
    }

    private static UplinkMatch of(PhyPayload.DataUp data, Device device, LinkedDevice link, Registry registry) {
        LorawanVersion version = registry.find(DeviceModel.class, device.modelId())
                .map(DeviceModel::lorawan)
                .orElse(null);
        RadioMemory.Offer offer = link.offer;
        if (offer != null && offer.session().devAddr().equals(data.devAddr())) {
            UplinkMatch match = new UplinkMatch(device, link, Uplink.check(data, offer.session(), version, 1), true);
            if (match.fits() || !link.session.devAddr().equals(data.devAddr())) {
                return match;
            }
        }
        return new UplinkMatch(
                device,
                link,
                Uplink.check(data, link.session, version, link.mac.link().repetitions()),
                false);
    }

    private boolean fits() {
        return !(result instanceof Uplink.Refused refused && refused.cause() == Uplink.Cause.WRONG_KEY);
    }
}
