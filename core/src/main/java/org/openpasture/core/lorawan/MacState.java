package org.openpasture.core.lorawan;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * What network and device have agreed on about the radio, beside the session's keys and counters; on disk when it
 * changes. What an older version of the program kept lacks some components; they are then as after a join.
 *
 * @param link as the device was told and has accepted
 * @param windows when and where the device listens
 * @param channelsHz channels beyond the region's own that the device knows
 * @param channelsChosen whether the device knows which channels to use, where a region has sub-bands
 * @param status null while the device told nothing
 * @param asked what waits for an answer
 * @param refusals what the device said no to, the newest last; it is not asked the same again in this session
 * @param dutyCycleExponent the device sends 1/2^n of the time at most
 * @param dwell the dwell times that the device was told; null for those of its region
 * @param downlinksHz by uplink frequency, another frequency of the first window that the device knows
 */
public record MacState(
        Link link,
        Windows windows,
        List<Long> channelsHz,
        boolean channelsChosen,
        @Nullable Status status,
        Asked asked,
        List<Refusal> refusals,
        int dutyCycleExponent,
        @Nullable Dwell dwell,
        Map<Long, Long> downlinksHz) {
    private static final int MOST_REFUSALS = 24;

    public MacState {
        channelsHz = List.copyOf(channelsHz);
        refusals = refusals == null ? List.of() : List.copyOf(refusals);
        downlinksHz = downlinksHz == null ? Map.of() : Map.copyOf(downlinksHz);
    }

    /**
     * How the device sends.
     *
     * @param dataRate that it was told; -1 while it chooses itself
     * @param txPower index of the region's power steps, 0 the most
     * @param repetitions how often it sends each uplink (NbTrans)
     */
    public record Link(int dataRate, int txPower, int repetitions) {}

    /**
     * When and where the device listens after an uplink.
     *
     * @param rx1DelaySeconds 1 to 15; the second window is a second later
     * @param rx1Offset by how much the data rate of the first window is lowered
     */
    public record Windows(int rx1DelaySeconds, int rx1Offset, long rx2FrequencyHz, int rx2DataRate) {}

    /** Whether a transmission may last 400 ms at most: what the device sends, and what is sent to it. */
    public record Dwell(boolean uplink, boolean downlink) {}

    /**
     * What the device said of itself.
     *
     * @param battery 0 outside power, 1 to 254 empty to full, 255 not known
     * @param marginDb how well it hears
     */
    public record Status(int battery, int marginDb, Instant at) {}

    /**
     * What the device said no to.
     *
     * @param request the command's bytes with its identifier, in hex
     * @param fields which parts it refused, as the answer names them, such as "power"; empty if it only said no
     * @param words for people
     */
    public record Refusal(String request, List<String> fields, String words) {
        public Refusal {
            fields = List.copyOf(fields);
        }
    }

    /**
     * Commands of one kind that were sent and not answered yet.
     *
     * @param cid their identifier
     * @param requests the commands' bytes with the identifier, in hex, in the order in which they were sent
     * @param tries how often they were sent
     * @param since when they were first sent; null in what an older version kept
     */
    public record Request(
            int cid,
            List<String> requests,
            int tries,
            @Nullable Instant since) {
        public Request {
            requests = List.copyOf(requests);
        }
    }

    /**
     * Everything that waits for an answer.
     *
     * @param open one entry for each kind of command
     * @param statusAt when the device was last asked for its status; null before the first time
     */
    public record Asked(List<Request> open, @Nullable Instant statusAt) {
        public static final Asked NOTHING = new Asked(List.of(), null);

        public Asked {
            open = open == null ? List.of() : List.copyOf(open);
        }

        /** What waits of one kind. */
        Optional<Request> of(int cid) {
            return open.stream().filter(one -> one.cid() == cid).findFirst();
        }

        Asked without(int cid) {
            return new Asked(open.stream().filter(one -> one.cid() != cid).toList(), statusAt);
        }

        Asked with(Request request) {
            List<Request> more = new ArrayList<>(without(request.cid()).open());
            more.add(request);
            return new Asked(more, statusAt);
        }
    }

    /** As a session begins: the region's own values, and what the join accept handed out. */
    public static MacState fresh(Region region, List<Long> channelsHz, boolean channelsChosen) {
        return new MacState(
                new Link(-1, 0, 1),
                NetworkSettings.STANDARD.windows(region),
                channelsHz,
                channelsChosen,
                null,
                Asked.NOTHING,
                List.of(),
                0,
                null,
                Map.of());
    }

    /** What the device said no to last, in words; empty if it refused nothing. */
    public Optional<String> newestRefusal() {
        return refusals.isEmpty()
                ? Optional.empty()
                : Optional.of(refusals.getLast().words());
    }

    boolean hasRefused(String request) {
        return refusals.stream().anyMatch(one -> one.request().equals(request));
    }

    MacState withLink(Link now) {
        return with(draft -> draft.link = now);
    }

    MacState withWindows(Windows now) {
        return with(draft -> draft.windows = now);
    }

    MacState withChannels(List<Long> nowHz, boolean nowChosen) {
        return with(draft -> {
            draft.channelsHz = nowHz;
            draft.channelsChosen = nowChosen;
        });
    }

    MacState withStatus(Status now) {
        return with(draft -> draft.status = now);
    }

    MacState withAsked(Asked now) {
        return with(draft -> draft.asked = now);
    }

    MacState withRefusal(Refusal one) {
        List<Refusal> more = new ArrayList<>(refusals);
        more.removeIf(old -> old.request().equals(one.request()));
        more.add(one);
        List<Refusal> newest =
                more.size() > MOST_REFUSALS ? more.subList(more.size() - MOST_REFUSALS, more.size()) : more;
        return with(draft -> draft.refusals = newest);
    }

    MacState withDutyCycle(int exponent) {
        return with(draft -> draft.dutyCycleExponent = exponent);
    }

    MacState withDwell(Dwell now) {
        return with(draft -> draft.dwell = now);
    }

    MacState withDownlinks(Map<Long, Long> nowHz) {
        return with(draft -> draft.downlinksHz = nowHz);
    }

    private MacState with(Consumer<Draft> change) {
        Draft draft = new Draft(this);
        change.accept(draft);
        return draft.state();
    }

    /** A state of which some components are about to be others. */
    private static final class Draft {
        private Link link;
        private Windows windows;
        private List<Long> channelsHz;
        private boolean channelsChosen;
        private @Nullable Status status;
        private Asked asked;
        private List<Refusal> refusals;
        private int dutyCycleExponent;
        private @Nullable Dwell dwell;
        private Map<Long, Long> downlinksHz;

        Draft(MacState from) {
            this.link = from.link;
            this.windows = from.windows;
            this.channelsHz = from.channelsHz;
            this.channelsChosen = from.channelsChosen;
            this.status = from.status;
            this.asked = from.asked;
            this.refusals = from.refusals;
            this.dutyCycleExponent = from.dutyCycleExponent;
            this.dwell = from.dwell;
            this.downlinksHz = from.downlinksHz;
        }

        MacState state() {
            return new MacState(
                    link,
                    windows,
                    channelsHz,
                    channelsChosen,
                    status,
                    asked,
                    refusals,
                    dutyCycleExponent,
                    dwell,
                    downlinksHz);
        }
    }
}
