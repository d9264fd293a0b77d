package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.openpasture.api.setting.LifeSignSettings;
import org.openpasture.api.setting.LifeSignView;
import org.openpasture.core.outlet.Destination;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.passing.HttpPasser;
import org.openpasture.inlets.passing.Passer;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.setting.SettingStore;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * Says at intervals that this instance works: to an address, and to people. One that cannot be delivered is not tried
 * again, since the next one says more. For any thread.
 */
@Component
public class LifeSign {
    private static final String SETTING = "life-sign";
    private static final String LAST = "life-sign-last";
    private static final Duration LOOK_EVERY = Duration.ofSeconds(2);
    private static final int FAILING = 3;

    private final SettingStore store;
    private final Delivery delivery;
    private final AlertStore alerts;
    private final EngineSettings engine;
    private final Clock clock;
    private final Loop loop = Loop.onVirtualThread("life signs", this::turn);

    /**
     * The last one.
     *
     * @param problem why it did not arrive; empty if it did
     */
    record Last(Instant at, String problem) {}

    LifeSign(SettingStore store, Delivery delivery, AlertStore alerts, EngineSettings engine, Clock clock) {
        this.store = store;
        this.delivery = delivery;
        this.alerts = alerts;
        this.engine = engine;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        loop.start();
    }

    @PreDestroy
    void close() {
        loop.close();
    }

    /** How they are sent, and what became of the last one. */
    public LifeSignView view() {
        Optional<Last> last = store.find(LAST, Last.class);
        return new LifeSignView(
                settings().orElse(null),
                last.map(Last::at).orElse(null),
                last.map(Last::problem).orElse(""));
    }

    /** Sends them in this way from now on; the first one at once. */
    public LifeSignView save(LifeSignSettings next) {
        store.save(SETTING, next);
        send(next);
        return view();
    }

    /** Sends none any more. */
    public void stop() {
        store.remove(SETTING);
        store.remove(LAST);
    }

    private Optional<LifeSignSettings> settings() {
        return store.find(SETTING, LifeSignSettings.class);
    }

    private void turn() throws InterruptedException {
        Thread.sleep(LOOK_EVERY);
        settings()
                .filter(now -> !store.find(LAST, Last.class)
                        .map(Last::at)
                        .map(at -> at.plus(Duration.ofMinutes(now.everyMinutes())))
                        .filter(next -> next.isAfter(clock.instant()))
                        .isPresent())
                .ifPresent(this::send);
    }

    private void send(LifeSignSettings to) {
        Instant now = clock.instant();
        // Before it is sent, so that one that takes long is not sent twice.
        store.save(LAST, new Last(now, ""));
        Instant next = now.plus(Duration.ofMinutes(to.everyMinutes()));
        int open = alerts.openBySeverity().values().stream()
                .mapToInt(Integer::intValue)
                .sum();
        String problem = problem();
        List<String> failed = new ArrayList<>();
        if (to.url() != null) {
            post(to.url(), body(now, next, open, problem)).ifPresent(failed::add);
        }
        String subject = problem.isEmpty() ? "Life sign: works" : "Life sign: works with a problem";
        String text = subject + ". " + open + (open == 1 ? " open alert" : " open alerts")
                + (problem.isEmpty() ? "" : ". " + problem) + ". The next life sign follows until "
                + next.truncatedTo(ChronoUnit.MINUTES) + ".\n";
        for (String recipient : to.recipients()) {
            delivery.send(Notice.waiting(UUID.randomUUID().toString(), null, recipient, subject, text, now))
                    .ifPresent(why -> failed.add(recipient + ": " + why.reason()));
        }
        store.save(LAST, new Last(now, String.join("; ", failed)));
    }

    private byte[] body(Instant now, Instant next, int open, String problem) {
        Map<String, Object> sign = new LinkedHashMap<>();
        sign.put("instance", engine.addressOrEmpty().isEmpty() ? "open-pasture" : engine.addressOrEmpty());
        sign.put("at", now.toString());
        sign.put("nextAt", next.toString());
        sign.put("healthy", problem.isEmpty());
        sign.put("problem", problem);
        sign.put("openAlerts", open);
        return JsonMapper.shared().writeValueAsString(sign).getBytes(StandardCharsets.UTF_8);
    }

    /** What does not work, in words; empty if everything does. */
    private static String problem() {
        return Loop.all().stream()
                .filter(state -> !state.alive() || state.failuresInARow() >= FAILING)
                .map(state -> state.name() + ": " + (state.problem().isEmpty() ? "has ended" : state.problem()))
                .findFirst()
                .orElse("");
    }

    private Optional<String> post(URI url, byte[] body) {
        // Only owners enter this address, and what watches may well stand beside this machine.
        try (HttpPasser passer = new HttpPasser(new Destination.HttpPost(url, true), Map.of(), Reach.ANYWHERE, clock)) {
            passer.pass(new Passer.Message("", "application/json", body));
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of(String.valueOf(e.getMessage()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.of("the service is being stopped");
        }
    }
}
