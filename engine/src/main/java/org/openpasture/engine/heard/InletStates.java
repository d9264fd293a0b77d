package org.openpasture.engine.heard;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Stranger;
import org.openpasture.inlets.message.Condition;
import org.springframework.stereotype.Component;

/**
 * How each inlet is: its condition, what it brought, what it could not use, and who spoke by it that nobody knows.
 * Since the service started.
 */
@Component
public class InletStates {
    private static final int REFUSALS = 50;
    private static final int STRANGERS = 200;

    /** What is remembered of one inlet; guarded by itself. */
    private static final class State {
        private Condition condition = Condition.CONNECTING;
        private String words = "It is being opened.";
        private @Nullable String address;
        private long frames;
        private long refused;
        private long lost;
        private long thinned;
        private long replaced;
        private @Nullable Instant lastAt;
        private @Nullable Arrived newest;
        private final Deque<InletView.Refusal> refusals = new ArrayDeque<>();
        private final Map<String, Stranger> strangers = new LinkedHashMap<>();
        private Instant strangersToldAt = Instant.EPOCH;
    }

    private final Map<String, State> states = new ConcurrentHashMap<>();
    private final Clock clock;

    InletStates(Clock clock) {
        this.clock = clock;
    }

    private State of(String inletId) {
        return states.computeIfAbsent(inletId, id -> new State());
    }

    /** An inlet is in a condition; says whether that is news. */
    public boolean condition(String inletId, Condition condition, String words) {
        State state = of(inletId);
        synchronized (state) {
            boolean news = state.condition != condition || !state.words.equals(words);
            state.condition = condition;
            state.words = words;
            return news;
        }
    }

    /** Where it is reached, once that is known; null when it is closed. */
    public void address(String inletId, @Nullable String address) {
        State state = of(inletId);
        synchronized (state) {
            state.address = address;
        }
    }

    /** A frame came. */
    public void frame(String inletId, Arrived message) {
        State state = of(inletId);
        synchronized (state) {
            state.frames++;
            state.lastAt = clock.instant();
            state.newest = message;
        }
    }

    /** A frame was not worth a record of its own. */
    public void thinned(String inletId) {
        State state = of(inletId);
        synchronized (state) {
            state.thinned++;
        }
    }

    /** Readings took the place of others of the same moment. */
    public void replaced(String inletId, int readings) {
        State state = of(inletId);
        synchronized (state) {
            state.replaced += readings;
        }
    }

    /** A frame, or a part of it, could not be used. */
    public void refused(String inletId, String sender, String reason) {
        State state = of(inletId);
        synchronized (state) {
            state.refused++;
            note(state, sender, reason);
        }
    }

    /** Something came that makes no frame. */
    public void lost(String inletId, String sender, String reason) {
        State state = of(inletId);
        synchronized (state) {
            state.lost++;
            note(state, sender, reason);
        }
    }

    private void note(State state, String sender, String reason) {
        state.refusals.addFirst(new InletView.Refusal(clock.instant(), sender, reason));
        if (state.refusals.size() > REFUSALS) {
            state.refusals.removeLast();
        }
    }

    /**
     * Somebody spoke whom nobody knows; says whether that is news: for the first time, and not one of many in a second.
     */
    public boolean stranger(String inletId, Item.Opened item) {
        String address = item.address();
        State state = of(inletId);
        Instant now = clock.instant();
        synchronized (state) {
            Stranger was = state.strangers.remove(address);
            if (was == null && state.strangers.size() >= STRANGERS) {
                state.strangers.remove(state.strangers.keySet().iterator().next());
            }
            state.strangers.put(
                    address,
                    was == null
                            ? new Stranger(address, now, now, 1, item)
                            : new Stranger(address, was.firstHeard(), now, was.count() + 1, item));
            if (was != null || now.isBefore(state.strangersToldAt.plusSeconds(1))) {
                return false;
            }
            state.strangersToldAt = now;
            return true;
        }
    }

    /** Who was heard and is not known, the newest first. */
    public List<Stranger> strangers(String inletId) {
        State state = of(inletId);
        synchronized (state) {
            return state.strangers.values().stream()
                    .sorted(Comparator.comparing(Stranger::lastHeard).reversed())
                    .toList();
        }
    }

    /** The newest message. */
    public Optional<Arrived> newest(String inletId) {
        State state = of(inletId);
        synchronized (state) {
            return Optional.ofNullable(state.newest);
        }
    }

    public void forget(String inletId) {
        states.remove(inletId);
    }

    /** Why nothing comes by an inlet; empty if something can. */
    public Optional<String> whyDown(String inletId) {
        State state = states.get(inletId);
        if (state == null) {
            return Optional.of("it is gone.");
        }
        synchronized (state) {
            return state.condition == Condition.UP || state.condition == Condition.DEGRADED
                    ? Optional.empty()
                    : Optional.of(state.words);
        }
    }

    /** How an inlet is, for showing. */
    public record Standing(
            String condition,
            String words,
            @Nullable String address,
            long frames,
            long refused,
            long lost,
            long thinned,
            long replaced,
            @Nullable Instant lastAt,
            List<InletView.Refusal> refusals) {}

    public Standing standing(String inletId) {
        State state = of(inletId);
        synchronized (state) {
            return new Standing(
                    state.condition.id(),
                    state.words,
                    state.address,
                    state.frames,
                    state.refused,
                    state.lost,
                    state.thinned,
                    state.replaced,
                    state.lastAt,
                    List.copyOf(state.refusals));
        }
    }
}
