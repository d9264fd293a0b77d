package org.openpasture.service.inlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class BodyRoomTest {
    private static final int MEGA = 1 << 20;

    /** 96 MB of heap: a sixth of it holds one large message, however many come. */
    @Test
    void largeMessagesWaitForOneAnother() throws Exception {
        BodyRoom room = new BodyRoom(96L * MEGA, 16 * MEGA);
        AtomicInteger inside = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            CountDownLatch begin = new CountDownLatch(1);
            for (int i = 0; i < 20; i++) {
                threads.submit(() -> {
                    begin.await();
                    try (BodyRoom.Place place = room.take(16L * MEGA)) {
                        most.accumulateAndGet(inside.incrementAndGet(), Math::max);
                        Thread.yield();
                        inside.decrementAndGet();
                    }
                    return null;
                });
            }
            begin.countDown();
        }
        assertThat(most).hasValue(1);
    }

    @Test
    void smallOnesAreTakenSideBySide() throws Exception {
        BodyRoom room = new BodyRoom(96L * MEGA, 16 * MEGA);
        CountDownLatch together = new CountDownLatch(200);
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            Future<?> last = null;
            for (int i = 0; i < 200; i++) {
                last = threads.submit(() -> {
                    try (BodyRoom.Place place = room.take(1_000)) {
                        together.countDown();
                        return together.await(10, TimeUnit.SECONDS);
                    }
                });
            }
            assertThat(last.get()).isEqualTo(true);
        }
    }
}
