package org.openpasture.service.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.service.access.Accounts;

class LiveHubTest {
    private final LiveHub hub = new LiveHub();

    private static LiveHub.Reader reader(Predicate<LiveEvent> mayKnow) {
        return new LiveHub.Reader("ann", "her session", () -> true, mayKnow);
    }

    @Test
    void aStreamEndsWithItsSession() {
        hub.open(Set.of("alert"), reader(event -> true));
        hub.ended(new Accounts.SessionEnded("another session"));
        assertThat(hub.hasSubscribers()).isTrue();
        hub.ended(new Accounts.SessionEnded("her session"));
        await(() -> !hub.hasSubscribers());
    }

    @Test
    void anAccountHasOnlySoManyPagesOpen() {
        for (int i = 0; i < 30; i++) {
            hub.open(Set.of("alert"), reader(event -> true));
        }
        assertThatThrownBy(() -> hub.open(Set.of("alert"), reader(event -> true)))
                .hasMessage("Too many pages are open at once.");
        assertThatCode(() -> hub.open(Set.of("alert"), new LiveHub.Reader("bob", "his", () -> true, event -> true)))
                .doesNotThrowAnyException();
        hub.close();
    }

    /** While the service stops, the sessions' file is closed before the last stream has ended. */
    @Test
    void aStreamWhoseSessionCannotBeAskedForEndsAndNothingElse() {
        AtomicReference<Throwable> uncaught = new AtomicReference<>();
        Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();
        Thread.setDefaultUncaughtExceptionHandler((thread, error) -> uncaught.set(error));
        try {
            hub.open(
                    Set.of("alert"),
                    new LiveHub.Reader(
                            "ann",
                            "hers",
                            () -> {
                                throw new IllegalArgumentException("the file is closed");
                            },
                            event -> true));
            await(() -> !hub.hasSubscribers());
            assertThat(uncaught.get()).isNull();
        } finally {
            Thread.setDefaultUncaughtExceptionHandler(before);
        }
    }

    private static void await(BooleanSupplier condition) {
        long until = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean() && System.nanoTime() < until) {
            Thread.onSpinWait();
        }
        assertThat(condition.getAsBoolean()).isTrue();
    }

    /** A page that never reads must not hold up who publishes: this would hang or run out of memory otherwise. */
    @Test
    void aPageThatDoesNotReadHoldsNobodyUp() {
        hub.open(Set.of("reading"), reader(event -> true));
        for (int i = 0; i < 200_000; i++) {
            hub.publish(new LiveEvent("reading", "place", "point", Map.of("n", i)));
        }
        assertThat(hub.hasSubscribers()).isTrue();
        hub.close();
    }

    @Test
    void onlyWhatIsWantedAndMayBeKnownIsAskedAbout() {
        int[] asked = {0};
        hub.open(Set.of("alert"), reader(event -> {
            asked[0]++;
            return false;
        }));
        hub.publish(new LiveEvent("reading", "place", "point", Map.of()));
        hub.publish(new LiveEvent("alert", "place", null, Map.of()));
        assertThat(asked[0]).isEqualTo(1);
        hub.close();
    }

    @Test
    void withoutPagesThereIsNothingToDo() {
        assertThat(hub.hasSubscribers()).isFalse();
        hub.publish(new LiveEvent("alert", null, null, Map.of()));
    }
}
