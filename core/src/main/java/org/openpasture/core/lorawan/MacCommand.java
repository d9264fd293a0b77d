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
    /** CID of LinkCheckReq and LinkCheckAns. */
    int LINK_CHECK = 0x02;
    /** CID of LinkADRReq and LinkADRAns. */
    int LINK_ADR = 0x03;
    /** CID of DutyCycleReq and DutyCycleAns. */
    int DUTY_CYCLE = 0x04;
    /** CID of RXParamSetupReq and RXParamSetupAns. */
    int RX_PARAM_SETUP = 0x05;
    /** CID of DevStatusReq and DevStatusAns. */
    int DEV_STATUS = 0x06;
    /** CID of NewChannelReq and NewChannelAns. */
    int NEW_CHANNEL = 0x07;
    /** CID of RXTimingSetupReq and RXTimingSetupAns. */
    int RX_TIMING_SETUP = 0x08;
    /** CID of TxParamSetupReq and TxParamSetupAns. */
    int TX_PARAM_SETUP = 0x09;
    /** CID of DlChannelReq and DlChannelAns. */
    int DL_CHANNEL = 0x0A;
    /** CID of DeviceTimeReq and DeviceTimeAns. */
    int DEVICE_TIME = 0x0D;

    /** What a device sends. */
    sealed interface FromDevice extends MacCommand {}

    /** What the network sends. */
    sealed interface ToDevice extends MacCommand {
        /** The bytes, with the identifier. */
        byte[] bytes();

        /** The identifier. */
        default int cid() {
            return bytes()[0];
        }
    }

    /** The device asks how well it is heard. CID 0x02. */
    record LinkCheckReq() implements FromDevice {}

    /** What became of a {@link LinkAdrReq}; only if all three are true it holds. CID 0x03. */
    record LinkAdrAns(boolean channels, boolean dataRate, boolean power) implements FromDevice {
        boolean accepted() {
            return channels && dataRate && power;
        }
    }

    /** CID 0x04. */
    record DutyCycleAns() implements FromDevice {}

    /** CID 0x05. */
    record RxParamSetupAns(boolean channel, boolean dataRate, boolean offset) implements FromDevice {
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
    record DevStatusAns(int battery, int marginDb) implements FromDevice {}

    /** CID 0x07. */
    record NewChannelAns(boolean frequency, boolean dataRates) implements FromDevice {}

    /** CID 0x08. */
    record RxTimingSetupAns() implements FromDevice {}

    /** CID 0x09. */
    record TxParamSetupAns() implements FromDevice {}

    /** CID 0x0A. */
    record DlChannelAns(boolean frequency, boolean uplinkExists) implements FromDevice {}

    /** The device asks what time it is. CID 0x0D. */
    record DeviceTimeReq() implements FromDevice {}

    /**
     * How well the device is heard. CID 0x02.
     *
     * @param marginDb above the demodulation floor, 0 to 254
     * @param gateways how many heard it
     */
    record LinkCheckAns(int marginDb, int gateways) implements ToDevice {
        @Override
        public byte[] bytes() {
            return new byte[] {LINK_CHECK, (byte) Math.clamp(marginDb, 0, 254), (byte) Math.clamp(gateways, 1, 255)};
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
        public byte[] bytes() {
            return new byte[] {
                LINK_ADR,
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
        public byte[] bytes() {
            return new byte[] {DUTY_CYCLE, (byte) exponent};
        }
    }

    /** Where the second window is, and how far the first is lowered. CID 0x05. */
    record RxParamSetupReq(int rx1Offset, int rx2DataRate, long rx2FrequencyHz) implements ToDevice {
        @Override
        public byte[] bytes() {
            byte[] bytes = {RX_PARAM_SETUP, (byte) (rx1Offset << 4 | rx2DataRate), 0, 0, 0};
            ChannelFrequency.put(bytes, 2, rx2FrequencyHz);
            return bytes;
        }
    }

    /** Asks for {@link DevStatusAns}. CID 0x06. */
    record DevStatusReq() implements ToDevice {
        @Override
        public byte[] bytes() {
            return new byte[] {DEV_STATUS};
        }
    }

    /** One more channel; a frequency of 0 takes it away. CID 0x07. */
    record NewChannelReq(int channel, long frequencyHz, int lowestDataRate, int highestDataRate) implements ToDevice {
        @Override
        public byte[] bytes() {
            byte[] bytes = {NEW_CHANNEL, (byte) channel, 0, 0, 0, (byte) (highestDataRate << 4 | lowestDataRate)};
            ChannelFrequency.put(bytes, 2, frequencyHz);
            return bytes;
        }
    }

    /** How long after an uplink the first window opens, 1 to 15 s. CID 0x08. */
    record RxTimingSetupReq(int delaySeconds) implements ToDevice {
        @Override
        public byte[] bytes() {
            return new byte[] {RX_TIMING_SETUP, (byte) (delaySeconds & 0x0F)};
        }
    }

    /**
     * Dwell times and radiated power, in regions that have them. CID 0x09.
     *
     * @param eirpIndex 0 to 15 for 8 to 36 dBm
     */
    record TxParamSetupReq(boolean downlinkDwellTime, boolean uplinkDwellTime, int eirpIndex) implements ToDevice {
        @Override
        public byte[] bytes() {
            return new byte[] {
                TX_PARAM_SETUP, (byte) ((downlinkDwellTime ? 0x20 : 0) | (uplinkDwellTime ? 0x10 : 0) | eirpIndex)
            };
        }
    }

    /** Another frequency for the first window of a channel. CID 0x0A. */
    record DlChannelReq(int channel, long frequencyHz) implements ToDevice {
        @Override
        public byte[] bytes() {
            byte[] bytes = {DL_CHANNEL, (byte) channel, 0, 0, 0};
            ChannelFrequency.put(bytes, 2, frequencyHz);
            return bytes;
        }
    }

    /** The time at the end of the uplink that asked: seconds since 1980-01-06 UTC of the GPS, and 1/256 s. CID 0x0D. */
    record DeviceTimeAns(Instant uplinkEnded) implements ToDevice {
        @Override
        public byte[] bytes() {
            long millis = GpsTime.millis(uplinkEnded);
            return ByteBuffer.allocate(6)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .put((byte) DEVICE_TIME)
                    .putInt((int) (millis / 1_000))
                    .put((byte) (millis % 1_000 * 256 / 1_000))
                    .array();
        }
    }

    /** The name of the network's request with an identifier, as the standard has it; "?" for another number. */
    static String requestName(int cid) {
        return switch (cid) {
            case LINK_ADR -> "LinkADRReq";
            case DUTY_CYCLE -> "DutyCycleReq";
            case RX_PARAM_SETUP -> "RXParamSetupReq";
            case DEV_STATUS -> "DevStatusReq";
            case NEW_CHANNEL -> "NewChannelReq";
            case RX_TIMING_SETUP -> "RXTimingSetupReq";
            case TX_PARAM_SETUP -> "TxParamSetupReq";
            case DL_CHANNEL -> "DlChannelReq";
            default -> "?";
        };
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
                        case LINK_CHECK, DUTY_CYCLE, RX_TIMING_SETUP, TX_PARAM_SETUP, DEVICE_TIME -> 0;
                        case LINK_ADR, RX_PARAM_SETUP, NEW_CHANNEL, DL_CHANNEL -> 1;
                        case DEV_STATUS -> 2;
                        default -> -1;
                    };
            if (length < 0 || at + 1 + length > bytes.length) {
                return commands;
            }
            int first = length > 0 ? bytes[at + 1] & 0xFF : 0;
            commands.add(
                    switch (bytes[at]) {
                        case LINK_CHECK -> new LinkCheckReq();
                        case LINK_ADR -> new LinkAdrAns((first & 1) != 0, (first & 2) != 0, (first & 4) != 0);
                        case DUTY_CYCLE -> new DutyCycleAns();
                        case RX_PARAM_SETUP ->
                            new RxParamSetupAns((first & 1) != 0, (first & 2) != 0, (first & 4) != 0);
                        // Six bits with a sign.
                        case DEV_STATUS -> new DevStatusAns(first, (bytes[at + 2] & 0x3F) << 26 >> 26);
                        case NEW_CHANNEL -> new NewChannelAns((first & 1) != 0, (first & 2) != 0);
                        case RX_TIMING_SETUP -> new RxTimingSetupAns();
                        case TX_PARAM_SETUP -> new TxParamSetupAns();
                        case DL_CHANNEL -> new DlChannelAns((first & 1) != 0, (first & 2) != 0);
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
