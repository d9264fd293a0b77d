package org.openpasture.engine.vibration;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.reading.PointWaveform;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.vibration.Band;
import org.openpasture.core.vibration.Bearing;
import org.openpasture.core.vibration.Envelope;
import org.openpasture.core.vibration.Figures;
import org.openpasture.core.vibration.Finding;
import org.openpasture.core.vibration.Line;
import org.openpasture.core.vibration.Measured;
import org.openpasture.core.vibration.Pattern;
import org.openpasture.core.vibration.Rotation;
import org.openpasture.core.vibration.RunningSpeed;
import org.openpasture.core.vibration.Spectrum;
import org.openpasture.core.vibration.SpectrumKind;
import org.openpasture.core.vibration.Waveform;
import org.openpasture.store.telemetry.TelemetryStore;
import org.openpasture.store.telemetry.Waveforms;
import org.springframework.stereotype.Component;

/** Waveforms of points, their spectra and what these point to. For any thread. */
@Component
public class Vibrations {
    private static final int LINES = 12;
    private static final int HARMONICS = 5;
    /** A speed that was measured longer ago says nothing of a waveform. */
    private static final Duration SPEED_HOLDS = Duration.ofMinutes(10);

    private final TelemetryStore telemetry;

    Vibrations(TelemetryStore telemetry) {
        this.telemetry = telemetry;
    }

    /** The waveforms of a point in a range, newest first. */
    public List<KeptWaveformView> list(Point point, Instant from, Instant until, int most) {
        return telemetry.waveforms().list(point.number(), from, until, most).stream()
                .map(kept -> new KeptWaveformView(kept.time(), kept.samples(), kept.samplesPerSecond(), kept.bytes()))
                .toList();
    }

    /** The newest waveform that began at a moment or before, reduced to about so many values. */
    public Optional<WaveformView> waveform(Registry registry, Point point, Instant at, int most) {
        return telemetry.waveforms().at(point.number(), at).map(found -> {
            Waveform waveform = found.waveform();
            Spectrum spectrum = Spectrum.of(waveform);
            Band band = speed(registry, point, found, spectrum)
                    .map(speed -> Band.ofSpeed(speed.rpm() / 60))
                    .orElse(Band.MACHINES);
            Map<String, Double> figures = new TreeMap<>();
            Figures.of(waveform, spectrum, band).values().forEach((figure, value) -> figures.put(figure.id(), value));
            Reduced reduced = Reduced.lowestAndHighest(waveform, most);
            return new WaveformView(
                    found.time(),
                    waveform.measured().unit(),
                    waveform.length(),
                    waveform.samplesPerSecond(),
                    reduced.at(),
                    reduced.values(),
                    new double[] {band.lowHz(), band.highHz()},
                    figures);
        });
    }

    /**
     * What of a spectrum is wanted.
     *
     * @param band that is shown
     * @param most about how many values
     */
    public record Wanted(SpectrumKind kind, Band band, int most) {}

    /** The spectrum of the newest waveform that began at a moment or before. */
    public Optional<SpectrumView> spectrum(Registry registry, Point point, Instant at, Wanted wanted) {
        return telemetry.waveforms().at(point.number(), at).map(found -> spectrum(registry, point, found, wanted));
    }

    private SpectrumView spectrum(Registry registry, Point point, PointWaveform found, Wanted wanted) {
        Spectrum whole = Spectrum.of(found.waveform());
        Optional<SpectrumView.Speed> speed = speed(registry, point, found, whole);
        Rotation rotation = rotation(registry, point);
        Spectrum shown = shown(found.waveform(), whole, wanted);
        Reduced reduced = Reduced.highest(shown, wanted.band(), wanted.most());
        List<SpectrumView.Marker> markers = new ArrayList<>();
        List<SpectrumView.FindingView> findings = new ArrayList<>();
        speed.ifPresent(turning -> {
            double hz = turning.rpm() / 60;
            for (int i = 1; i <= HARMONICS; i++) {
                markers.add(new SpectrumView.Marker("speed", "", i * hz));
            }
            Band band = Band.ofSpeed(hz);
            Finding.ofShaft(whole.as(Measured.VELOCITY, band), hz)
                    .forEach(finding -> findings.add(view(finding, turning)));
            Spectrum envelope = rotation.bearings().isEmpty()
                    ? whole
                    : Envelope.spectrum(found.waveform(), Envelope.usualBand(found.waveform()));
            for (Bearing bearing : rotation.bearings()) {
                bearing.frequencies(hz)
                        .forEach((part, at) -> markers.add(
                                new SpectrumView.Marker(Pattern.of(part).id(), bearing.name(), at)));
                Finding.ofBearing(envelope, bearing, hz).forEach(finding -> findings.add(view(finding, turning)));
            }
        });
        List<Line> lines = shown.lines(5 * LINES).stream()
                .filter(line -> wanted.band().holds(line.hz()))
                .limit(LINES)
                .toList();
        return new SpectrumView(
                found.time(),
                wanted.kind(),
                shown.measured().unit(),
                shown.stepHz(),
                reduced.at(),
                reduced.values(),
                shown.rmsWithin(wanted.band()),
                speed.orElse(null),
                lines.stream().map(line -> view(line, speed)).toList(),
                markers,
                findings);
    }

