package org.openpasture.service.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.openpasture.engine.live.LiveEvent;

class LiveHubTest {
    private final LiveHub hub = new LiveHub();

    /** A page that never reads must not hold up who publishes: this would hang or run out of memory otherwise. */
    @Test
    void aPageThatDoesNotReadHoldsNobodyUp() {
        hub.open(Set.of("reading"), event -> true);
        for (int i = 0; i < 200_000; i++) {
            hub.publish(new LiveEvent("reading", "place", "point", Map.of("n", i)));
        }
        assertThat(hub.hasSubscribers()).isTrue();
        hub.close();
    }

    @Test
    void onlyWhatIsWantedAndMayBeKnownIsAskedAbout() {
        int[] asked = {0};
        hub.open(Set.of("alert"), event -> {
            asked[0]++;
            return false;
        });
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
