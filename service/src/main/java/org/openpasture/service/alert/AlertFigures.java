package org.openpasture.service.alert;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.api.alert.FiguresView;
import org.openpasture.core.alert.AlarmFigures;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.place.Place;
import org.openpasture.core.registry.Registry;
import org.openpasture.store.alert.AlertView;

/** The figures of alerts, for showing. */
final class AlertFigures {
    private static final Duration STALE = Duration.ofHours(24);
    private static final int MOST_STALE = 20;

    private AlertFigures() {}

    /**
     * The figures.
     *
     * @param raised all alerts that may be seen and were raised in the period
     * @param open all that may be seen and are open now
     */
    static FiguresView of(
            Registry registry, List<AlertView> raised, List<AlertView> open, Instant since, Instant until) {
        Map<String, Alert> bySource = new HashMap<>();
        List<AlarmFigures.Came> came = raised.stream()
                .flatMap(view -> {
                    String source = source(view.alert());
                    bySource.put(source, view.alert());
                    return view.steps().stream()
                            .filter(step ->
                                    step.kind() == AlertView.Kind.RAISED || step.kind() == AlertView.Kind.RECURRED)
                            .map(step -> new AlarmFigures.Came(source, step.at()));
                })
                .toList();
        AlarmFigures figures = AlarmFigures.of(came, since, until);
        return new FiguresView(
                since,
                until,
                figures.count(),
                figures.perDay(),
                figures.mostInTenMinutes(),
                100 * figures.floodShare(),
                raised.stream()
                        .collect(Collectors.groupingBy(view -> view.alert().severity(), Collectors.counting())),
                open.stream()
                        .filter(view -> view.returnedAt() == null
                                && view.alert().raisedAt().isBefore(until.minus(STALE)))
                        .sorted(Comparator.comparing(view -> view.alert().raisedAt()))
                        .limit(MOST_STALE)
                        .map(view -> new FiguresView.Stale(
                                view.alert().id(),
                                view.alert().summary(),
                                Duration.between(view.alert().raisedAt(), until).toMinutes() / 60.0))
                        .toList(),
                often(registry, figures.chattering(), bySource, figures.count()),
                often(registry, figures.top(), bySource, figures.count()));
    }

    private static String source(Alert alert) {
        return alert.ruleId() + "\n" + (alert.pointId() == null ? alert.placeId() : alert.pointId());
    }

    private static List<FiguresView.Often> often(
            Registry registry, List<AlarmFigures.Source> sources, Map<String, Alert> bySource, int all) {
        return sources.stream()
                .flatMap(one -> Optional.ofNullable(bySource.get(one.source())).stream()
                        .map(alert -> new FiguresView.Often(
                                alert.ruleName(),
                                registry.place(alert.placeId()).map(Place::name).orElse(""),
                                one.times(),
                                all == 0 ? 0 : 100.0 * one.times() / all)))
                .toList();
    }
}