    /** Spectra of a range, evenly chosen where there are more than {@code most}. */
    public WaterfallView waterfall(Point point, Instant from, Instant until, Wanted wanted, int rows) {
        List<Waveforms.Kept> all = telemetry.waveforms().list(point.number(), from, until, Integer.MAX_VALUE);
        List<WaterfallView.Row> found = new ArrayList<>();
        double stepHz = (wanted.band().highHz() - wanted.band().lowHz()) / wanted.most();
        String unit = "";
        int count = Math.min(rows, all.size());
        for (int i = count - 1; i >= 0; i--) {
            Instant time = all.get(count == 1 ? 0 : (int) ((long) i * (all.size() - 1) / (count - 1)))
                    .time();
            Optional<PointWaveform> one = telemetry.waveforms().at(point.number(), time);
            if (one.isPresent()) {
                Waveform waveform = one.get().waveform();
                Spectrum shown = shown(waveform, Spectrum.of(waveform), wanted);
                unit = shown.measured().unit();
                found.add(new WaterfallView.Row(
                        one.get().time(), Reduced.grid(shown, wanted.band().lowHz(), stepHz, wanted.most())));
            }
        }
        return new WaterfallView(wanted.kind(), unit, wanted.band().lowHz(), stepHz, found);
    }

    private static Spectrum shown(Waveform waveform, Spectrum whole, Wanted wanted) {
        return switch (wanted.kind()) {
            case VELOCITY -> whole.as(Measured.VELOCITY, wanted.band());
            case ACCELERATION -> whole.as(Measured.ACCELERATION, wanted.band());
            case DISPLACEMENT -> whole.as(Measured.DISPLACEMENT, wanted.band());
            case ENVELOPE -> Envelope.spectrum(waveform, Envelope.usualBand(waveform));
        };
    }

    private static Rotation rotation(Registry registry, Point point) {
        return registry.find(Asset.class, point.placeId()).map(Asset::rotation).orElseGet(Rotation::unknown);
    }

    private Optional<SpectrumView.Speed> speed(Registry registry, Point point, PointWaveform found, Spectrum spectrum) {
        Rotation rotation = rotation(registry, point);
        return measured(registry, rotation, found.time())
                .map(rpm -> new SpectrumView.Speed(rpm, SpectrumView.SpeedSource.MEASURED))
                .or(() -> Optional.ofNullable(rotation.rpm())
                        .map(rpm -> new SpectrumView.Speed(
                                60 * RunningSpeed.near(spectrum, rpm / 60), SpectrumView.SpeedSource.PLATE)))
                .or(() -> RunningSpeed.find(spectrum)
                        .map(hz -> new SpectrumView.Speed(60 * hz, SpectrumView.SpeedSource.FOUND)));
    }

    private Optional<Double> measured(Registry registry, Rotation rotation, Instant at) {
        if (rotation.speedPointId() == null) {
            return Optional.empty();
        }
        return registry.find(Point.class, rotation.speedPointId()).flatMap(point -> {
            SeriesSlice lately = telemetry.series().range(point.number(), at.minus(SPEED_HOLDS), at.plusMillis(1));
            return IntStream.range(0, lately.size())
                    .mapToObj(i -> lately.reading(lately.size() - 1 - i))
                    .filter(reading -> reading.quality() == Quality.GOOD)
                    .findFirst()
                    .map(reading -> Units.convert(reading.value(), point.unit(), "1/min"))
                    .filter(rpm -> rpm.isPresent() && rpm.getAsDouble() >= 1)
                    .map(OptionalDouble::getAsDouble);
        });
    }

    private static SpectrumView.LineView view(Line line, Optional<SpectrumView.Speed> speed) {
        return new SpectrumView.LineView(
                line.hz(),
                line.rms(),
                speed.map(turning -> line.hz() * 60 / turning.rpm()).orElse(null));
    }

    private static SpectrumView.FindingView view(Finding finding, SpectrumView.Speed speed) {
        return new SpectrumView.FindingView(
                finding.pattern(), finding.bearing(), views(finding.lines(), speed), views(finding.sidebands(), speed));
    }

    private static List<SpectrumView.LineView> views(List<Line> lines, SpectrumView.Speed speed) {
        return lines.stream().map(line -> view(line, Optional.of(speed))).toList();
    }
}
