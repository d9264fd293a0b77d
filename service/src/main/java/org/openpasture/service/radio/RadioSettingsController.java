package org.openpasture.service.radio;

import java.util.List;
import org.openpasture.api.setting.RadioSettings;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Region;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.service.access.Reader;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The band that the radio network works in. */
@RestController
class RadioSettingsController {
    private final RadioPlan plan;
    private final Reader reader;

    RadioSettingsController(RadioPlan plan, Reader reader) {
        this.plan = plan;
        this.reader = reader;
    }

    /**
     * A region that can be chosen.
     *
     * @param dataRates of downlinks, "SF9BW125"
     * @param rx2Mhz of the second window, unless the settings say otherwise
     * @param rx1Offsets the highest offset of the first window's data rate
     * @param dwellTime whether it has a limit of the dwell time
     */
    record RegionView(
            String id,
            String title,
            int subBands,
            List<String> dataRates,
            double rx2Mhz,
            String rx2DataRate,
            int rx1Offsets,
            boolean dwellTime) {
        static RegionView of(Region region) {
            return new RegionView(
                    region.id(),
                    region.title(),
                    region.subBandCount(),
                    region.dataRates().stream().map(DataRate::code).distinct().toList(),
                    region.rx2FrequencyHz() / 1e6,
                    region.rx2().code(),
                    region.highestRx1Offset(),
                    region.knowsDwellTime());
        }
    }

    @GetMapping("/api/v1/regions")
    List<RegionView> regions() {
        reader.person();
        return Region.SHIPPED.stream().map(Region::shipped).map(RegionView::of).toList();
    }

    @GetMapping("/api/v1/settings/radio")
    RadioSettings settings() {
        reader.person();
        return plan.settings();
    }

    /** Chooses another band; devices that have joined must join again where theirs changes. */
    @PutMapping("/api/v1/settings/radio")
    RadioSettings choose(@RequestBody RadioSettings settings) {
        reader.requireOwner("change the radio band");
        plan.choose(settings);
        return plan.settings();
    }
}
