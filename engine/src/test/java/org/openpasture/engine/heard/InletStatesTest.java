package org.openpasture.engine.heard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Stranger;
import org.openpasture.engine.TestClock;
import org.openpasture.inlets.message.Condition;

class InletStatesTest {
    private final TestClock clock = new TestClock();
    private final InletStates states = new InletStates(clock);

    private boolean hear(String address) {
        return states.stranger("yard", Item.Opened.of(address, new byte[] {1}));
    }

    @Test
    void aConditionIsNewsOnce() {
        assertThat(states.condition("yard", Condition.UP, "Nobody is connected."))
                .isTrue();
        assertThat(states.condition("yard", Condition.UP, "Nobody is connected."))
                .isFalse();
        assertThat(states.condition("yard", Condition.UP, "One is connected.")).isTrue();
        assertThat(states.condition("yard", Condition.DOWN, "One is connected."))
                .isTrue();
    }

    @Test
    void strangersAreCountedTheNewestFirst() {
        assertThat(hear("a")).isTrue();
        clock.pass(Duration.ofSeconds(2));
        assertThat(hear("b")).isTrue();
        clock.pass(Duration.ofSeconds(2));
        assertThat(hear("a")).as("known as a stranger").isFalse();
        assertThat(states.strangers("yard")).extracting(Stranger::address).containsExactly("a", "b");
        assertThat(states.strangers("yard").getFirst().count()).isEqualTo(2);
        assertThat(Duration.between(
                        states.strangers("yard").getFirst().firstHeard(),
                        states.strangers("yard").getFirst().lastHeard()))
                .isEqualTo(Duration.ofSeconds(4));
    }

    /**
     * Whoever looks at the page is not told thousands of times in a second, and the list does not grow without an end.
     */
    @Test
    void aFloodOfStrangersIsBoundedAndToldOnceASecond() {
        int told = 0;
        for (int i = 0; i < 5_000; i++) {
            told += hear("s" + i) ? 1 : 0;
        }
        assertThat(told).isEqualTo(1);
        assertThat(states.strangers("yard"))
                .hasSize(200)
                .extracting(Stranger::address)
                .contains("s4999")
                .doesNotContain("s0");
        clock.pass(Duration.ofSeconds(1));
        assertThat(hear("t")).isTrue();
    }

    @Test
    void whatCannotBeUsedIsCountedAndTheNewestFewAreShown() {
        states.frame("yard", new Arrived(new byte[] {7}, "10.0.0.9", Map.of()));
        for (int i = 0; i < 60; i++) {
            states.refused("yard", "10.0.0.9", "reason " + i);
        }
        states.lost("yard", "10.0.0.8", "noise");
        states.thinned("yard");
        InletStates.Standing standing = states.standing("yard");
        assertThat(new long[] {standing.frames(), standing.refused(), standing.lost(), standing.thinned()})
                .containsExactly(1, 60, 1, 1);
        assertThat(standing.refusals()).hasSize(50).first().satisfies(one -> assertThat(one.reason())
                .isEqualTo("noise"));
        assertThat(states.newest("yard"))
                .hasValueSatisfying(message -> assertThat(message.sender()).isEqualTo("10.0.0.9"));
    }

    @Test
    void anInletThatIsGoneIsForgotten() {
        states.address("yard", "TCP port 4001");
        hear("a");
        states.forget("yard");
        assertThat(states.strangers("yard")).isEmpty();
        assertThat(states.standing("yard").address()).isNull();
    }
}
