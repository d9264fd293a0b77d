package org.openpasture.engine.band;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.openpasture.api.setting.RadioSettings;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.MacLayer;
import org.openpasture.core.lorawan.NetworkSettings;
import org.openpasture.core.lorawan.Region;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/** The band that the radio network works in: chosen in the console, else as configured. */
@Component
public class RadioPlan {
    private static final String NAME = "radio";
    private final SettingStore settings;
    private volatile Now now;

    /** The plan as it is. */
    public record Now(Region region, int subBand, NetworkSettings settings, MacLayer mac) {
        static Now of(String regionId, int subBand, NetworkSettings settings) {
            Region region = Region.shipped(regionId);
            if (subBand < 0 || subBand > region.subBandCount()) {
                throw new IllegalArgumentException(
                        region.subBandCount() == 0
                                ? region.title() + " has no sub-bands"
                                : region.title() + " has the sub-bands 1 to " + region.subBandCount()
                                        + "; 0 is for gateways that hear all of them");
            }
            return new Now(region, subBand, settings, new MacLayer(region, subBand, settings));
        }
    }

    /** Reads what was chosen. */
    public RadioPlan(SettingStore store, EngineSettings configured) {
        this.settings = store;
        RadioSettings chosen = store.find(NAME, RadioSettings.class)
                .orElseGet(() -> RadioSettings.of(configured.region(), configured.subBand()));
        this.now = of(chosen);
    }

    /** The plan as it is now. */
    public Now now() {
        return now;
    }

    /** What was chosen, in the words of the API. */
    public RadioSettings settings() {
        NetworkSettings of = now.settings();
        return new RadioSettings(
                now.region().id(),
                now.subBand(),
                of.rx1DelaySeconds(),
                of.rx1Offset(),
                of.rx2FrequencyHz() == null ? null : of.rx2FrequencyHz() / 1e6,
                of.rx2DataRate() == null
                        ? null
                        : now.region()
                                .dataRate(of.rx2DataRate())
                                .map(DataRate::code)
                                .orElse(null),
                of.uplinkDwellTime(),
                of.downlinkDwellTime(),
                of.dutyCycleExponent(),
                of.downlinksHz().entrySet().stream()
                        .sorted(Map.Entry.comparingByKey())
                        .map(one -> new RadioSettings.DownlinkChannel(one.getKey() / 1e6, one.getValue() / 1e6))
                        .toList());
    }

    /**
     * Chooses another band, or how it is used. What concerns devices is told to them when they join, and to those that
     * have joined by MAC commands with their next frames.
     *
     * @throws IllegalArgumentException if there is no such region or sub-band, or the region cannot do this
     */
    public void choose(RadioSettings radio) {
        Now next = of(radio);
        settings.save(NAME, radio);
        now = next;
    }

    private static Now of(RadioSettings radio) {
        Region region = Region.shipped(radio.region());
        String rate = radio.rx2DataRate();
        Integer rx2DataRate = rate == null
                ? null
                : region.dataRates().stream()
                        .filter(one -> one.code().equals(rate))
                        .map(DataRate::index)
                        .findFirst()
                        .orElseThrow(() -> new IllegalArgumentException(
                                region.title() + " has no data rate " + rate + " for RX2."));
        Map<Long, Long> downlinks = new HashMap<>();
        List<RadioSettings.DownlinkChannel> channels = radio.downlinkChannels();
        if (channels != null) {
            channels.forEach(one -> downlinks.put(hz(one.uplinkMhz()), hz(one.downlinkMhz())));
        }
        return Now.of(
                radio.region(),
                radio.subBand(),
                new NetworkSettings(
                        radio.rx1DelaySeconds() == null ? Region.RX1_DELAY_SECONDS : radio.rx1DelaySeconds(),
                        radio.rx1Offset() == null ? 0 : radio.rx1Offset(),
                        radio.rx2Mhz() == null ? null : hz(radio.rx2Mhz()),
                        rx2DataRate,
                        radio.uplinkDwellTime(),
                        radio.downlinkDwellTime(),
                        radio.dutyCycleExponent() == null ? 0 : radio.dutyCycleExponent(),
                        downlinks));
    }

    private static long hz(double mhz) {
        return Math.round(mhz * 1e4) * 100;
    }
}
