package org.openpasture.engine.heard;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.TestClock;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.TelemetryStore;

class GatewayCountsTest {
    private static final Eui64 MAST = Eui64.of("02ab54fffe10a001");
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Creamery", ZoneOffset.UTC, null),
            new Point("p", 7, "Mast, frames", "s", Quantity.COUNT, "", null, null, null, true),
            new Gateway("g", "Mast", MAST, "s", "p"),
            new Gateway("h", "Stairs", Eui64.of("02ab54fffe10a002"), "s")));

    @TempDir
    private Path folder;

    private final TestClock clock = new TestClock();
    private final GatewayStates gateways = new GatewayStates(clock);
    private RegistryDatabase database;
    private TelemetryStore telemetry;
    private GatewayCounts counts;

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        telemetry = TelemetryStore.open(folder, database.secrets(), clock);
        counts = new GatewayCounts(new RegistryStore(database, clock), gateways, telemetry, clock);
    }

    @AfterEach
    void close() {
        counts.close();
        telemetry.close();
        database.close();
    }

    private List<Double> due() {
        return counts.due(REGISTRY, clock.instant()).stream()
                .peek(one -> assertThat(one.point()).isEqualTo(7))
                .map(one -> one.reading().value())
                .toList();
    }

    private void frame() {
        gateways.frame(new Reception(MAST, clock.instant(), null, 0, 868_100_000, "SF7BW125", -80, 8, null));
    }

    @Test
    void aGatewayThatIsThereHasAReadingEachHalfMinuteWithTheFramesSinceTheOneBefore() {
        assertThat(due()).as("never heard").isEmpty();
        frame();
        frame();
        assertThat(due()).containsExactly(2.0);
        frame();
        clock.pass(Duration.ofSeconds(29));
        gateways.sign(MAST, true);
        assertThat(due()).as("not yet").isEmpty();
        clock.pass(Duration.ofSeconds(1));
        assertThat(due()).containsExactly(1.0);
        clock.pass(Duration.ofSeconds(30));
        gateways.sign(MAST, true);
        assertThat(due()).as("it is there, and brings nothing").containsExactly(0.0);
        clock.pass(Duration.ofSeconds(30));
        assertThat(due()).as("no sign of life").isEmpty();
        clock.pass(Duration.ofHours(3));
        frame();
        assertThat(due()).containsExactly(1.0);
    }
}
