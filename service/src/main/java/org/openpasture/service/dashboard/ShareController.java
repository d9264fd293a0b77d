package org.openpasture.service.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.api.dashboard.ShareRequest;
import org.openpasture.api.dashboard.ShareView;
import org.openpasture.api.place.PlanView;
import org.openpasture.api.reading.ExposureView;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.api.reading.SummaryView;
import org.openpasture.api.vibration.KeptWaveformView;
import org.openpasture.api.vibration.SpectrumView;
import org.openpasture.api.vibration.WaterfallView;
import org.openpasture.api.vibration.WaveformView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.PanelPoints;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.LinkEdits;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.place.PlanViews;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.reading.SeriesViews;
import org.openpasture.service.vibration.VibrationViews;
import org.openpasture.service.web.Addresses;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Read-only links to dashboards. A link shows what its maker may see, and ends when it is withdrawn. */
@RestController
class ShareController {
    private final RegistryStore registry;
    private final DashboardViews views;
    private final SeriesViews series;
    private final VibrationViews vibrations;
    private final PlanViews plans;
    private final Reader reader;
    private final Editor editor;
    private final LinkOpenings openings;
    private final Addresses addresses;
    private final Clock clock;

    ShareController(
            RegistryStore registry,
            DashboardViews views,
            SeriesViews series,
            VibrationViews vibrations,
            PlanViews plans,
            Reader reader,
            Editor editor,
            LinkOpenings openings,
            Addresses addresses,
            Clock clock) {
        this.registry = registry;
        this.views = views;
        this.series = series;
        this.vibrations = vibrations;
        this.plans = plans;
        this.reader = reader;
        this.editor = editor;
        this.openings = openings;
        this.addresses = addresses;
        this.clock = clock;
    }

    /** Links that the reader made; an owner sees all. */
    @GetMapping("/api/v1/links")
    List<ShareView> list() {
        Access access = reader.access();
        return access.registry().all(ShareLink.class).stream()
                .filter(link -> access.mayManageInstance()
                        || link.createdBy().equals(access.person().id())
                                && (access.scope().isAll()
                                        || access.registry()
                                                .find(Dashboard.class, link.dashboardId())
                                                .filter(dashboard -> access.may(Right.LOOK, dashboard))
                                                .isPresent()))
                .map(link -> view(link, null))
                .toList();
    }

    private ShareView view(ShareLink link, @Nullable String address) {
        LinkOpenings.Openings opened = openings.of(link.id());
        return new ShareView(
                link.id(),
                link.dashboardId(),
                registry.now()
                        .find(Dashboard.class, link.dashboardId())
                        .map(Dashboard::name)
                        .orElse(""),
                link.note(),
                link.createdAt(),
                link.until(),
                address,
                opened.times(),
                opened.last());
    }

    /** Makes a link; its address is in the answer and nowhere else. */
    @PostMapping("/api/v1/dashboards/{id}/links")
    @ResponseStatus(HttpStatus.CREATED)
    ShareView make(@PathVariable String id, @RequestBody ShareRequest request, HttpServletRequest http) {
        String token = Tokens.fresh();
        Instant now = clock.instant();
        ShareLink link = new ShareLink(
                Accounts.newId(),
                id,
                Tokens.hash(token),
                request.note() == null ? "" : request.note(),
                now,
                now.plus(Duration.ofDays(Objects.requireNonNull(request.days()))),
                reader.person().id());
        editor.edit(access -> LinkEdits.make(access, link));
        return view(link, addresses.of(http) + "/shared/" + token);
    }

    /** Withdraws a link; whoever has it sees nothing from now on. */
    @DeleteMapping("/api/v1/links/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable String id) {
        reader.requireScope(Right.EDIT, "withdraw a link");
        editor.edit(access -> LinkEdits.withdraw(access, id));
    }

    /**
     * The dashboard behind a link, without an account. It counts as an opening of the link, unless {@code again} says
     * that a page that is open asks again.
     */
    @GetMapping("/api/v1/shared/{token}")
    DashboardView shared(@PathVariable String token, @RequestParam(defaultValue = "false") boolean again) {
        Shared shared = open(token);
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

    private Access withPlan(String token, String placeId) {
        Shared shared = open(token);
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
        Shared shared = open(token);
        return PanelPoints.of(shared.access(), shared.dashboard()).stream()
                .filter(on -> on.id().equals(pointId))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("point on this dashboard"));
    }

    private record Shared(ShareLink link, Access access, Dashboard dashboard) {}

    private Shared open(String token) {
        Registry now = registry.now();
        String hash = Tokens.hash(token);
        ShareLink link = now.all(ShareLink.class).stream()
                .filter(kept -> kept.tokenHash().equals(hash) && kept.isOpenAt(clock.instant()))
                .findFirst()
                .orElseThrow(() ->
                        Problem.gone("This link was withdrawn or has ended.", "Ask who gave it to you for a new one."));
        Person maker = now.find(Person.class, link.createdBy())
                .orElseThrow(() -> Problem.gone("This link has ended.", "Ask who gave it to you for a new one."));
        Access access = new Access(now, maker);
        Dashboard dashboard = now.find(Dashboard.class, link.dashboardId())
                .filter(found -> access.may(Right.LOOK, found))
                .orElseThrow(() -> Problem.gone(
                        "The dashboard behind this link is gone.", "Ask who gave it to you for a new one."));
        return new Shared(link, access, dashboard);
    }
}
