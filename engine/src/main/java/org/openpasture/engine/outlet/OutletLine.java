package org.openpasture.engine.outlet;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.message.Backoff;
import org.openpasture.inlets.passing.Passer;
import org.openpasture.store.outlet.OutletItem;
import org.openpasture.store.outlet.OutletQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Sends what waits for one outlet, in order, on a thread of its own. While the outside is away or does not take what it
 * is given, it waits and tries again. One message that the outside refuses for what it is (and again a moment later) is
 * left out, so that it does not hold up those behind it; of several in a row only so many, since an outside that
 * refuses everything has another fault than the messages.
 */
public final class OutletLine {
    private static final Logger LOG = LoggerFactory.getLogger(OutletLine.class);
    private static final int MOST_AT_ONCE = 200;
    private static final int MOST_LEFT_OUT_IN_A_ROW = 10;
    /** What happens to an alert wakes its line before it is committed: the line looks again soon. */
    private static final long LOOK_EVERY_MILLIS = 1_000;

    private final Outlet outlet;
    private final Supplier<Passer> passers;
    private final OutletQueue queue;
    private final Watchers live;
    private final Clock clock;
    private final Backoff backoff = new Backoff();
    private final Loop loop;
    private @Nullable Passer passer;
    private volatile String problem = "";
    private volatile Counts counts = Counts.NONE;
    private long refusedId;
    private int leftOutInARow;
    private boolean news = true;
    private Instant livedAt = Instant.EPOCH;

    /**
     * What became of messages since the line was opened.
     *
     * @param dropped that were removed because the queue was full
     * @param refused that were left out since the outside refused them
     * @param refusal how the newest of these was refused; empty if none was
     */
    public record Counts(long passed, @Nullable Instant passedAt, long dropped, long refused, String refusal) {
        static final Counts NONE = new Counts(0, null, 0, 0, "");

        private Counts taken(Instant at) {
            return new Counts(passed + 1, at, dropped, refused, refusal);
        }

        private Counts trimmed(int more) {
            return more == 0 ? this : new Counts(passed, passedAt, dropped + more, refused, refusal);
        }

        private Counts leftOut(String why) {
            return new Counts(passed, passedAt, dropped, refused + 1, why);
        }
    }

    OutletLine(Outlet outlet, Supplier<Passer> passers, OutletQueue queue, Watchers live, Clock clock) {
        this.outlet = outlet;
        this.passers = passers;
        this.queue = queue;
        this.live = live;
        this.clock = clock;
        this.loop = Loop.onVirtualThread("outlet-" + outlet.id(), this::turn, problem -> {
            if (!problem.isEmpty()) {
                say("it failed: " + problem);
            }
        });
        if (!outlet.paused()) {
            loop.start();
        }
    }

    Outlet outlet() {
        return outlet;
    }

    Counts counts() {
        return counts;
    }

    String state() {
        return outlet.paused() ? "paused" : problem.isEmpty() ? "up" : "down";
    }

    String reason() {
        if (outlet.paused()) {
            return "It is paused; what comes waits.";
        }
        Counts now = counts;
        String leftOut = now.refused() == 0
                ? ""
                : " Left out since the outside refuses it: " + now.refused()
                        + (now.refused() == 1 ? " message" : " messages, the newest") + ", by: " + now.refusal() + ".";
        return (!problem.isEmpty()
                        ? problem + ". It is tried again."
                        : now.passedAt() == null ? "Nothing was passed on yet." : "It is taken.")
                + leftOut;
    }

    synchronized void wake() {
        news = true;
        notifyAll();
    }

    private synchronized void await(long millis) throws InterruptedException {
        if (!news) {
            TimeUnit.MILLISECONDS.timedWait(this, millis);
        }
        news = false;
    }

    /** Sends what waits, or waits until something does. */
    private void turn() throws InterruptedException {
        Passer open = passer;
        if (open == null) {
            open = passers.get();
            passer = open;
        }
        try {
            sayThatWeLive(open);
            counts = counts.trimmed(queue.trim(outlet.id()));
            List<OutletItem> items = queue.oldest(outlet.id(), MOST_AT_ONCE);
            if (items.isEmpty()) {
                await(LOOK_EVERY_MILLIS);
                return;
            }
            pass(open, items);
            backoff.reset();
            say("");
        } catch (IOException e) {
            say(String.valueOf(e.getMessage()));
            Thread.sleep(backoff.next());
        } catch (RuntimeException e) {
            // What it was sent through may be what is broken: it is opened anew.
            closePasser();
            throw e;
        }
    }

