package org.openpasture.service.metrics;

import io.prometheus.metrics.expositionformats.OpenMetricsTextFormatWriter;
import io.prometheus.metrics.model.snapshots.CounterSnapshot;
import io.prometheus.metrics.model.snapshots.GaugeSnapshot;
import io.prometheus.metrics.model.snapshots.Labels;
import io.prometheus.metrics.model.snapshots.MetricSnapshot;
import io.prometheus.metrics.model.snapshots.MetricSnapshots;
import io.prometheus.metrics.model.snapshots.SummarySnapshot;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.engine.outlet.PassingDesk;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.telemetry.Commits;
import org.openpasture.store.telemetry.Space;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * How the service goes, as OpenMetrics text. It is for owners and their API tokens, since it counts what there is at
 * all places.
 */
@RestController
class MetricsController {
    private final TelemetryStore telemetry;
    private final RegistryDatabase database;
    private final AlertStore alerts;
    private final NoticeStore notices;
    private final PassingDesk passing;
    private final InletStates states;
    private final Reader reader;

    MetricsController(
            TelemetryStore telemetry,
            RegistryDatabase database,
            AlertStore alerts,
            NoticeStore notices,
            PassingDesk passing,
            InletStates states,
            Reader reader) {
        this.telemetry = telemetry;
        this.database = database;
        this.alerts = alerts;
        this.notices = notices;
        this.passing = passing;
        this.states = states;
        this.reader = reader;
    }

    /** Numbers of records, queues, alerts, notices and the loops that run without a request. */
    @GetMapping("/api/v1/metrics")
    ResponseEntity<byte[]> metrics() throws IOException {
        if (!reader.person().owner() || !reader.scope().places().isEmpty()) {
            throw Problem.forbidden("see the metrics; they need an owner, or an API token of an owner");
        }
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        OpenMetricsTextFormatWriter.create().write(text, new MetricSnapshots(numbers(reader.now())));
        return ResponseEntity.ok()
                .header("Content-Type", OpenMetricsTextFormatWriter.CONTENT_TYPE)
                .body(text.toByteArray());
    }

    private List<MetricSnapshot> numbers(Registry now) {
        Space space = telemetry.space();
        List<MetricSnapshot> all = new ArrayList<>();
        all.add(gauge("readings", "Readings in the record.", telemetry.series().readingCount()));
        all.add(gauge(
                "readings_waiting",
                "Of them in memory and journal, not yet in chunks.",
                telemetry.series().waiting()));
        all.add(gauge("readings_per_day", "That came in live, by the last day.", space.readingsPerDay()));
        all.add(gauge("frames", "Frames in the frame log.", space.frames()));
        all.add(gauge("file_bytes", "The records' files on the disk.", space.fileBytes() + database.bytes()));
        all.add(gauge("disk_free_bytes", "Room left on the disk.", space.freeBytes()));
        all.add(gauge(
                "storage_trouble",
                "1 while records cannot be written.",
                telemetry.trouble().isPresent() || database.trouble().isPresent() ? 1 : 0));
        Commits commits = telemetry.commits();
        all.add(SummarySnapshot.builder()
                .name("pasture_commit_seconds")
                .help("Commits of readings and frames, and how long they took.")
                .dataPoint(SummarySnapshot.SummaryDataPointSnapshot.builder()
                        .count(commits.count())
                        .sum(commits.took().toNanos() / 1e9)
                        .build())
                .build());
        all.add(counter("commits_failed", "Commits that failed.", commits.failed()));
        all.add(gauge("commits_waiting", "What waits to be committed.", telemetry.depositsWaiting()));
        all.add(inlets(now));
        all.add(gauge(
                "registered",
                "What is registered.",
                "kind",
                Map.of(
                        "gateway", (double) now.all(Gateway.class).size(),
                        "device", (double) now.all(Device.class).size(),
                        "point", (double) now.all(Point.class).size(),
                        "rule", (double) now.all(Rule.class).size())));
        all.add(gauge(
                "alerts_open",
                "Alerts that are not closed.",
                "severity",
                alerts.openBySeverity().entrySet().stream()
                        .collect(Collectors.toMap(entry -> entry.getKey().id(), entry -> entry.getValue()
                                .doubleValue()))));
        all.add(gauge(
                "notices",
                "Notices by what became of them.",
                "state",
                notices.counts().entrySet().stream()
                        .collect(Collectors.toMap(entry -> entry.getKey().id(), entry -> entry.getValue()
                                .doubleValue()))));
        all.add(gauge(
                "outlet_waiting",
                "Messages that wait for an outlet.",
                "outlet",
                now.all(Outlet.class).stream().collect(Collectors.toMap(Outlet::id, outlet ->
                        (double) passing.standing(outlet).waiting()))));
        Map<String, List<Loop.State>> loops =
                Loop.all().stream().collect(Collectors.groupingBy(Loop.State::name, TreeMap::new, Collectors.toList()));
        all.add(gauge(
                "loop_up",
                "1 while a loop runs.",
                "loop",
                each(loops, of -> of.stream().allMatch(Loop.State::alive) ? 1 : 0)));
        all.add(gauge("loop_failures_in_a_row", "Since it went well last.", "loop", each(loops, of -> of.stream()
                .mapToInt(Loop.State::failuresInARow)
                .max()
                .orElse(0))));
        CounterSnapshot.Builder failures =
                CounterSnapshot.builder().name("pasture_loop_failures").help("Failures of a loop since the start.");
        loops.forEach((name, of) -> failures.dataPoint(count(
                Labels.of("loop", name),
                of.stream().mapToLong(Loop.State::failures).sum())));
        all.add(failures.build());
        return all;
    }

