package org.openpasture.service.vibration;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.place.Point;
import org.openpasture.core.vibration.Band;
import org.openpasture.core.vibration.SpectrumKind;
import org.openpasture.core.vibration.Waveform;
import org.openpasture.engine.vibration.Vibrations;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/** Answers about waveforms, for who is signed in and for who has a link. */
@Component
public class VibrationViews {
    private static final Duration USUAL_RANGE = Duration.ofDays(90);
    private static final int MOST_LISTED = 1_000;
    private static final int MOST_STEPS = 10_000;
    private static final int MOST_ROWS = 100;
    private static final int STEPS_OF_A_ROW = 300;
    private final Vibrations vibrations;
    private final RegistryStore registry;
    private final Clock clock;

    VibrationViews(Vibrations vibrations, RegistryStore registry, Clock clock) {
        this.vibrations = vibrations;
        this.registry = registry;
        this.clock = clock;
    }

    /**
     * Which waveforms are kept of a point, newest first.
     *
     * @param limit 1 to 1,000
     */
    public List<KeptWaveformView> list(Point point, @Nullable Instant from, @Nullable Instant until, int limit) {
        TimeRange range = TimeRange.of(from, until, clock.instant(), USUAL_RANGE);
        return vibrations.list(point, range.from(), range.until(), Math.clamp(limit, 1, MOST_LISTED));
    }

    /** The newest waveform at a moment or before; null for now. */
    public WaveformView waveform(Point point, @Nullable Instant at, int most) {
        return vibrations
                .waveform(registry.now(), point, at(at), Math.clamp(most, 2, Waveform.MOST))
                .orElseThrow(VibrationViews::none);
    }

    /** Its spectrum. */
    public SpectrumView spectrum(
            Point point, @Nullable Instant at, String kind, double fromHz, double untilHz, int most) {
        return vibrations
                .spectrum(registry.now(), point, at(at), wanted(kind, fromHz, untilHz, Math.clamp(most, 2, MOST_STEPS)))
                .orElseThrow(VibrationViews::none);
    }

    /** Spectra of a range, one after the other. */
    public WaterfallView waterfall(
            Point point,
            @Nullable Instant from,
            @Nullable Instant until,
            String kind,
            double fromHz,
            double untilHz,
            int rows) {
        TimeRange range = TimeRange.of(from, until, clock.instant(), USUAL_RANGE);
        return vibrations.waterfall(
                point,
                range.from(),
                range.until(),
                wanted(kind, fromHz, untilHz, STEPS_OF_A_ROW),
                Math.clamp(rows, 1, MOST_ROWS));
    }

    private Instant at(@Nullable Instant at) {
        return at == null || at.isAfter(clock.instant().plus(USUAL_RANGE))
                ? clock.instant().plus(USUAL_RANGE)
                : at.isBefore(Instant.EPOCH) ? Instant.EPOCH : at;
    }

    private static Vibrations.Wanted wanted(String kind, double fromHz, double untilHz, int most) {
        try {
            return new Vibrations.Wanted(SpectrumKind.of(kind), new Band(fromHz, untilHz), most);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(String.valueOf(e.getMessage()));
        }
    }

    private static Problem none() {
        return Problem.of(new Edited.Refused(
                Edited.Reason.UNKNOWN,
                "This point has no waveform at that time or before.",
                "Waveforms come from devices whose model describes them under 'waveforms'."));
    }
}
