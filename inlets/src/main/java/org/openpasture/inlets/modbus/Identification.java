package org.openpasture.inlets.modbus;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.StringJoiner;

/**
 * Who a device says that it is: vendor, product code and revision (application protocol 1.1b3, 6.21, "basic" objects 0
 * to 2). The answer is function 0x2B, kind of interface 0x0E, kind of reading, conformity, whether more follows, the
 * next object, how many objects are here; then for each its id, length and text.
 */
final class Identification {
    private static final byte FUNCTION = 0x2B;
    private static final byte KIND = 0x0E;
    private static final byte BASIC = 1;
    private static final int HEAD = 7;
    private static final int LAST_BASIC = 2;

    private Identification() {}

    /** What asks for it, from the first object on. */
    static byte[] request() {
        return new byte[] {FUNCTION, KIND, BASIC, 0};
    }

    /**
     * The answer for people, as in "Quern Instruments, PM-3, 1.4"; empty if it says nothing. What does not fit into the
     * answer is not asked for: basic objects do.
     *
     * @throws IllegalArgumentException if it is no such answer
     */
    static Optional<String> inWords(byte[] answer) {
        ByteBuffer in = ByteBuffer.wrap(answer);
        if (in.remaining() < HEAD || in.get() != FUNCTION || in.get() != KIND) {
            throw new IllegalArgumentException("it does not say who it is");
        }
        int count = in.get(HEAD - 1) & 0xFF;
        in.position(HEAD);
        StringJoiner words = new StringJoiner(", ");
        for (int i = 0; i < count; i++) {
            if (in.remaining() < 2) {
                throw new IllegalArgumentException("the device identification is cut off");
            }
            int id = in.get() & 0xFF;
            byte[] text = new byte[Math.min(in.get() & 0xFF, in.remaining())];
            in.get(text);
            String said = new String(text, StandardCharsets.UTF_8)
                    .replaceAll("\\p{Cntrl}", " ")
                    .strip();
            if (id <= LAST_BASIC && !said.isEmpty()) {
                words.add(said);
            }
        }
        return words.length() == 0 ? Optional.empty() : Optional.of(words.toString());
    }
}