    /** Straight away and past what waits: one that comes late says nothing. */
    private void sayThatWeLive(Passer open) throws IOException, InterruptedException {
        Optional<Duration> every = outlet.lifeSign();
        Instant now = clock.instant();
        if (every.isEmpty() || now.isBefore(livedAt.plus(every.get()))) {
            return;
        }
        try {
            open.pass(new Passer.Message(
                    outlet.destination().topic().replace(Destination.POINT, "life-sign"),
                    "application/json",
                    PassingText.lifeSign(outlet.name(), now).getBytes(StandardCharsets.UTF_8)));
        } catch (Passer.Refused e) {
            // What else there is need not wait for somebody who wants no life signs.
            counts = counts.leftOut(String.valueOf(e.getMessage()));
        }
        livedAt = now;
        say("");
    }

    private void closePasser() {
        Passer open = passer;
        passer = null;
        if (open != null) {
            try {
                open.close();
            } catch (RuntimeException e) {
                LOG.warn("the outlet '{}' could not be closed", outlet.name(), e);
            }
        }
    }

    private void pass(Passer passer, List<OutletItem> items) throws IOException, InterruptedException {
        for (List<OutletItem> group : together(items)) {
            sendOrLeaveOut(passer, group);
        }
    }

    /** Readings that follow one another go as one message; alerts and topics of points go by themselves. */
    private static List<List<OutletItem>> together(List<OutletItem> items) {
        List<List<OutletItem>> groups = new ArrayList<>();
        boolean open = false;
        for (OutletItem item : items) {
            boolean joins =
                    item.kind().equals(OutletItem.READINGS) && item.topic().isEmpty();
            if (!joins || !open) {
                groups.add(new ArrayList<>());
            }
            groups.getLast().add(item);
            open = joins;
        }
        return groups;
    }

    private void send(Passer passer, List<OutletItem> group) throws IOException, InterruptedException {
        OutletItem first = group.getFirst();
        boolean alert = first.kind().equals(OutletItem.ALERT);
        String body = group.size() == 1
                ? first.body()
                : PassingText.together(group.stream().map(OutletItem::body).toList());
        String type = !alert && outlet.form() == Outlet.Form.SENML ? "application/senml+json" : "application/json";
        passer.pass(new Passer.Message(
                outlet.destination().topic().replace(Destination.POINT, first.topic()),
                type,
                body.getBytes(StandardCharsets.UTF_8)));
        queue.taken(group.stream().map(OutletItem::id).toList());
        counts = counts.taken(clock.instant());
        leftOutInARow = 0;
    }

    private void sendOrLeaveOut(Passer passer, List<OutletItem> group) throws IOException, InterruptedException {
        try {
            send(passer, group);
        } catch (Passer.Refused e) {
            if (group.size() == 1) {
                leaveOut(group.getFirst(), e);
                return;
            }
            // One of them is refused: the others need not go with it.
            for (OutletItem item : group) {
                sendOrLeaveOut(passer, List.of(item));
            }
        }
    }

    /** Leaves a message out if it is refused for the second time; throws its refusal otherwise. */
    private void leaveOut(OutletItem item, Passer.Refused refusal) throws Passer.Refused {
        if (item.id() != refusedId || leftOutInARow >= MOST_LEFT_OUT_IN_A_ROW) {
            refusedId = item.id();
            throw refusal;
        }
        queue.taken(List.of(item.id()));
        leftOutInARow++;
        // The outside is there, and answers.
        backoff.reset();
        counts = counts.leftOut(String.valueOf(refusal.getMessage()));
        LOG.warn("the outlet '{}' left a message out: {}", outlet.name(), refusal.getMessage());
    }

    private void say(String now) {
        boolean changed = !now.equals(problem);
        problem = now;
        if (changed && live.hasSubscribers()) {
            live.publish(
                    new LiveEvent("changed", outlet.siteId(), null, Map.of("what", "outlet", "outletId", outlet.id())));
        }
    }

    /** Tells it to end, and does not wait. */
    void end() {
        loop.end();
    }

    void close() {
        loop.close();
        closePasser();
    }
}
