package org.openpasture.inlets.poll;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.openpasture.inlets.loop.Loop;

/**
 * Whose turn it is among devices that share a wire: they are asked one after the other on a thread of the rota's, each
 * at its own period. One that does not answer is asked less and less often, down to every eighth round, so that it
 * takes only its share.
 */
public final class Rota implements AutoCloseable {
    private static final int MOST_SKIPPED = 7;
    private final Wire wire;
    private final PollSink sink;
    private final Clock clock;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    /** Held while the wire is used. */
    private final ReentrantLock hold = new ReentrantLock();
    /** Guarded by the lock. */
    private final Map<String, Turn> turns = new HashMap<>();

    private final Loop loop;
    private volatile boolean closed;

    /** What devices are asked through. */
    public interface Wire extends AutoCloseable {
        /** Asks a device. One thread at a time. */
        PollSink.Answer ask(Target target) throws InterruptedException;

        /** A device's round is kept; called before the next one begins. */
        void asked(Target target, PollSink.Answer answer) throws InterruptedException;

        @Override
        void close();
    }

    /** When a device is asked next. */
    private static final class Turn {
        private Target target;
        private Instant due;
        private int failures;

        private Turn(Target target, Instant due) {
            this.target = target;
            this.due = due;
        }
    }

    /** Begins with nobody to ask. */
    public Rota(String name, Wire wire, PollSink sink, Clock clock) {
        this.wire = wire;
        this.sink = sink;
        this.clock = clock;
        this.loop = Loop.onVirtualThread(name, this::turn).start();
    }

    /** Asks these from now on, and nobody else. */
    public void ask(List<Target> targets) {
        lock.lock();
        try {
            turns.keySet().retainAll(targets.stream().map(Target::key).toList());
            for (Target target : targets) {
                Turn known = turns.get(target.key());
                if (known == null || known.target.everySeconds() != target.everySeconds()) {
                    turns.put(target.key(), new Turn(target, clock.instant()));
                } else {
                    known.target = target;
                }
            }
            changed.signalAll();
        } finally {
            lock.unlock();
        }
    }

    private void turn() throws InterruptedException {
        Optional<Turn> next = next();
        if (next.isPresent()) {
            round(next.get());
        }
    }

    /** Waits until somebody is due; empty when something changed meanwhile. */
    private Optional<Turn> next() throws InterruptedException {
        lock.lock();
        try {
            Optional<Turn> first = turns.values().stream().min(Comparator.comparing(turn -> turn.due));
            long wait = first.map(
                            turn -> Duration.between(clock.instant(), turn.due).toNanos())
                    .orElse(Long.MAX_VALUE);
            if (wait > 0) {
                boolean woken = changed.await(Math.min(wait, TimeUnit.SECONDS.toNanos(10)), TimeUnit.NANOSECONDS);
                return woken || closed ? Optional.empty() : first.filter(turn -> !turn.due.isAfter(clock.instant()));
            }
            return first;
        } finally {
            lock.unlock();
        }
    }

    private void round(Turn turn) throws InterruptedException {
        Target target = turn.target;
        boolean answers = false;
        try {
            PollSink.Round round = ask(target, turn.due);
            answers = round.answer().something();
            wire.asked(target, round.answer());
            sink.round(target, round);
        } finally {
            // Whatever went wrong with this one, the others have their turns.
            again(turn, target, answers);
        }
    }

    private void again(Turn turn, Target target, boolean answers) {
        lock.lock();
        try {
            turn.failures = answers ? 0 : turn.failures + 1;
            int skipped = answers ? 0 : Math.min(MOST_SKIPPED, turn.failures - 1);
            turn.due = after(turn.due, target.everySeconds()).plusSeconds((long) skipped * target.everySeconds());
        } finally {
            lock.unlock();
        }
    }

    /** The next whole multiple of the period by the clock that has not passed. */
    private Instant after(Instant due, int everySeconds) {
        long now = Math.max(clock.instant().toEpochMilli(), due.toEpochMilli());
        long period = everySeconds * 1_000L;
        return Instant.ofEpochMilli((Math.floorDiv(now, period) + 1) * period);
    }

    private PollSink.Round ask(Target target, Instant due) throws InterruptedException {
        hold.lock();
        Instant began = clock.instant();
        PollSink.Answer answer;
        try {
            answer = wire.ask(target);
        } finally {
            hold.unlock();
        }
        Instant ended = clock.instant();
        return new PollSink.Round(
                answer, Duration.between(began, ended), ended.isAfter(due.plusSeconds(target.everySeconds())));
    }

    /** Asks a device out of turn. */
    public PollSink.Round askNow(Target target) {
        try {
            return ask(target, clock.instant());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while a device was asked", e);
        }
    }

    /** Does something with the wire while nobody else uses it. */
    public <T> T using(Callable<T> work) throws Exception {
        hold.lock();
        try {
            return work.call();
        } finally {
            hold.unlock();
        }
    }

    @Override
    public void close() {
        closed = true;
        lock.lock();
        try {
            turns.clear();
            changed.signalAll();
        } finally {
            lock.unlock();
        }
        loop.end();
        wire.close();
        loop.join();
    }
}
