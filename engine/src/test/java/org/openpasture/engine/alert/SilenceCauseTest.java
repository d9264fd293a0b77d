package org.openpasture.engine.alert;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.heard.TestGateways;

class SilenceCauseTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final Eui64 MAST = Eui64.of("02ab54fffe10a001");
    private Instant now = START;
    private final Clock clock = ((InstantSource) () -> now).withZone(ZoneOffset.UTC);
    private final GatewayStates gateways = TestGateways.states(clock);
    private final SilenceCause cause = new SilenceCause(gateways);

    private static final Alert ALERT = new Alert(
            "r-1",
            "r",
            "Silent",
            Severity.ADVISORY,
            "s",
            "p",
            START,
            START,
            START,
            null,
            "mm/s",
            "not heard for 5 min",
            "Whey pump: axial vibration not heard for 5 min",
            "");

    private static Registry registry(Condition condition) {
        return Registry.of(List.of(
                new Site("s", "Creamery", ZoneOffset.UTC, null),
                new Gateway("g", "Mast", MAST, "s"),
                new Point("p", 1, "axial", "s", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, true),
                new Assignment("a", "d", "axial", "p", START, null, null),
                new Rule(
                        "r",
                        "Silent",
                        new Target.OfPoint("p"),
                        condition,
                        new Hold.ForTime(0),
                        0,
                        Severity.ADVISORY,
                        true,
                        List.of(),
                        "")));
    }

    private void heard() {
        gateways.sign(MAST, true);
        gateways.carries(new Reception(MAST, now, null, 0, 868_100_000, "SF7BW125", -80, 8, null), "d");
    }

    @Test
    void aGatewayThatIsSilentTooIsNamed() {
        heard();
        assertThat(cause.of(registry(new Condition.Silent(300)), ALERT).summary())
                .as("it is there")
                .isEqualTo("Whey pump: axial vibration not heard for 5 min");
        now = START.plusSeconds(400);
        assertThat(cause.of(registry(new Condition.Silent(300)), ALERT).summary())
                .isEqualTo(
                        "Whey pump: axial vibration not heard for 5 min; so is its gateway 'Mast', look there first");
        assertThat(cause.of(registry(new Condition.Silent(300)), ALERT).cause()).isEqualTo("gateway " + MAST);
    }

    /** Who is notified of the gateway's own silence is not notified of each device behind it. */
    @Test
    void theSilenceOfAGatewayItselfHasTheSameCauseAsThatOfItsDevices() {
        Registry counted = registry(new Condition.Silent(300))
                .with(List.of(new Change.Put(new Gateway("g", "Mast", MAST, "s", "p"))));
        assertThat(cause.of(counted, ALERT).cause()).isEqualTo("gateway " + MAST);
        assertThat(cause.of(counted, ALERT).summary()).isEqualTo(ALERT.summary());
    }

    @Test
    void otherAlertsSayWhatTheySay() {
        heard();
        now = START.plusSeconds(400);
        assertThat(cause.of(registry(new Condition.Above(5)), ALERT)).isEqualTo(ALERT);
    }
}
