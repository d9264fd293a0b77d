package org.openpasture.engine.band;

import org.openpasture.api.setting.RadioSettings;
import org.openpasture.core.lorawan.MacLayer;
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
    public record Now(Region region, int subBand, MacLayer mac) {
        static Now of(String regionId, int subBand) {
            Region region = Region.shipped(regionId);
            if (subBand < 0 || subBand > region.subBandCount()) {
                throw new IllegalArgumentException(
                        region.subBandCount() == 0
                                ? region.title() + " has no sub-bands"
                                : region.title() + " has the sub-bands 1 to " + region.subBandCount()
                                        + "; 0 is for gateways that hear all of them");
            }
            return new Now(region, subBand, new MacLayer(region, subBand));
        }
    }

    /** Reads what was chosen. */
    public RadioPlan(SettingStore settings, EngineSettings properties) {
        this.settings = settings;
        RadioSettings chosen = settings.find(NAME, RadioSettings.class)
                .orElseGet(() -> new RadioSettings(properties.region(), properties.subBand()));
        this.now = Now.of(chosen.region(), chosen.subBand());
    }

    public Now now() {
        return now;
    }

    public RadioSettings settings() {
        return new RadioSettings(now.region().id(), now.subBand());
    }

    /**
     * Chooses another band.
     *
     * @throws IllegalArgumentException if there is no such region or sub-band
     */
    public void choose(RadioSettings radio) {
        Now next = Now.of(radio.region(), radio.subBand());
        settings.save(NAME, radio);
        now = next;
    }
}
