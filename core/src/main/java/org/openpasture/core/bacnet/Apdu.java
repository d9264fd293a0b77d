package org.openpasture.core.bacnet;

import java.nio.ByteBuffer;
import org.openpasture.core.entity.Ids;

/** The application's part of a packet, unsegmented (ASHRAE 135, 20.1). */
public sealed interface Apdu {
    /**
     * Something is wanted, and an answer waited for. Answers in segments are not accepted; 1,476 bytes are.
     *
     * @param invokeId 0 to 255, by which the answer is found
     */
    record Confirmed(int invokeId, Service service, byte[] content) implements Apdu {}

    /** Something is said to whoever hears it. */
    record Unconfirmed(Announcement announcement, byte[] content) implements Apdu {}

    /** It was done. */
    record Done(int invokeId, int service) implements Apdu {}

    /** It was done, and gave this. */
    record Answer(int invokeId, int service, byte[] content) implements Apdu {}

    /**
     * It was not done.
     *
     * @param reason in words
     */
    record Failed(int invokeId, String reason) implements Apdu {}

    /** Services that are answered, by their number (BACnetConfirmedServiceChoice). */
    enum Service {
        COV_NOTIFICATION(1),
        SUBSCRIBE_COV(5),
        READ_PROPERTY(12),
        READ_PROPERTY_MULTIPLE(14),
        WRITE_PROPERTY(15),
        READ_RANGE(26),
        OTHER(255);

        private final int code;

        Service(int code) {
            this.code = code;
        }

        public int code() {
            return code;
        }

        private static Service of(int code) {
            return Ids.find(values(), one -> one.code, code).orElse(OTHER);
        }
    }

    /** Services that are not answered, by their number (BACnetUnconfirmedServiceChoice). */
    enum Announcement {
        I_AM(0),
        COV_NOTIFICATION(2),
        WHO_IS(8),
        OTHER(255);

        private final int code;

        Announcement(int code) {
            this.code = code;
        }

        private static Announcement of(int code) {
            return Ids.find(values(), one -> one.code, code).orElse(OTHER);
        }
    }

    /** Its bytes. */
    default byte[] toBytes() {
        return switch (this) {
            case Confirmed(int id, Service service, byte[] content) ->
                ByteBuffer.allocate(4 + content.length)
                        .put((byte) 0x00)
                        .put((byte) 0x05)
                        .put((byte) id)
                        .put((byte) service.code)
                        .put(content)
                        .array();
            case Unconfirmed(Announcement announcement, byte[] content) ->
                ByteBuffer.allocate(2 + content.length)
                        .put((byte) 0x10)
                        .put((byte) announcement.code)
                        .put(content)
                        .array();
            case Done(int id, int service) -> new byte[] {0x20, (byte) id, (byte) service};
            case Answer(int id, int service, byte[] content) ->
                ByteBuffer.allocate(3 + content.length)
                        .put((byte) 0x30)
                        .put((byte) id)
                        .put((byte) service)
                        .put(content)
                        .array();
            case Failed(int id, String reason) -> new byte[] {0x60, (byte) id, 0x09};
        };
    }

    /**
     * Reads one.
     *
     * @throws IllegalArgumentException if it is malformed, or in segments
     */
    static Apdu of(byte[] bytes) {
        if (bytes.length < 2) {
            throw new IllegalArgumentException("it ends in the middle of a header");
        }
        int kind = bytes[0] >> 4 & 0x0F;
        boolean segmented = (bytes[0] & 0x08) != 0;
        if (segmented && (kind == 0 || kind == 3)) {
            throw new IllegalArgumentException("it is segmented, although that was not requested");
        }
        return switch (kind) {
            case 0 -> new Confirmed(at(bytes, 2), Service.of(at(bytes, 3)), from(bytes, 4));
            case 1 -> new Unconfirmed(Announcement.of(at(bytes, 1)), from(bytes, 2));
            case 2 -> new Done(at(bytes, 1), at(bytes, 2));
            case 3 -> new Answer(at(bytes, 1), at(bytes, 2), from(bytes, 3));
            case 5 -> new Failed(at(bytes, 1), Refusal.error(new TagReader(from(bytes, 3), 0)));
            case 6 -> new Failed(at(bytes, 1), Refusal.reject(at(bytes, 2)));
            case 7 -> new Failed(at(bytes, 1), Refusal.abort(at(bytes, 2)));
            default ->
                throw new IllegalArgumentException("there is no kind " + kind + " of messages, or it is for segments");
        };
    }

    private static int at(byte[] bytes, int index) {
        if (index >= bytes.length) {
            throw new IllegalArgumentException("it ends in the middle of a header");
        }
        return bytes[index] & 0xFF;
    }

    private static byte[] from(byte[] bytes, int index) {
        if (index > bytes.length) {
            throw new IllegalArgumentException("it ends in the middle of a header");
        }
        byte[] rest = new byte[bytes.length - index];
        System.arraycopy(bytes, index, rest, 0, rest.length);
        return rest;
    }
}
