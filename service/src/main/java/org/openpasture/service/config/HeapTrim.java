package org.openpasture.service.config;

import jakarta.annotation.PreDestroy;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.lang.management.MemoryUsage;
import java.time.Duration;
import java.util.Optional;
import org.openpasture.inlets.loop.Loop;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Gives memory back that was needed once, as for an import: the collector that suits a small machine does so only when
 * it collects everything, which a service that is at rest again may not need for days. It looks each half minute, and
 * asks for a collection (some tens of milliseconds) where the old generation has grown to twice what was alive after
 * the last one, at most every five minutes. With another collector it does nothing.
 */
@Component
class HeapTrim {
    private static final Duration LOOKS_EVERY = Duration.ofSeconds(30);
    private static final long RESTS_NANOS = Duration.ofMinutes(5).toNanos();
    private static final long NOT_WORTH_IT = 24L << 20;

    private final Optional<MemoryPoolMXBean> old = ManagementFactory.getMemoryPoolMXBeans().stream()
            .filter(pool -> pool.getType() == MemoryType.HEAP && pool.getName().equals("Tenured Gen"))
            .findFirst();
    private final Loop loop = Loop.onVirtualThread("heap-trim", this::turn);
    private long trimmedAt = System.nanoTime() - RESTS_NANOS;
    private long alive;

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        if (old.isPresent()) {
            loop.start();
        }
    }

    private void turn() throws InterruptedException {
        Thread.sleep(LOOKS_EVERY);
        MemoryUsage now = old.orElseThrow().getUsage();
        if (System.nanoTime() - trimmedAt > RESTS_NANOS && now.getCommitted() > 2 * alive + NOT_WORTH_IT) {
            // An explicit collection is the only one that gives back what is free.
            System.gc();
            trimmedAt = System.nanoTime();
            alive = old.orElseThrow().getUsage().getUsed();
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
