package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * A LoRaWAN frame as it is on the air, parsed but neither checked nor decrypted (LoRaWAN L2 1.0.4, chapter 4). All
 * integers are little-endian.
 */
public sealed interface PhyPayload {
    /** Shortest frame: a data frame without port, MHDR 1 + FHDR 7 + MIC 4. */
    int MIN_LENGTH = 12;
    /** Longest that any modem can receive. */
    int MAX_LENGTH = 255;

    /** Over-the-air activation asked for: MHDR | JoinEUI 8 | DevEUI 8 | DevNonce 2 | MIC 4. */
    record JoinRequest(Eui64 joinEui, Eui64 devEui, int devNonce, byte[] bytes) implements PhyPayload {
        /** Whether the integrity code was made with this key. */
        public boolean isAuthentic(AesKey appKey) {
            byte[] code = appKey.cmac(Arrays.copyOf(bytes, bytes.length - 4));
            return matches(code, bytes);
        }
    }

    /**
     * Data from a device: MHDR | DevAddr 4 | FCtrl 1 | FCnt 2 | FOpts 0-15 | [FPort 1 | FRMPayload] | MIC 4.
     *
     * @param counter the low 16 bits of the uplink counter
     * @param port -1 if there is none
     * @param adaptiveDataRate whether the network may manage its data rate
     * @param wantsSign whether it asks for any downlink, as it heard none for long (ADRACKReq)
     * @param payload still encrypted
     */
    record DataUp(
            boolean confirmed,
            DevAddr devAddr,
            boolean adaptiveDataRate,
            boolean wantsSign,
            boolean acknowledges,
            int counter,
            byte[] options,
            int port,
            byte[] payload,
            byte[] bytes)
            implements PhyPayload {
        /** Whether the integrity code fits this key and the full 32-bit counter. */
        public boolean isAuthentic(AesKey nwkSKey, long fullCounter) {
            byte[] code =
                    FrameCrypto.dataCode(nwkSKey, FrameCrypto.UPLINK, devAddr, fullCounter, bytes, bytes.length - 4);
            return matches(code, bytes);
        }
    }

    /** What came of parsing. */
    sealed interface Parsed {
        record Ok(PhyPayload frame) implements Parsed {}

        record Refused(String reason) implements Parsed {}
    }

    /** Parses an uplink. Never throws for any bytes. */
    static Parsed parse(byte[] bytes) {
        if (bytes.length < MIN_LENGTH) {
            return new Parsed.Refused("too short for a LoRaWAN frame: " + bytes.length + " bytes");
        }
        if (bytes.length > MAX_LENGTH) {
            return new Parsed.Refused("too long for a LoRaWAN frame: " + bytes.length + " bytes");
        }
        int header = bytes[0] & 0xFF;
        if ((header & 0x03) != 0) {
            return new Parsed.Refused("not LoRaWAN release 1 (major version " + (header & 0x03) + ")");
        }
        return switch (header >> 5) {
            case 0 -> parseJoin(bytes);
            case 2 -> parseData(bytes, false);
            case 4 -> parseData(bytes, true);
            case 1, 3, 5 -> new Parsed.Refused("a downlink of some network, not a device's frame");
            case 7 -> new Parsed.Refused("a proprietary frame, not LoRaWAN");
            default -> new Parsed.Refused("a frame type that is not in use (" + (header >> 5) + ")");
        };
    }

    private static Parsed parseJoin(byte[] bytes) {
        if (bytes.length != 23) {
            return new Parsed.Refused("a join request has 23 bytes, this has " + bytes.length);
        }
        ByteBuffer buffer = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        return new Parsed.Ok(new JoinRequest(
                new Eui64(buffer.getLong(1)), new Eui64(buffer.getLong(9)), buffer.getShort(17) & 0xFFFF, bytes));
    }

    private static Parsed parseData(byte[] bytes, boolean confirmed) {
        ByteBuffer buffer = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        DevAddr address = new DevAddr(buffer.getInt(1));
        int control = bytes[5] & 0xFF;
        int counter = buffer.getShort(6) & 0xFFFF;
        int optionsEnd = 8 + (control & 0x0F);
        int payloadEnd = bytes.length - 4;
        if (optionsEnd > payloadEnd) {
            return new Parsed.Refused(
                    "options of " + (control & 0x0F) + " bytes do not fit into a frame of " + bytes.length);
        }
        byte[] options = Arrays.copyOfRange(bytes, 8, optionsEnd);
        boolean hasPort = optionsEnd < payloadEnd;
        int port = hasPort ? bytes[optionsEnd] & 0xFF : -1;
        if (port == 0 && options.length > 0) {
            return new Parsed.Refused("MAC commands both in the options and on port 0, which the standard forbids");
        }
        byte[] payload = hasPort ? Arrays.copyOfRange(bytes, optionsEnd + 1, payloadEnd) : new byte[0];
        return new Parsed.Ok(new DataUp(
                confirmed,
                address,
                (control & 0x80) != 0,
                (control & 0x40) != 0,
                (control & 0x20) != 0,
                counter,
                options,
                port,
                payload,
                bytes));
    }

    private static boolean matches(byte[] code, byte[] frame) {
        int difference = 0;
        for (int i = 0; i < 4; i++) {
            difference |= code[i] ^ frame[frame.length - 4 + i];
        }
        return difference == 0;
    }
}
