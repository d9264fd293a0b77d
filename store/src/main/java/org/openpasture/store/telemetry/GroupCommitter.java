package org.openpasture.store.telemetry;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.function.Function;
import org.openpasture.store.sqlite.StorageFailed;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * One thread that turns waiting deposits into commits: it takes all that wait, at most so many readings at once,
 * commits them together, and tells each. No delay is added; batches grow by themselves while a commit runs.
 */
final class GroupCommitter implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(GroupCommitter.class);
    /** EX_SOFTWARE of sysexits.h. */
    private static final int EXIT_STATUS = 70;

    private static final int MOST_DEPOSITS = 4_000;
    private static final int MOST_EVENTS = 10_000;
    /** How many deposits may wait before those who bring more have to wait themselves. */
    private static final int QUEUE = 50_000;

    private sealed interface Work {
        record Keep(Deposit deposit, CompletableFuture<Committed> done) implements Work {}

        record Run(Runnable task, CompletableFuture<Void> done) implements Work {}

        record Stop() implements Work {}
    }

    private final BlockingQueue<Work> queue = new LinkedBlockingQueue<>(QUEUE);
    private final Function<List<Deposit>, Committed> commit;
    private final Thread thread;
    private final Runnable fatal;
    private volatile boolean closed;
    private volatile Commits commits = Commits.NONE;

    Commits commits() {
        return commits;
    }

    /** How much waits to be committed. */
    int waiting() {
        return queue.size();
    }

    GroupCommitter(Function<List<Deposit>, Committed> commit) {
        this(commit, () -> Runtime.getRuntime().halt(EXIT_STATUS));
    }

    /**
     * The same.
     *
     * @param fatal ends the process
     */
    GroupCommitter(Function<List<Deposit>, Committed> commit, Runnable fatal) {
        this.fatal = fatal;
        this.commit = commit;
        this.thread = Thread.ofPlatform().name("telemetry-writer").start(this::loop);
    }

    CompletableFuture<Committed> submit(Deposit deposit) {
        CompletableFuture<Committed> done = new CompletableFuture<>();
        put(new Work.Keep(deposit, done));
        return done;
    }

    /** Runs a task on the writing thread, between commits, and waits for it. */
    void run(Runnable task) {
        CompletableFuture<Void> done = new CompletableFuture<>();
        put(new Work.Run(task, done));
        try {
            done.join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof StorageFailed failed) {
                throw failed;
            }
            throw new IllegalStateException(e.getCause());
        }
    }

    private void put(Work work) {
        if (closed) {
            throw new IllegalStateException("the record store is closed");
        }
        try {
            queue.put(work);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while the record store was busy", e);
        }
    }

    /**
     * An error in the one thread that writes would leave everybody waiting for ever: the process ends and is started
     * anew.
     */
    private void loop() {
        try {
            workUntilStopped();
        } catch (Error e) {
            try {
                LOG.error("the record store cannot go on; the service ends, so that it is started anew", e);
            } finally {
                fatal.run();
            }
        }
    }

    private void workUntilStopped() {
        List<Work> taken = new ArrayList<>();
        while (true) {
            try {
                taken.add(queue.take());
            } catch (InterruptedException e) {
                return;
            }
            queue.drainTo(taken, MOST_DEPOSITS);
            boolean stop = work(taken);
            taken.clear();
            if (stop) {
                return;
            }
        }
    }

    private boolean work(List<Work> taken) {
        List<Work.Keep> group = new ArrayList<>();
        int events = 0;
        for (Work work : taken) {
            switch (work) {
                case Work.Keep keep -> {
                    group.add(keep);
                    events += keep.deposit().events().size();
                    if (events >= MOST_EVENTS) {
                        commit(group);
                        events = 0;
                    }
                }
                case Work.Run run -> {
                    commit(group);
                    events = 0;
                    try {
                        run.task().run();
                        run.done().complete(null);
                    } catch (RuntimeException e) {
                        run.done().completeExceptionally(e);
                    }
                }
                case Work.Stop stop -> {
                    commit(group);
                    return true;
                }
            }
        }
        commit(group);
        return false;
    }

    private void commit(List<Work.Keep> group) {
        if (group.isEmpty()) {
            return;
        }
        List<Work.Keep> members = List.copyOf(group);
        group.clear();
        long start = System.nanoTime();
        Committed committed;
        try {
            committed = commit.apply(members.stream().map(Work.Keep::deposit).toList());
        } catch (RuntimeException e) {
            counted(start, false);
            members.forEach(keep -> keep.done().completeExceptionally(e));
            return;
        }
        counted(start, true);
        members.forEach(keep -> keep.done().complete(committed));
    }

    private void counted(long start, boolean wentWell) {
        commits = commits.and(Duration.ofNanos(System.nanoTime() - start), wentWell);
    }

    @Override
    public void close() {
        if (!closed) {
            put(new Work.Stop());
            closed = true;
            try {
                thread.join();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
