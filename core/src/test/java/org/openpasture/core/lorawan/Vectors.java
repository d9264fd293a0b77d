package org.openpasture.core.lorawan;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HexFormat;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;

/** Frames and keys made with an implementation that is not ours; see src/test/vectors. */
record Vectors(
        String madeWith,
        List<Data> data,
        List<Join> joins,
        List<Keys> sessions,
        List<Accept> accepts,
        List<Ack> acknowledgements,
        List<Down> downlinks) {
    record Data(
            boolean confirmed,
            String devAddr,
            String nwkSKey,
            String appSKey,
            long counter,
            boolean adr,
            int port,
            String options,
            String payload,
            String frame) {
        Session session(long lastUp) {
            return new Session(DevAddr.of(devAddr), AesKey.ofHex(nwkSKey), AesKey.ofHex(appSKey), lastUp, 0);
        }
    }

    record Join(String joinEui, String devEui, int nonce, String appKey, String frame) {}

    record Keys(String appKey, int netId, int joinNonce, int devNonce, String nwkSKey, String appSKey) {}

    record Accept(
            String appKey,
            int netId,
            int joinNonce,
            int devNonce,
            String nwkSKey,
            String appSKey,
            String devAddr,
            int dlSettings,
            int rxDelay,
            List<Long> channels,
            String frame) {}

    record Ack(String devAddr, String nwkSKey, String appSKey, long counter, String frame) {}

    record Down(
            String devAddr,
            String nwkSKey,
            String appSKey,
            long counter,
            int port,
            String payload,
            boolean confirmed,
            String options,
            boolean adr,
            String frame) {}

    static Vectors load() {
        try (InputStream in = Vectors.class.getResourceAsStream("vectors.json")) {
            return JsonMapper.builder().build().readValue(in, Vectors.class);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static byte[] hex(String digits) {
        return HexFormat.of().parseHex(digits);
    }

    static PhyPayload.DataUp dataUp(String frame) {
        return (PhyPayload.DataUp) ((PhyPayload.Parsed.Ok) PhyPayload.parse(hex(frame))).frame();
    }
}
