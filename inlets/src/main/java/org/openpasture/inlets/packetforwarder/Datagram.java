package org.openpasture.inlets.packetforwarder;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import org.openpasture.core.lorawan.Eui64;

/**
 * A datagram of the UDP packet-forwarder protocol, version 2: version 1 byte | token 2 | kind 1 | [gateway EUI 8] |
 * [JSON]. The token is random and repeated in the answer.
 */
sealed interface Datagram {
    int VERSION = 2;
    int PUSH_DATA = 0;
    int PUSH_ACK = 1;
    int PULL_DATA = 2;
    int PULL_RESP = 3;
    int PULL_ACK = 4;
    int TX_ACK = 5;

    /** The gateway sends what it heard, or its state. */
    record PushData(int token, Eui64 gateway, byte[] json) implements Datagram {}

    /** The gateway keeps the way open by which downlinks reach it. */
    record PullData(int token, Eui64 gateway) implements Datagram {}

    /** The gateway says what became of a downlink; no JSON means that all went well. */
    record TxAck(int token, Eui64 gateway, byte[] json) implements Datagram {}

    /** Reads a datagram that a gateway sent; empty, with nothing thrown, for anything else. */
    static Optional<Datagram> read(byte[] bytes, int length) {
        if (length < 12 || bytes[0] != VERSION) {
            return Optional.empty();
        }
        ByteBuffer buffer = ByteBuffer.wrap(bytes, 0, length);
        int token = buffer.getShort(1) & 0xFFFF;
        Eui64 gateway = new Eui64(buffer.getLong(4));
        byte[] json = Arrays.copyOfRange(bytes, 12, length);
        return switch (bytes[3]) {
            case PUSH_DATA -> Optional.of(new PushData(token, gateway, json));
            case PULL_DATA -> length == 12 ? Optional.of(new PullData(token, gateway)) : Optional.empty();
            case TX_ACK -> Optional.of(new TxAck(token, gateway, json));
            default -> Optional.empty();
        };
    }

    /** PUSH_ACK or PULL_ACK. */
    static byte[] acknowledge(int token, int kind) {
        return new byte[] {VERSION, (byte) (token >> 8), (byte) token, (byte) kind};
    }

    /** PULL_RESP, which hands the gateway a frame to send. */
    static byte[] pullResponse(int token, String json) {
        byte[] text = json.getBytes(StandardCharsets.UTF_8);
        return ByteBuffer.allocate(4 + text.length)
                .put((byte) VERSION)
                .putShort((short) token)
                .put((byte) PULL_RESP)
                .put(text)
                .array();
    }
}
