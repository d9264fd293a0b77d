package org.openpasture.store.outlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.store.registry.RegistryDatabase;

class OutletQueueTest {
    private static final Instant NOW = Instant.parse("2026-11-25T12:00:00Z");

    @TempDir
    private Path folder;

    private static OutletItem item(String outlet, String body) {
        return new OutletItem(0, outlet, OutletItem.READINGS, "", body, NOW);
    }

    @Test
    void whatWaitsIsGivenInOrderAndOutlastsTheProcess() {
        try (RegistryDatabase database = RegistryDatabase.open(folder)) {
            OutletQueue queue = new OutletQueue(database);
            assertThat(queue.position()).isEmpty();
            queue.keep(List.of(item("a", "1"), item("b", "x"), item("a", "2")), 7);
            queue.keep(List.of(item("a", "3")), 9);
        }
        try (RegistryDatabase database = RegistryDatabase.open(folder)) {
            OutletQueue queue = new OutletQueue(database);
            assertThat(queue.position()).contains(9L);
            assertThat(queue.oldest("a", 10)).extracting(OutletItem::body).containsExactly("1", "2", "3");
            queue.taken(queue.oldest("a", 2).stream().map(OutletItem::id).toList());
            assertThat(queue.oldest("a", 10)).extracting(OutletItem::body).containsExactly("3");
            assertThat(queue.count("b")).isEqualTo(1);
            queue.forget("b");
            assertThat(queue.count("b")).isZero();
            assertThat(queue.oldest("a", 1).getFirst().createdAt()).isEqualTo(NOW);
        }
    }

    @Test
    void theOldestGiveWayWhenTooManyWait() {
        try (RegistryDatabase database = RegistryDatabase.open(folder)) {
            OutletQueue queue = new OutletQueue(database);
            assertThat(queue.trim("a")).isZero();
            queue.keep(
                    IntStream.range(0, OutletQueue.MOST + 3)
                            .mapToObj(i -> item("a", Integer.toString(i)))
                            .toList(),
                    1);
            assertThat(queue.trim("a")).isEqualTo(3);
            assertThat(queue.oldest("a", 1)).extracting(OutletItem::body).containsExactly("3");
        }
    }
}
