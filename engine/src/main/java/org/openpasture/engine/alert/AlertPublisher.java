package org.openpasture.engine.alert;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BinaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.registry.PersonUnits;
import org.openpasture.core.rule.Round;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.SiteDays;
import org.openpasture.engine.judging.EffectSink;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.engine.notice.MailTokens;
import org.openpasture.engine.notice.NoticeSender;
import org.openpasture.engine.notice.NoticeText;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.alert.AlertView;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/** Carries out what the judging core decided: keeps alerts, puts notices into the outbox, tells open pages. */
@Component
public class AlertPublisher implements EffectSink {
    private final RegistryDatabase database;
    private final RegistryStore registry;
    private final AlertStore alerts;
    private final NoticeStore notices;
    private final NoticeText text;
    private final NoticeSender sender;
    private final AlertViews views;
    private final Watchers live;
    private final List<AlertFollower> followers;
    private final SilenceCause silence;
    private final MailTokens tokens;
    private final Clock clock;

    AlertPublisher(
            RegistryDatabase database,
            RegistryStore registry,
            AlertStore alerts,
            NoticeStore notices,
            NoticeText text,
            NoticeSender sender,
            AlertViews views,
            Watchers live,
            List<AlertFollower> followers,
            SilenceCause silence,
            MailTokens tokens,
            Clock clock) {
        this.silence = silence;
        this.database = database;
        this.registry = registry;
        this.alerts = alerts;
        this.notices = notices;
        this.text = text;
        this.sender = sender;
        this.tokens = tokens;
        this.views = views;
        this.live = live;
        this.followers = followers;
        this.clock = clock;
    }

    /** Alert and notices become durable together. */
    @Override
    public List<String> open() {
        return alerts.open();
    }

    @Override
    public void carryOut(List<Effect> effects) {
        if (effects.isEmpty()) {
            return;
        }
        List<String> changed = database.write(dsl -> {
            List<String> ids = new ArrayList<>();
            for (Effect decided : effects) {
                Effect effect = withCause(decided);
                if (alerts.apply(dsl, effect)) {
                    alertOf(effect).ifPresent(id -> {
                        ids.add(id);
                        followers.forEach(follower -> follower.follow(dsl, effect, () -> alerts.find(dsl, id)));
                        notify(dsl, effect, id);
                    });
                }
            }
            return ids;
        });
        if (!changed.isEmpty()) {
            sender.wake();
        }
        changed.stream().distinct().forEach(this::tell);
    }

    private Effect withCause(Effect effect) {
        return switch (effect) {
            case Effect.Raised(Alert alert) -> new Effect.Raised(silence.of(registry.now(), alert));
            case Effect.RaisedShelved(Alert alert, Shelf shelf) ->
                new Effect.RaisedShelved(silence.of(registry.now(), alert), shelf);
            default -> effect;
        };
    }

    /** Puts messages into the outbox where somebody has to look. */
    private void notify(DSLContext dsl, Effect effect, String alertId) {
        switch (effect) {
            case Effect.Raised(Alert alert) -> notify(dsl, alert, "raised");
            case Effect.Worsened(Instant at, Alert alert) ->
                alerts.find(dsl, alertId)
                        .filter(one -> !alerts.isShelved(dsl, alertId) && !alerts.hadReached(dsl, alert, at))
                        .ifPresent(one -> notify(dsl, one, "worsened/" + at.toEpochMilli()));
            case Effect.Unshelved(String id, Instant at, String person) ->
                alerts.find(dsl, id)
                        .filter(one -> alerts.isUnacknowledged(dsl, id))
                        .ifPresent(one -> notify(dsl, one, "unshelved/" + at.toEpochMilli()));
            case Effect.RaisedShelved raised -> {}
            case Effect.Shelved shelved -> notices.takeBack(dsl, alertId, clock.instant());
            case Effect.Eased eased -> {}
            case Effect.Acknowledged acknowledged -> notices.takeBack(dsl, alertId, clock.instant());
            case Effect.Returned(String id, Instant at, Double value) -> {
                notices.takeBack(dsl, id, clock.instant());
                alerts.find(dsl, id)
                        .filter(one -> !alerts.isShelved(dsl, id))
                        .ifPresent(one -> over(dsl, one, at, value));
            }
            case Effect.Recurred(String id, Instant at) ->
                alerts.find(dsl, id).filter(one -> !alerts.isShelved(dsl, id)).ifPresent(one -> recurred(dsl, one, at));
            case Effect.Latched latched -> {}
            case Effect.Closed closed -> notices.takeBack(dsl, alertId, clock.instant());
            case Effect.Delayed delayed -> {}
            case Effect.Settled settled -> {}
        }
    }

