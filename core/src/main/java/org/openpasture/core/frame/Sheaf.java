package org.openpasture.core.frame;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Many messages of a device that came at once, as the payload of one frame: for each its time (8 bytes, milliseconds
 * since 1970), its length (4 bytes), and what the device's model reads. A hub that hands over a day would fill the
 * frame log with rows that say no more.
 */
public final class Sheaf {
    /** So many messages of a device, that came at once, stay frames of their own. */
    public static final int MOST_LOOSE = 10;

    private static final int MOST_BOUND = 1_000;
    private static final int HEAD = 12;

    private Sheaf() {}

    /** One of the messages. */
    public record Part(Instant time, byte[] payload) {}

    /**
     * Binds accepted messages of each device into frames of a thousand at most, where they are many; leaves all others
     * as they are.
     */
    public static List<Frame> bind(List<Frame> frames) {
        if (frames.size() <= MOST_LOOSE) {
            return frames;
        }
        List<Frame> result = new ArrayList<>();
        Map<String, List<Frame>> byDevice = new LinkedHashMap<>();
        for (Frame frame : frames) {
            if (frame.kind().equals(Frame.MESSAGE)
                    && frame.outcome() == Frame.Outcome.ACCEPTED
                    && frame.deviceId() != null) {
                byDevice.computeIfAbsent(frame.deviceId(), device -> new ArrayList<>())
                        .add(frame);
            } else {
                result.add(frame);
            }
        }
        byDevice.values().forEach(of -> {
            if (of.size() <= MOST_LOOSE) {
                result.addAll(of);
                return;
            }
            List<Frame> inOrder =
                    of.stream().sorted(Comparator.comparing(Frame::time)).toList();
            for (int from = 0; from < inOrder.size(); from += MOST_BOUND) {
                result.add(bound(inOrder.subList(from, Math.min(inOrder.size(), from + MOST_BOUND))));
            }
        });
        return result;
    }

    /** The newest stands for all. */
    private static Frame bound(List<Frame> inOrder) {
        Frame newest = inOrder.getLast();
        return new Frame(
                0,
                newest.receivedAt(),
                newest.sentAt(),
                Frame.MESSAGES,
                newest.deviceId(),
                newest.inletId(),
                newest.address(),
                new byte[0],
                toBytes(inOrder.stream()
                        .map(frame -> new Part(frame.time(), frame.payload()))
                        .toList()),
                -1,
                -1,
                Frame.Outcome.ACCEPTED,
                null,
                inOrder.size() + " at once"
                        + over(Duration.between(inOrder.getFirst().time(), newest.time())),
                newest.values(),
                List.of());
    }

    private static String over(Duration span) {
        return span.toMinutes() == 0
                ? ""
                : ", over "
                        + (span.toHours() >= 48
                                ? span.toDays() + " days"
                                : (span.toHours() == 0 ? "" : span.toHours() + " h ") + span.toMinutesPart() + " min");
    }

    static byte[] toBytes(List<Part> parts) {
        ByteBuffer out = ByteBuffer.allocate(
                parts.stream().mapToInt(part -> HEAD + part.payload().length).sum());
        parts.forEach(part -> out.putLong(part.time().toEpochMilli())
                .putInt(part.payload().length)
                .put(part.payload()));
        return out.array();
    }

    /**
     * The inverse.
     *
     * @throws IllegalArgumentException if the bytes are none
     */
    static List<Part> of(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        List<Part> parts = new ArrayList<>();
        try {
            while (in.hasRemaining()) {
                Instant time = Instant.ofEpochMilli(in.getLong());
                int length = in.getInt();
                if (length < 0 || length > in.remaining()) {
                    throw new IllegalArgumentException("a message is longer than what follows");
                }
                byte[] payload = new byte[length];
                in.get(payload);
                parts.add(new Part(time, payload));
            }
        } catch (BufferUnderflowException e) {
            throw new IllegalArgumentException("it ends in the middle of a message", e);
        }
        return parts;
    }
}
