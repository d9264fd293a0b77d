package org.openpasture.store.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.openpasture.core.judging.Event;

class GroupCommitterTest {
    private static Deposit deposit(int second) {
        return Deposit.of(new Event.AlertAcknowledged(Instant.ofEpochSecond(second), "a", "ann", ""));
    }

    @Test
    void whatWaitsWhileACommitRunsIsCommittedTogether() throws Exception {
        List<Integer> sizes = new CopyOnWriteArrayList<>();
        CountDownLatch running = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        try (GroupCommitter committer = new GroupCommitter(deposits -> {
            running.countDown();
            await(goOn);
            sizes.add(deposits.size());
            return new Committed(sizes.size(), List.of(), List.of());
        })) {
            CompletableFuture<Committed> first = committer.submit(deposit(0));
            running.await();
            List<CompletableFuture<Committed>> others = new ArrayList<>();
            for (int i = 1; i <= 100; i++) {
                others.add(committer.submit(deposit(i)));
            }
            goOn.countDown();
            first.join();
            others.forEach(CompletableFuture::join);
        }
        assertThat(sizes).containsExactly(1, 100);
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void aCommitThatFailsIsToldToEachOfItsMembersAndTheNextGoesOn() {
        AtomicBoolean full = new AtomicBoolean(true);
        try (GroupCommitter committer = new GroupCommitter(deposits -> {
            if (full.get()) {
                throw new IllegalStateException("disk is full");
            }
            return new Committed(1, List.of(), List.of());
        })) {
            assertThatThrownBy(() -> committer.submit(deposit(0)).join())
                    .isInstanceOf(CompletionException.class)
                    .hasRootCauseMessage("disk is full");
            full.set(false);
            assertThat(committer.submit(deposit(1)).join().journalSeq()).isEqualTo(1);
        }
    }

    @Test
    void aTaskRunsBetweenCommitsAndItsFailureIsTheCallers() {
        List<String> order = new CopyOnWriteArrayList<>();
        try (GroupCommitter committer = new GroupCommitter(deposits -> {
            order.add("commit");
            return new Committed(1, List.of(), List.of());
        })) {
            committer.submit(deposit(0));
            committer.run(() -> order.add("task"));
            assertThatThrownBy(() -> committer.run(() -> {
                        throw new IllegalArgumentException("no");
                    }))
                    .hasRootCauseMessage("no");
        }
        assertThat(order).containsExactly("commit", "task");
    }

    @Test
    void closingCommitsWhatWaits() {
        List<Integer> sizes = new CopyOnWriteArrayList<>();
        GroupCommitter committer = new GroupCommitter(deposits -> {
            sizes.add(deposits.size());
            return new Committed(1, List.of(), List.of());
        });
        List<CompletableFuture<Committed>> waiting = new ArrayList<>();
        for (int i = 0; i < 50; i++) {
            waiting.add(committer.submit(deposit(i)));
        }
        committer.close();
        assertThat(waiting).allMatch(CompletableFuture::isDone);
        assertThat(sizes.stream().mapToInt(Integer::intValue).sum()).isEqualTo(50);
        committer.close();
    }
}