    private void notify(DSLContext dsl, Alert alert, String what) {
        rule(alert).ifPresent(rule -> {
            Instant now = clock.instant();
            Addressees.Reached reached = Addressees.of(registry.now(), alert, rule.recipients(), now);
            tell(dsl, alert, reached.told(), what, "", now);
            laterRounds(dsl, rule, alert, what, reached.allAway());
        });
    }

    /** What comes again, and nobody has acknowledged: who was told that it is over is told that it is not. */
    private void recurred(DSLContext dsl, Alert alert, Instant at) {
        String what = "recurred/" + at.toEpochMilli();
        rule(alert).ifPresent(rule -> {
            if (rule.tellsWhenOver()) {
                Map<String, Instant> wanted = wanted(rule, alert);
                notices.told(dsl, alert.id())
                        .forEach(address -> notices.add(
                                dsl, inTime(notice(alert, what, Recipient.kept(address), NoticeText.AGAIN), wanted)));
            }
            laterRounds(dsl, rule, alert, what, false);
        });
    }

    /** Who was told of an alert is told that it is over, where the rule says so. */
    private void over(DSLContext dsl, Alert alert, Instant at, @Nullable Double value) {
        rule(alert).filter(Rule::tellsWhenOver).ifPresent(rule -> {
            String what = NoticeStore.OVER + at.toEpochMilli();
            Map<String, Instant> wanted = wanted(rule, alert);
            for (String address : notices.told(dsl, alert.id())) {
                String body = isShort(Recipient.kept(address))
                        ? text.shortOver(registry.now(), alert, at)
                        : text.bodyOver(registry.now(), alert, at, value, units(Recipient.kept(address)));
                notices.add(
                        dsl,
                        inTime(
                                waiting(alert, id(alert, what, address), address, text.subjectOver(alert), body),
                                wanted));
            }
        });
    }

    /** When the people behind addresses want a notice that is ready now: after quiet hours, or with the day's. */
    private Map<String, Instant> wanted(Rule rule, Alert alert) {
        List<String> all = Stream.concat(
                        rule.recipients().stream(),
                        rule.rounds().stream().flatMap(round -> round.recipients().stream()))
                .toList();
        return Addressees.of(registry.now(), alert, all, clock.instant()).told().stream()
                .collect(Collectors.toMap(
                        told -> told.address().written(),
                        Ways.Told::notBefore,
                        BinaryOperator.minBy(Comparator.naturalOrder())));
    }

    private static Notice inTime(Notice notice, Map<String, Instant> wanted) {
        Instant from = wanted.getOrDefault(notice.recipient(), notice.createdAt());
        return from.isAfter(notice.createdAt()) ? notice.at(from) : notice;
    }

    private static boolean isShort(Recipient recipient) {
        return recipient instanceof Recipient.Text || recipient instanceof Recipient.OfBrowser;
    }

