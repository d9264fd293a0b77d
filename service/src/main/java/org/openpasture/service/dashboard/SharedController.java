package org.openpasture.service.dashboard;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.api.dashboard.PasscodeEntry;
import org.openpasture.api.place.PlanView;
import org.openpasture.api.reading.DistributionView;
import org.openpasture.api.reading.ExposureView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.PanelPoints;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.CameraEdits;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.service.camera.CameraPictures;
import org.openpasture.service.place.PlanViews;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.reading.SeriesViews;
import org.openpasture.service.vibration.VibrationViews;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is behind a read-only link: a dashboard and what its panels show, without an account. */
@RestController
class SharedController {
    private final SharedLinks links;
    private final DashboardViews views;
    private final SeriesViews series;
    private final VibrationViews vibrations;
    private final PlanViews plans;
    private final CameraPictures cameras;
    private final LinkOpenings openings;

    SharedController(
            SharedLinks links,
            DashboardViews views,
            SeriesViews series,
            VibrationViews vibrations,
            PlanViews plans,
            CameraPictures cameras,
            LinkOpenings openings) {
        this.links = links;
        this.views = views;
        this.series = series;
        this.vibrations = vibrations;
        this.plans = plans;
        this.cameras = cameras;
        this.openings = openings;
    }

    /** Enters the passcode of a link, which then is open for twelve hours in this browser. */
    @PostMapping("/api/v1/shared/{token}/passcode")
    ResponseEntity<Void> enter(@PathVariable String token, @RequestBody PasscodeEntry entry) {
        return ResponseEntity.noContent()
                .header(HttpHeaders.SET_COOKIE, links.enter(token, Objects.requireNonNull(entry.passcode())))
                .build();
    }

    /**
     * The dashboard behind a link, without an account. It counts as an opening of the link, unless {@code again} says
     * that a page that is open asks again.
     */
    @GetMapping("/api/v1/shared/{token}")
    DashboardView shared(@PathVariable String token, @RequestParam(defaultValue = "false") boolean again) {
        SharedLinks.Shared shared = links.open(token);
        if (!again) {
            openings.count(shared.link().id());
        }
        return views.view(shared.access(), shared.dashboard(), false);
    }

    /** Readings of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/readings")
    SeriesView readings(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "600") int buckets) {
        return series.series(point(token, pointId), from, until, buckets);
    }

    /** Summaries by calendar period of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/summaries")
    List<SummaryView> summaries(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(defaultValue = "day") String period,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        return series.summaries(point(token, pointId), period, from, until);
    }

    /** What the readings of a range come to, of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/summary")
    SummaryView summary(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        return series.summary(point(token, pointId), from, until);
    }

    /** For how long the value of a point on the dashboard behind a link lay where. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/distribution")
    DistributionView distribution(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "40") int classes) {
        return series.distribution(point(token, pointId), from, until, classes);
    }

    /** The running mean of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/exposure")
    ExposureView exposure(
            @PathVariable String token, @PathVariable String pointId, @RequestParam(defaultValue = "480") int minutes) {
        return series.exposure(point(token, pointId), minutes);
    }

    /** Which waveforms are kept of a point on the dashboard behind a link, newest first. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/waveforms")
    List<KeptWaveformView> waveforms(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "100") int limit) {
        return vibrations.list(point(token, pointId), from, until, limit);
    }

    /** A waveform of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/waveform")
    WaveformView waveform(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant at,
            @RequestParam(defaultValue = "2000") int most) {
        return vibrations.waveform(point(token, pointId), at, most);
    }

    /** The spectrum of a point on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/spectrum")
    SpectrumView spectrum(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant at,
            @RequestParam(defaultValue = "velocity") String kind,
            @RequestParam(defaultValue = "10") double fromHz,
            @RequestParam(defaultValue = "1000") double untilHz,
            @RequestParam(defaultValue = "1500") int most) {
        return vibrations.spectrum(point(token, pointId), at, kind, fromHz, untilHz, most);
    }

    /** Spectra of a point on the dashboard behind a link, one after the other. */
    @GetMapping("/api/v1/shared/{token}/points/{pointId}/waterfall")
    WaterfallView waterfall(
            @PathVariable String token,
            @PathVariable String pointId,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "velocity") String kind,
            @RequestParam(defaultValue = "10") double fromHz,
            @RequestParam(defaultValue = "1000") double untilHz,
            @RequestParam(defaultValue = "40") int rows) {
        return vibrations.waterfall(point(token, pointId), from, until, kind, fromHz, untilHz, rows);
    }

    /** The picture of a place on the dashboard behind a link, with what is marked on it. */
    @GetMapping("/api/v1/shared/{token}/plans/{placeId}")
    PlanView plan(@PathVariable String token, @PathVariable String placeId) {
        return plans.view(withPlan(token, placeId), placeId);
    }

    /** The picture itself. */
    @GetMapping("/api/v1/shared/{token}/plans/{placeId}/picture")
    ResponseEntity<byte[]> picture(@PathVariable String token, @PathVariable String placeId) {
        withPlan(token, placeId);
        return plans.picture(placeId);
    }

    /** The newest picture of a camera on the dashboard behind a link. */
    @GetMapping("/api/v1/shared/{token}/cameras/{cameraId}/picture")
    ResponseEntity<byte[]> camera(@PathVariable String token, @PathVariable String cameraId)
            throws InterruptedException {
        SharedLinks.Shared shared = links.open(token);
        return cameras.picture(shared.dashboard().panels().stream()
                .filter(panel ->
                        panel instanceof Panel.FromCamera of && of.cameraId().equals(cameraId))
                .findFirst()
                .flatMap(panel -> CameraEdits.find(shared.access(), cameraId))
                .orElseThrow(() -> Problem.notFound("camera on this dashboard")));
    }

    private Access withPlan(String token, String placeId) {
        SharedLinks.Shared shared = links.open(token);
        boolean isOn = shared.dashboard().panels().stream()
                .filter(Panel.OnPlan.class::isInstance)
                .map(panel -> panel.frame().selection())
                .anyMatch(selection -> selection != null && selection.placeId().equals(placeId));
        if (!isOn || !shared.access().may(Right.LOOK, placeId)) {
            throw Problem.notFound("picture on this dashboard");
        }
        return shared.access();
    }

    private Point point(String token, String pointId) {
        SharedLinks.Shared shared = links.open(token);
        return PanelPoints.of(shared.access(), shared.dashboard()).stream()
                .filter(on -> on.id().equals(pointId))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("point on this dashboard"));
    }
}
