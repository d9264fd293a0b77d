package org.openpasture.engine.heard;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;

/** Messages as people can read them: text where it is text, else hex digits. */
public final class MessageText {
    private static final int LONGEST = 2_000;

    private MessageText() {}

    /** Text, or hex digits, of the first 2,000 bytes. */
    public static String of(byte[] bytes) {
        return text(bytes).orElseGet(() -> HexFormat.of().formatHex(shown(bytes)) + more(bytes));
    }

    /** The text of bytes; empty if they are none. */
    public static Optional<String> text(byte[] bytes) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(shown(bytes)))
                    .toString();
            if (text.chars().noneMatch(c -> c < 0x20 && c != '\n' && c != '\r' && c != '\t' || c == 0x7F)) {
                return Optional.of(text.strip() + more(bytes));
            }
        } catch (CharacterCodingException e) {
            // It is no text; hex digits then.
        }
        return Optional.empty();
    }

    private static byte[] shown(byte[] bytes) {
        return bytes.length > LONGEST ? Arrays.copyOf(bytes, LONGEST) : bytes;
    }

    private static String more(byte[] bytes) {
        return bytes.length > LONGEST ? "…" : "";
    }
}