    /**
     * Further people are told after a while, unless somebody acknowledges. Where everybody is away whom the step before
     * would reach, they are told when those would be. Those of one moment are one step, without who is off duty then.
     */
    private void laterRounds(DSLContext dsl, Rule rule, Alert alert, String what, boolean firstAway) {
        SiteDays days = registry.now().daysOf(alert.placeId());
        int after = 0;
        boolean away = firstAway;
        for (Map.Entry<Integer, List<Round>> step : rule.rounds().stream()
                .collect(Collectors.groupingBy(Round::afterMinutes, TreeMap::new, Collectors.toList()))
                .entrySet()) {
            int turn = away ? after : step.getKey();
            Instant later = clock.instant().plus(Duration.ofMinutes(turn));
            List<String> onDuty = step.getValue().stream()
                    .filter(round -> round.isOnDuty(later, days))
                    .flatMap(round -> round.recipients().stream())
                    .distinct()
                    .toList();
            if (!onDuty.isEmpty()) {
                after = turn;
                Addressees.Reached reached = Addressees.of(registry.now(), alert, onDuty, later);
                String before = after == 0 ? "" : NoticeText.unanswered(after);
                tell(dsl, alert, reached.told(), what + "/after-" + step.getKey(), before, later);
                away = reached.allAway();
            }
        }
    }

    private void tell(DSLContext dsl, Alert alert, List<Ways.Told> all, String what, String before, Instant from) {
        for (Ways.Told told : all) {
            // Of one cause each person has one message.
            if (!alerts.isToldOf(dsl, alert, told.address().written())) {
                Notice notice = notice(alert, what, told.address(), before);
                notices.add(
                        dsl,
                        told.notBefore().isAfter(from) || from.isAfter(notice.createdAt())
                                ? notice.at(told.notBefore())
                                : notice);
            }
        }
    }

    private Optional<Rule> rule(Alert alert) {
        return registry.now().find(Rule.class, alert.ruleId());
    }

    /**
     * A notice of an alert that applies.
     *
     * @param before what stands before its text
     */
    private Notice notice(Alert alert, String occasion, Recipient recipient, String before) {
        String id = id(alert, occasion, recipient.written());
        String body = isShort(recipient)
                ? text.shortBody(registry.now(), alert, before)
                : before + text.body(registry.now(), alert, tokens.of(id), units(recipient));
        return waiting(alert, id, recipient.written(), text.subject(alert), body);
    }

    private DisplayUnits units(Recipient reader) {
        return PersonUnits.ofReader(registry.now(), reader);
    }

    private Notice waiting(Alert alert, String id, String recipient, String subject, String body) {
        return Notice.waiting(id, alert.id(), recipient, subject, body, clock.instant());
    }

    private static String id(Alert alert, String occasion, String recipient) {
        return alert.id() + "/" + occasion + "/" + recipient;
    }

    /** Tells open pages how an alert is now. */
    public void tell(String alertId) {
        Optional<AlertView> view = alerts.find(alertId);
        view.ifPresent(found -> live.publish(
                new LiveEvent("alert", found.alert().placeId(), null, views.answer(registry.now(), found))));
    }

    private static Optional<String> alertOf(Effect effect) {
        return switch (effect) {
            case Effect.Raised(var alert) -> Optional.of(alert.id());
            case Effect.RaisedShelved(var alert, var shelf) -> Optional.of(alert.id());
            case Effect.Shelved shelved -> Optional.of(shelved.alertId());
            case Effect.Unshelved unshelved -> Optional.of(unshelved.alertId());
            case Effect.Worsened(var at, var alert) -> Optional.of(alert.id());
            case Effect.Eased eased -> Optional.of(eased.alertId());
            case Effect.Acknowledged acknowledged -> Optional.of(acknowledged.alertId());
            case Effect.Returned returned -> Optional.of(returned.alertId());
            case Effect.Recurred recurred -> Optional.of(recurred.alertId());
            case Effect.Latched latched -> Optional.of(latched.alertId());
            case Effect.Closed closed -> Optional.of(closed.alertId());
            case Effect.Delayed delayed -> Optional.empty();
            case Effect.Settled settled -> Optional.empty();
        };
    }
}
