package org.openpasture.inlets.loop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.LinkedBlockingQueue;
import org.junit.jupiter.api.Test;

class LoopTest {
    private final List<String> said = new CopyOnWriteArrayList<>();
    private final List<Integer> done = new CopyOnWriteArrayList<>();
    private final BlockingQueue<Integer> work = new LinkedBlockingQueue<>();

    private void step() throws IOException, InterruptedException {
        int next = work.take();
        if (next == 1) {
            throw new IllegalStateException("the first is bad");
        }
        if (next == 2) {
            throw new IOException("so is the second");
        }
        done.add(next);
    }

    @Test
    void aStepThatThrowsDoesNotEndIt() {
        work.addAll(List.of(0, 1, 2, 3));
        try (Loop loop = Loop.onVirtualThread("test", this::step, said::add).start()) {
            await().until(() -> done.contains(3));
            assertThat(done).containsExactly(0, 3);
            assertThat(loop.state().failures()).isEqualTo(2);
            await().until(() -> loop.state().failuresInARow() == 0);
            assertThat(said).containsExactly("the first is bad", "so is the second", "");
            assertThat(Loop.all()).extracting(Loop.State::name).contains("test");
        }
        assertThat(Loop.all()).extracting(Loop.State::name).doesNotContain("test");
    }

    @Test
    void itEndsWhileItWaitsAndWhileItRests() {
        work.add(1);
        Loop resting = Loop.onVirtualThread("resting", this::step).start();
        await().until(() -> resting.state().failures() == 1);
        resting.close();
        assertThat(resting.state().alive()).isFalse();
        Loop waiting = Loop.onPlatformThread("waiting", this::step, words -> {}).start();
        waiting.close();
        assertThat(waiting.state().alive()).isFalse();
        Loop.onVirtualThread("never started", this::step).close();
    }

    @Test
    void whoIsToldAndThrowsDoesNotEndItEither() {
        work.addAll(List.of(1, 3));
        try (Loop loop = Loop.onVirtualThread("test", this::step, words -> {
                    throw new IllegalStateException("cannot be told");
                })
                .start()) {
            await().until(() -> done.contains(3));
            assertThat(loop.state().alive()).isTrue();
        }
    }
}
