package org.openpasture.core.frame;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * One message as it came in, and what became of it. Refused ones are kept as well, with the reason.
 *
 * @param id given by the store when it is kept, 0 before
 * @param sentAt when it was sent, as it says itself; null where it does not say
 * @param kind what it was: one of the constants below, or "unreadable"
 * @param deviceId null where no registered device sent it
 * @param inletId the inlet that it came by; null for LoRaWAN
 * @param address of the sender
 * @param bytes as received
 * @param payload what the device's model reads: decrypted, and taken out of what was around it; empty if there is none
 * @param port radio port, -1 if none
 * @param counter full frame counter, -1 if none
 * @param cause why it was refused, for programs; null if it was not, or if nothing is to be decided by it
 * @param reason why it was refused, or what is noteworthy; null if all is well
 * @param values what was read from it, "channel=value" in the layout's order
 */
public record Frame(
        long id,
        Instant receivedAt,
        @Nullable Instant sentAt,
        String kind,
        @Nullable String deviceId,
        @Nullable String inletId,
        String address,
        byte[] bytes,
        byte[] payload,
        int port,
        long counter,
        Outcome outcome,
        @Nullable Cause cause,
        @Nullable String reason,
        String values,
        List<Reception> receptions) {

    public static final String UPLINK = "uplink";
    public static final String JOIN_REQUEST = "join request";
    /** Sent to a device. */
    public static final String DOWNLINK = "downlink";

    public static final String JOIN_ACCEPT = "join accept";
    /** Came by an inlet. */
    public static final String MESSAGE = "message";
    /** Many messages that came at once, bound together; see {@link Sheaf}. */
    public static final String MESSAGES = "messages";

    /** What became of a frame. */
    public enum Outcome {
        ACCEPTED,
        REFUSED,
        /** Authentic and heard before, as the protocol has it: not counted, and nothing is wrong. */
        REPEATED
    }

    /** A message that came by an inlet, of which nothing was read yet. */
    public static Frame message(
            Instant receivedAt,
            @Nullable Instant sentAt,
            String inletId,
            String address,
            byte[] bytes,
            byte[] payload) {
        return new Frame(
                0,
                receivedAt,
                sentAt,
                MESSAGE,
                null,
                inletId,
                address,
                bytes,
                payload,
                -1,
                -1,
                Outcome.ACCEPTED,
                null,
                null,
                "",
                List.of());
    }

    /** What was set in a device of an inlet from here. */
    public static Frame set(Instant at, String deviceId, String inletId, String address, String reason, String values) {
        return message(at, null, inletId, address, new byte[0], new byte[0])
                .as(DOWNLINK)
                .of(deviceId)
                .became(Outcome.ACCEPTED, null, reason)
                .reading(values);
    }

    /** A radio frame of a kind, without what only data frames have. */
    public static Frame radio(Instant at, String kind, String address, byte[] bytes, List<Reception> receptions) {
        return new Frame(
                0,
                at,
                null,
                kind,
                null,
                null,
                address,
                bytes,
                new byte[0],
                -1,
                -1,
                Outcome.ACCEPTED,
                null,
                null,
                "",
                receptions);
    }

    /** The same, of a device. */
    public Frame of(@Nullable String device) {
        return with(draft -> draft.deviceId = device);
    }

    /** The same with port, counter and decrypted payload of a data frame; -1 where it has none. */
    public Frame data(int onPort, long withCounter, byte[] clear) {
        return with(draft -> {
            draft.port = onPort;
            draft.counter = withCounter;
            draft.payload = clear;
        });
    }

    /** The same, with what became of it. */
    public Frame became(Outcome what, @Nullable Cause why, @Nullable String words) {
        return with(draft -> {
            draft.outcome = what;
            draft.cause = why;
            draft.reason = words;
        });
    }

    /** The same, with what was read from it. */
    public Frame reading(String channelValues) {
        return with(draft -> draft.values = channelValues);
    }

    private Frame as(String otherKind) {
        return with(draft -> draft.kind = otherKind);
    }

    /** Whether it was sent to a device, rather than heard. */
    public boolean isToDevice() {
        return kind.equals(DOWNLINK) || kind.equals(JOIN_ACCEPT);
    }

    /** Whether it holds something for the device's model to read. */
    public boolean isData() {
        return isMessage() || kind.equals(UPLINK) && port > 0;
    }

    /** Whether it came by an inlet. */
    public boolean isMessage() {
        return kind.equals(MESSAGE) || kind.equals(MESSAGES);
    }

    /** What the device's model reads of it, with the time of each, in order; more than one where many came at once. */
    public List<Sheaf.Part> contents() {
        return kind.equals(MESSAGES) ? Sheaf.of(payload) : List.of(new Sheaf.Part(time(), payload));
    }

    /** The port by which a model chooses how to read it: that of the radio, 0 for what has none. */
    public int readingPort() {
        return Math.max(0, port);
    }

    /** The moment that its values belong to: as it says, else when the first gateway heard it, else when it came. */
    public Instant time() {
        return sentAt != null
                ? sentAt
                : receptions.stream()
                        .map(Reception::receivedAt)
                        .min(Comparator.naturalOrder())
                        .orElse(receivedAt);
    }

    public Frame withId(long given) {
        return with(draft -> draft.id = given);
    }

    private Frame with(Consumer<Draft> change) {
        Draft draft = new Draft(this);
        change.accept(draft);
        return draft.frame();
    }

    /** A frame of which some components are about to be others; each of them stands for the component of its name. */
    private static final class Draft {
        private final Frame from;
        private long id;
        private String kind;
        private @Nullable String deviceId;
        private byte[] payload;
        private int port;
        private long counter;
        private Outcome outcome;
        private @Nullable Cause cause;
        private @Nullable String reason;
        private String values;

        Draft(Frame from) {
            this.from = from;
            this.id = from.id;
            this.kind = from.kind;
            this.deviceId = from.deviceId;
            this.payload = from.payload;
            this.port = from.port;
            this.counter = from.counter;
            this.outcome = from.outcome;
            this.cause = from.cause;
            this.reason = from.reason;
            this.values = from.values;
        }

        Frame frame() {
            return new Frame(
                    id,
                    from.receivedAt,
                    from.sentAt,
                    kind,
                    deviceId,
                    from.inletId,
                    from.address,
                    from.bytes,
                    payload,
                    port,
                    counter,
                    outcome,
                    cause,
                    reason,
                    values,
                    from.receptions);
        }
    }
}
