package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * The answer to a join request, and the session that begins with it (LoRaWAN L2 1.0.4, 6.2.3): MHDR |
 * encrypted(JoinNonce 3 | NetID 3 | DevAddr 4 | DLSettings 1 | RxDelay 1 | CFList 16 | MIC 4).
 *
 * @param bytes as sent, 33 bytes with a channel list or 17 without
 */
public record JoinAccept(byte[] bytes, Session session) {
    private static final byte MHDR = 0x20;

    /**
     * Answers a join request whose key has been checked.
     *
     * @param joinNonce 24 bits, never used twice with this key
     * @param netId 24 bits
     * @param channelList 16 bytes of channels beside the region's own (see {@link MacLayer#channelList}), or none
     * @param rx1DelaySeconds 1 to 15
     */
    public static JoinAccept answer(
            PhyPayload.JoinRequest request,
            AesKey appKey,
            int joinNonce,
            int netId,
            DevAddr devAddr,
            int dlSettings,
            int rx1DelaySeconds,
            byte[] channelList) {
        ByteBuffer body = ByteBuffer.allocate(12 + channelList.length).order(ByteOrder.LITTLE_ENDIAN);
        put24(body, joinNonce);
        put24(body, netId);
        body.putInt(devAddr.bits())
                .put((byte) dlSettings)
                .put((byte) rx1DelaySeconds)
                .put(channelList);
        byte[] covered = new byte[1 + body.capacity()];
        covered[0] = MHDR;
        System.arraycopy(body.array(), 0, covered, 1, body.capacity());
        byte[] code = Arrays.copyOf(appKey.cmac(covered), 4);

        byte[] clear = Arrays.copyOf(body.array(), body.capacity() + 4);
        System.arraycopy(code, 0, clear, body.capacity(), 4);
        byte[] hidden = appKey.decryptBlocks(clear);
        byte[] bytes = new byte[1 + hidden.length];
        bytes[0] = MHDR;
        System.arraycopy(hidden, 0, bytes, 1, hidden.length);
        return new JoinAccept(
                bytes,
                Session.fresh(
                        devAddr,
                        sessionKey(appKey, 0x01, joinNonce, netId, request.devNonce()),
                        sessionKey(appKey, 0x02, joinNonce, netId, request.devNonce())));
    }

    /** NwkSKey (first 0x01) or AppSKey (first 0x02), LoRaWAN L2 1.0.4, 6.2.3. */
    private static AesKey sessionKey(AesKey appKey, int first, int joinNonce, int netId, int devNonce) {
        ByteBuffer block =
                ByteBuffer.allocate(16).order(ByteOrder.LITTLE_ENDIAN).put((byte) first);
        put24(block, joinNonce);
        put24(block, netId);
        block.putShort((short) devNonce);
        return AesKey.of(appKey.encryptBlocks(block.array()));
    }

    private static void put24(ByteBuffer buffer, int value) {
        buffer.put((byte) value).put((byte) (value >> 8)).put((byte) (value >> 16));
    }
}
