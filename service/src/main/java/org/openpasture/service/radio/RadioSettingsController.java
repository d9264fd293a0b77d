package org.openpasture.service.radio;

import java.util.List;
import org.openpasture.api.setting.RadioSettings;
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

    /** A region that can be chosen. */
    record RegionView(String id, String title, int subBands) {}

    @GetMapping("/api/v1/regions")
    List<RegionView> regions() {
        reader.person();
        return Region.SHIPPED.stream()
                .map(Region::shipped)
                .map(region -> new RegionView(region.id(), region.title(), region.subBandCount()))
                .toList();
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
