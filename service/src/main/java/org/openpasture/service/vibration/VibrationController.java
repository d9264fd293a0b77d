package org.openpasture.service.vibration;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.service.access.Reader;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Waveforms of points and their spectra. */
@RestController
class VibrationController {
    private final Reader reader;
    private final VibrationViews views;

    VibrationController(Reader reader, VibrationViews views) {
        this.reader = reader;
        this.views = views;
    }

    /**
     * Which waveforms are kept of a point, newest first.
     *
     * @param from null for 90 days before {@code until}
     * @param until null for now
     * @param limit 1 to 1,000
     */
    @GetMapping("/api/v1/points/{id}/waveforms")
    List<KeptWaveformView> waveforms(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "100") int limit) {
        return views.list(reader.point(id), from, until, limit);
    }

    /**
     * A waveform with its figures.
     *
     * @param at the newest that began then or before; null for the newest
     * @param most it is reduced to about so many values, lowest and highest of each group kept; 65,536 for all
     */
    @GetMapping("/api/v1/points/{id}/waveform")
    WaveformView waveform(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant at,
            @RequestParam(defaultValue = "2000") int most) {
        return views.waveform(reader.point(id), at, most);
    }

    /**
     * The spectrum of a waveform, with the lines that stand out and what they usually point to.
     *
     * @param at of the newest waveform that began then or before; null for the newest
     * @param kind velocity, acceleration, displacement or envelope
     * @param fromHz where the band that is shown begins, above 0
     * @param untilHz where it ends
     * @param most it is reduced to about so many values, the highest of each group kept
     */
    @GetMapping("/api/v1/points/{id}/spectrum")
    SpectrumView spectrum(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant at,
            @RequestParam(defaultValue = "velocity") String kind,
            @RequestParam(defaultValue = "10") double fromHz,
            @RequestParam(defaultValue = "1000") double untilHz,
            @RequestParam(defaultValue = "1500") int most) {
        return views.spectrum(reader.point(id), at, kind, fromHz, untilHz, most);
    }

    /**
     * Spectra of a range one after the other, evenly chosen where there are more.
     *
     * @param from null for 90 days before {@code until}
     * @param until null for now
     * @param kind velocity, acceleration, displacement or envelope
     * @param fromHz where the band that is shown begins, above 0
     * @param untilHz where it ends
     * @param rows how many spectra at most, 1 to 100
     */
    @GetMapping("/api/v1/points/{id}/waterfall")
    WaterfallView waterfall(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "velocity") String kind,
            @RequestParam(defaultValue = "10") double fromHz,
            @RequestParam(defaultValue = "1000") double untilHz,
            @RequestParam(defaultValue = "40") int rows) {
        return views.waterfall(reader.point(id), from, until, kind, fromHz, untilHz, rows);
    }
}
