package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.bytes.Bytes;

/**
 * MAC commands (LoRaWAN L2 1.0.4, chapter 5): what device and network tell each other about the radio, in the frame
 * options or on port 0. Every command is its identifier (CID) and a fixed number of bytes. Integers are little-endian.
 */
public sealed interface MacCommand {
    /** CID of LinkADRReq and LinkADRAns. */
    int LINK_ADR = 0x03;
    /** CID of DevStatusReq and DevStatusAns. */
    int DEV_STATUS = 0x06;

    /** The identifier, 0x02 to 0x0D. */
    int cid();

    /** What a device sends. */
    sealed interface FromDevice extends MacCommand {}

    /** What the network sends. */
    sealed interface ToDevice extends MacCommand {
        /** The bytes, with the identifier. */
        byte[] bytes();
    }

    /** The device asks how well it is heard. CID 0x02. */
    record LinkCheckReq() implements FromDevice {
        @Override
        public int cid() {
            return 0x02;
        }
    }

    /** What became of a {@link LinkAdrReq}; only if all three are true it holds. CID 0x03. */
    record LinkAdrAns(boolean channels, boolean dataRate, boolean power) implements FromDevice {
        @Override
        public int cid() {
            return 0x03;
        }

        boolean accepted() {
            return channels && dataRate && power;
        }
    }

    /** CID 0x04. */
    record DutyCycleAns() implements FromDevice {
        @Override
        public int cid() {
            return 0x04;
        }
    }

    /** CID 0x05. */
    record RxParamSetupAns(boolean channel, boolean dataRate, boolean offset) implements FromDevice {
        @Override
        public int cid() {
            return 0x05;
        }

        boolean accepted() {
            return channel && dataRate && offset;
        }
    }

    /**
     * How the device is. CID 0x06.
     *
     * @param battery 0 outside power, 1 to 254 empty to full, 255 not known
     * @param marginDb of the request that it heard, -32 to 31
     */
    record DevStatusAns(int battery, int marginDb) implements FromDevice {
        @Override
        public int cid() {
            return 0x06;
        }
    }

    /** CID 0x07. */
    record NewChannelAns(boolean frequency, boolean dataRates) implements FromDevice {
        @Override
        public int cid() {
            return 0x07;
        }
    }

    /** CID 0x08. */
    record RxTimingSetupAns() implements FromDevice {
        @Override
        public int cid() {
            return 0x08;
        }
    }

    /** CID 0x09. */
    record TxParamSetupAns() implements FromDevice {
        @Override
        public int cid() {
            return 0x09;
        }
    }

    /** CID 0x0A. */
    record DlChannelAns(boolean frequency, boolean uplinkExists) implements FromDevice {
        @Override
        public int cid() {
            return 0x0A;
        }
    }

    /** The device asks what time it is. CID 0x0D. */
    record DeviceTimeReq() implements FromDevice {
        @Override
        public int cid() {
            return 0x0D;
        }
    }

    /**
     * How well the device is heard. CID 0x02.
     *
     * @param marginDb above the demodulation floor, 0 to 254
     * @param gateways how many heard it
     */
    record LinkCheckAns(int marginDb, int gateways) implements ToDevice {
        @Override
        public int cid() {
            return 0x02;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {0x02, (byte) Math.clamp(marginDb, 0, 254), (byte) Math.clamp(gateways, 1, 255)};
        }
    }

    /**
     * Which data rate, power and channels to use. CID 0x03.
     *
     * @param channelMask 16 channels, those that the control value says
     * @param maskControl 0 to 7, meaning by region (RP002, ChMaskCntl)
     * @param repetitions how often each uplink is sent, 1 to 15
     */
    record LinkAdrReq(int dataRate, int txPower, int channelMask, int maskControl, int repetitions)
            implements ToDevice {
        /** Reads a request that was sent. */
        static LinkAdrReq of(byte[] bytes) {
            return new LinkAdrReq(
                    bytes[1] >> 4 & 0x0F,
                    bytes[1] & 0x0F,
                    Bytes.little(bytes, 2, 2),
                    bytes[4] >> 4 & 0x07,
                    bytes[4] & 0x0F);
        }

        @Override
        public int cid() {
            return 0x03;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {
                0x03,
                (byte) (dataRate << 4 | txPower),
                (byte) channelMask,
                (byte) (channelMask >> 8),
                (byte) (maskControl << 4 | repetitions)
            };
        }
    }

    /** The device may send a share of 1 / 2^exponent of the time. CID 0x04. */
    record DutyCycleReq(int exponent) implements ToDevice {
        @Override
        public int cid() {
            return 0x04;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {0x04, (byte) exponent};
        }
    }

    /** Where the second window is, and how far the first is lowered. CID 0x05. */
    record RxParamSetupReq(int rx1Offset, int rx2DataRate, long rx2FrequencyHz) implements ToDevice {
        @Override
        public int cid() {
            return 0x05;
        }

