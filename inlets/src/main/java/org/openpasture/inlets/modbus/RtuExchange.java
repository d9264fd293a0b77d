package org.openpasture.inlets.modbus;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import org.openpasture.core.framing.Checksum;

/**
 * Asks a device on an RTU line who it is (function 43/14), which the Modbus library does by TCP only. A frame is the
 * unit, the request and a CRC of 16 bits, the low byte first (Modbus over serial line 1.02, 2.5.1). How long an answer
 * is follows from what is in it.
 */
final class RtuExchange {
    /** Longer than 3.5 characters at the lowest usual speed: the line is quiet. */
    private static final Duration SILENCE = Duration.ofMillis(50);

    private static final int LONGEST = 256;
    private static final int EXCEPTION = 0x80;
    private static final int HEAD = 7;
    private final RtuWire wire;
    private final long endNanos;
    private final ByteArrayOutputStream answer = new ByteArrayOutputStream();

    private RtuExchange(RtuWire wire, Duration within) {
        this.wire = wire;
        this.endNanos = System.nanoTime() + within.toNanos();
    }

    /**
     * The answer of a device, from the function code on and without the CRC.
     *
     * @return empty if the device does not know the function, or does not answer in time
     * @throws IOException if the line breaks or the answer is damaged
     */
    static Optional<byte[]> ask(RtuWire wire, int unit, byte[] request, Duration within) throws IOException {
        byte[] frame = new byte[request.length + 3];
        frame[0] = (byte) unit;
        System.arraycopy(request, 0, frame, 1, request.length);
        long sum = Checksum.CRC_16_MODBUS.over(frame, 0, request.length + 1);
        frame[frame.length - 2] = (byte) sum;
        frame[frame.length - 1] = (byte) (sum >> 8);
        quiet(wire);
        wire.write(frame);
        return new RtuExchange(wire, within).answer(unit, request[0]);
    }

    private Optional<byte[]> answer(int unit, byte function) throws IOException {
        if (!read(2)) {
            quiet(wire);
            return Optional.empty();
        }
        byte[] head = answer.toByteArray();
        boolean refused = head[1] == (byte) (function | EXCEPTION);
        if ((head[0] & 0xFF) != unit || head[1] != function && !refused) {
            quiet(wire);
            throw new IOException("another device answers");
        }
        boolean whole = refused ? read(1) : read(HEAD - 1) && objects(answer.toByteArray()[HEAD] & 0xFF);
        if (!whole || !read(2)) {
            quiet(wire);
            throw new IOException("its answer ends too early");
        }
        byte[] all = answer.toByteArray();
        int end = all.length - 2;
        long sum = Checksum.CRC_16_MODBUS.over(all, 0, end);
        if ((all[end] & 0xFF) != (sum & 0xFF) || (all[end + 1] & 0xFF) != sum >> 8) {
            throw new IOException("its answer is damaged (checksum)");
        }
        return refused ? Optional.empty() : Optional.of(Arrays.copyOfRange(all, 1, end));
    }

    /** Each object has an id, a length and as many bytes. */
    private boolean objects(int count) throws IOException {
        for (int i = 0; i < count; i++) {
            if (!read(2) || !read(answer.toByteArray()[answer.size() - 1] & 0xFF)) {
                return false;
            }
        }
        return true;
    }

    private boolean read(int count) throws IOException {
        for (int i = 0; i < count; i++) {
            Duration left = Duration.ofNanos(endNanos - System.nanoTime());
            int next = left.isPositive() && answer.size() < LONGEST ? wire.read(left) : -1;
            if (next < 0) {
                return false;
            }
            answer.write(next);
        }
        return true;
    }

    /** Waits until the line is quiet, and forgets what is still on it. */
    private static void quiet(RtuWire wire) throws IOException {
        for (int i = 0; i < LONGEST && wire.read(SILENCE) >= 0; i++) {
            // What is left of an earlier answer means nothing.
        }
    }
}
