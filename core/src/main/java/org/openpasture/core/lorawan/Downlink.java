package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * A data frame for a device, ready to be sent, and the session after it (LoRaWAN L2 1.0.4, 4.3): MHDR | DevAddr 4 |
 * FCtrl 1 | FCnt 2 | FOpts 0-15 | [FPort 1 | FRMPayload] | MIC 4.
 *
 * @param counter the full counter that it carries
 */
public record Downlink(byte[] bytes, long counter, Session session) {
    /** The most that fits into the options. */
    public static final int MOST_OPTIONS = 15;

    private static final int UNCONFIRMED = 0x60;
    private static final int CONFIRMED = 0xA0;
    private static final int ADAPTIVE = 0x80;
    private static final int ACK = 0x20;
    private static final int PENDING = 0x10;

    /**
     * What a frame says.
     *
     * @param confirmed whether the device has to acknowledge it
     * @param acknowledges whether it acknowledges a confirmed uplink
     * @param adaptive whether the network manages the device's data rate
     * @param pending whether more waits, so that the device had better ask soon
     * @param options MAC commands, at most {@value #MOST_OPTIONS} bytes
     * @param port 0 for MAC commands in the payload, then without options; 1 to 223 for data; -1 for none
     * @param payload in clear
     */
    public record Content(
            boolean confirmed,
            boolean acknowledges,
            boolean adaptive,
            boolean pending,
            byte[] options,
            int port,
            byte[] payload) {
        public Content {
            if (options.length > MOST_OPTIONS) {
                throw new IllegalArgumentException(
                        "MAC commands of " + options.length + " bytes do not fit into the options");
            }
            if (port == 0 && options.length > 0) {
                throw new IllegalArgumentException("MAC commands are either in the options or on port 0");
            }
        }
    }

    /** Makes the frame with the session's next counter. */
    public static Downlink of(Session session, Content content) {
        long counter = session.nextDown();
        int data = content.port() < 0 ? 0 : 1 + content.payload().length;
        ByteBuffer frame = ByteBuffer.allocate(8 + content.options().length + data + 4)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put((byte) (content.confirmed() ? CONFIRMED : UNCONFIRMED))
                .putInt(session.devAddr().bits())
                .put((byte) ((content.adaptive() ? ADAPTIVE : 0)
                        | (content.acknowledges() ? ACK : 0)
                        | (content.pending() ? PENDING : 0)
                        | content.options().length))
                .putShort((short) counter)
                .put(content.options());
        if (content.port() >= 0) {
            AesKey key = content.port() == 0 ? session.nwkSKey() : session.appSKey();
            frame.put((byte) content.port())
                    .put(FrameCrypto.crypt(key, FrameCrypto.DOWNLINK, session.devAddr(), counter, content.payload()));
        }
        byte[] code = FrameCrypto.dataCode(
                session.nwkSKey(), FrameCrypto.DOWNLINK, session.devAddr(), counter, frame.array(), frame.position());
        frame.put(code, 0, 4);
        return new Downlink(frame.array(), counter, session.withNextDown(counter + 1));
    }
}