        @Override
        public byte[] bytes() {
            byte[] bytes = {0x05, (byte) (rx1Offset << 4 | rx2DataRate), 0, 0, 0};
            ChannelFrequency.put(bytes, 2, rx2FrequencyHz);
            return bytes;
        }
    }

    /** Asks for {@link DevStatusAns}. CID 0x06. */
    record DevStatusReq() implements ToDevice {
        @Override
        public int cid() {
            return 0x06;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {0x06};
        }
    }

    /** One more channel; a frequency of 0 takes it away. CID 0x07. */
    record NewChannelReq(int channel, long frequencyHz, int lowestDataRate, int highestDataRate) implements ToDevice {
        @Override
        public int cid() {
            return 0x07;
        }

        @Override
        public byte[] bytes() {
            byte[] bytes = {0x07, (byte) channel, 0, 0, 0, (byte) (highestDataRate << 4 | lowestDataRate)};
            ChannelFrequency.put(bytes, 2, frequencyHz);
            return bytes;
        }
    }

    /** How long after an uplink the first window opens, 1 to 15 s. CID 0x08. */
    record RxTimingSetupReq(int delaySeconds) implements ToDevice {
        @Override
        public int cid() {
            return 0x08;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {0x08, (byte) (delaySeconds & 0x0F)};
        }
    }

    /**
     * Dwell times and radiated power, in regions that have them. CID 0x09.
     *
     * @param eirpIndex 0 to 15 for 8 to 36 dBm
     */
    record TxParamSetupReq(boolean downlinkDwellTime, boolean uplinkDwellTime, int eirpIndex) implements ToDevice {
        @Override
        public int cid() {
            return 0x09;
        }

        @Override
        public byte[] bytes() {
            return new byte[] {0x09, (byte) ((downlinkDwellTime ? 0x20 : 0) | (uplinkDwellTime ? 0x10 : 0) | eirpIndex)
            };
        }
    }

    /** Another frequency for the first window of a channel. CID 0x0A. */
    record DlChannelReq(int channel, long frequencyHz) implements ToDevice {
        @Override
        public int cid() {
            return 0x0A;
        }

        @Override
        public byte[] bytes() {
            byte[] bytes = {0x0A, (byte) channel, 0, 0, 0};
            ChannelFrequency.put(bytes, 2, frequencyHz);
            return bytes;
        }
    }

    /** The time at the end of the uplink that asked: seconds since 1980-01-06 UTC of the GPS, and 1/256 s. CID 0x0D. */
    record DeviceTimeAns(Instant uplinkEnded) implements ToDevice {
        @Override
        public int cid() {
            return 0x0D;
        }

        @Override
        public byte[] bytes() {
            long millis = GpsTime.millis(uplinkEnded);
            return ByteBuffer.allocate(6)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .put((byte) 0x0D)
                    .putInt((int) (millis / 1_000))
                    .put((byte) (millis % 1_000 * 256 / 1_000))
                    .array();
        }
    }

    /**
     * The commands of a device, in order. Reading ends at the first identifier that is not known, since nobody can say
     * how long it is; what came before counts.
     */
    static List<FromDevice> fromDevice(byte[] bytes) {
        List<FromDevice> commands = new ArrayList<>();
        int at = 0;
        while (at < bytes.length) {
            int length =
                    switch (bytes[at]) {
                        case 0x02, 0x04, 0x08, 0x09, 0x0D -> 0;
                        case 0x03, 0x05, 0x07, 0x0A -> 1;
                        case 0x06 -> 2;
                        default -> -1;
                    };
            if (length < 0 || at + 1 + length > bytes.length) {
                return commands;
            }
            int first = length > 0 ? bytes[at + 1] & 0xFF : 0;
            commands.add(
                    switch (bytes[at]) {
                        case 0x02 -> new LinkCheckReq();
                        case 0x03 -> new LinkAdrAns((first & 1) != 0, (first & 2) != 0, (first & 4) != 0);
                        case 0x04 -> new DutyCycleAns();
                        case 0x05 -> new RxParamSetupAns((first & 1) != 0, (first & 2) != 0, (first & 4) != 0);
                        // Six bits with a sign.
                        case 0x06 -> new DevStatusAns(first, (bytes[at + 2] & 0x3F) << 26 >> 26);
                        case 0x07 -> new NewChannelAns((first & 1) != 0, (first & 2) != 0);
                        case 0x08 -> new RxTimingSetupAns();
                        case 0x09 -> new TxParamSetupAns();
                        case 0x0A -> new DlChannelAns((first & 1) != 0, (first & 2) != 0);
                        default -> new DeviceTimeReq();
                    });
            at += 1 + length;
        }
        return commands;
    }

    /** The bytes of several commands, one after the other. */
    static byte[] toBytes(List<? extends ToDevice> commands) {
        byte[][] parts = commands.stream().map(ToDevice::bytes).toArray(byte[][]::new);
        int length = 0;
        for (byte[] part : parts) {
            length += part.length;
        }
        ByteBuffer all = ByteBuffer.allocate(length);
        for (byte[] part : parts) {
            all.put(part);
        }
        return all.array();
    }
}