    /** What came by the inlets since the start, by what became of it. */
    private CounterSnapshot inlets(Registry now) {
        CounterSnapshot.Builder came =
                CounterSnapshot.builder().name("pasture_inlet_messages").help("What came by an inlet since the start.");
        for (Inlet inlet : now.all(Inlet.class)) {
            InletStates.Standing standing = states.standing(inlet.id());
            Map.of(
                            "taken", standing.frames(),
                            "refused", standing.refused(),
                            "lost", standing.lost(),
                            "thinned", standing.thinned())
                    .forEach((outcome, number) ->
                            came.dataPoint(count(Labels.of("inlet", inlet.id(), "outcome", outcome), number)));
        }
        return came.build();
    }

    private static CounterSnapshot counter(String name, String help, double value) {
        return CounterSnapshot.builder()
                .name("pasture_" + name)
                .help(help)
                .dataPoint(count(Labels.EMPTY, value))
                .build();
    }

    private static CounterSnapshot.CounterDataPointSnapshot count(Labels labels, double value) {
        return CounterSnapshot.CounterDataPointSnapshot.builder()
                .labels(labels)
                .value(value)
                .build();
    }

    private static Map<String, Double> each(
            Map<String, List<Loop.State>> loops, Function<List<Loop.State>, Integer> number) {
        return loops.entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, entry -> number.apply(entry.getValue())
                        .doubleValue()));
    }

    private static GaugeSnapshot gauge(String name, String help, double value) {
        return GaugeSnapshot.builder()
                .name("pasture_" + name)
                .help(help)
                .dataPoint(GaugeSnapshot.GaugeDataPointSnapshot.builder()
                        .value(value)
                        .build())
                .build();
    }

    private static GaugeSnapshot gauge(String name, String help, String label, Map<String, Double> values) {
        GaugeSnapshot.Builder gauge =
                GaugeSnapshot.builder().name("pasture_" + name).help(help);
        new TreeMap<>(values)
                .forEach((key, value) -> gauge.dataPoint(GaugeSnapshot.GaugeDataPointSnapshot.builder()
                        .labels(Labels.of(label, key))
                        .value(value)
                        .build()));
        return gauge.build();
    }
}
