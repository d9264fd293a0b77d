package org.openpasture.simulator.radio;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** The radio of a LoRaWAN 1.0.x device, written from the device's side: joins, sends, understands what comes back. */
public final class SimulatedDevice {
    private final String devEui;
    private final String joinEui;
    private final byte[] appKey;
    private int devNonce;
    private long devAddr;
    private byte[] nwkSKey = new byte[0];
    private byte[] appSKey = new byte[0];
    private long counterUp;
    private boolean joined;
    private boolean adaptive;
    private int battery = 230;
    private boolean acknowledgeNext;
    private final List<byte[]> macAnswers = new ArrayList<>();
    private final List<byte[]> macHeard = new ArrayList<>();

    /**
     * Data that the device was sent.
     *
     * @param port -1 if the frame had none
     */
    public record Heard(
            long counter, boolean confirmed, boolean acknowledges, boolean pending, int port, byte[] payload) {}

    private SimulatedDevice(String devEui, String joinEui, byte[] appKey) {
        this.devEui = devEui;
        this.joinEui = joinEui;
        this.appKey = appKey;
    }

    /** A device that has to join. Hex digits as on a label. */
    public static SimulatedDevice joining(String devEui, String joinEui, String appKey, int firstNonce) {
        SimulatedDevice device = new SimulatedDevice(devEui, joinEui, Aes.hex(appKey));
        device.devNonce = firstNonce;
        return device;
    }

    /** A device whose address and session keys were put into it. */
    public static SimulatedDevice personalised(String devEui, String devAddr, String nwkSKey, String appSKey) {
        SimulatedDevice device = new SimulatedDevice(devEui, "", new byte[0]);
        device.devAddr = Long.parseLong(devAddr, 16);
        device.nwkSKey = Aes.hex(nwkSKey);
        device.appSKey = Aes.hex(appSKey);
        device.joined = true;
        return device;
    }

    public String devEui() {
        return devEui;
    }

    public boolean isJoined() {
        return joined;
    }

    public long counter() {
        return counterUp;
    }

    /** The next join request. */
    public byte[] joinRequest() {
        byte[] body = new Bytes()
                .u8(0x00)
                .reversedHex(joinEui)
                .reversedHex(devEui)
                .u16le(devNonce++ & 0xFFFF)
                .done();
        return signed(body, appKey, body);
    }

    /** Reads an answer to the last join request; says whether it was one and fits. */
    public boolean hearJoinAccept(byte[] frame) {
        if (appKey.length == 0 || frame.length != 17 && frame.length != 33 || frame[0] != 0x20) {
            return false;
        }
        byte[] clear = new byte[frame.length - 1];
        for (int at = 0; at < clear.length; at += 16) {
            System.arraycopy(Aes.encrypt(appKey, Arrays.copyOfRange(frame, at + 1, at + 17)), 0, clear, at, 16);
        }
        byte[] covered =
                new Bytes().u8(0x20).raw(Arrays.copyOf(clear, clear.length - 4)).done();
        if (!Arrays.equals(
                Arrays.copyOf(Aes.cmac(appKey, covered), 4),
                Arrays.copyOfRange(clear, clear.length - 4, clear.length))) {
            return false;
        }
        byte[] nonces = new Bytes()
                .raw(Arrays.copyOf(clear, 6))
                .u16le(devNonce - 1 & 0xFFFF)
                .done();
        nwkSKey =
                Aes.encrypt(appKey, Arrays.copyOf(new Bytes().u8(1).raw(nonces).done(), 16));
        appSKey =
                Aes.encrypt(appKey, Arrays.copyOf(new Bytes().u8(2).raw(nonces).done(), 16));
        devAddr = (clear[6] & 0xFFL) | (clear[7] & 0xFFL) << 8 | (clear[8] & 0xFFL) << 16 | (clear[9] & 0xFFL) << 24;
        counterUp = 0;
        joined = true;
        macAnswers.clear();
        acknowledgeNext = false;
        return true;
    }

    /** Forgets its session, as after a restart. */
    public void restart() {
        joined = false;
    }

    /** What it says of its battery when it is asked: 0 outside power, 1 to 254 empty to full. */
    public void battery(int level) {
        battery = level;
    }

    /** Lets the network manage its data rate. */
    public void letNetworkManageDataRate() {
        adaptive = true;
    }

    /** Asks something by a MAC command with the next frame. */
    public void ask(byte[] command) {
        macAnswers.add(command);
    }

    /** MAC commands that the network sent, as bytes of each frame. */
    public List<byte[]> macHeard() {
        return macHeard;
    }

    /** The next data frame; with it go acknowledgement and answers that the network waits for. */
    public byte[] uplink(int port, byte[] payload, boolean confirmed) {
        long counter = counterUp++;
        byte[] hidden = crypt(appSKey, payload, counter, 0);
        Bytes options = new Bytes();
        macAnswers.forEach(options::raw);
        macAnswers.clear();
        byte[] said = options.done();
        int control = (adaptive ? 0x80 : 0) | (acknowledgeNext ? 0x20 : 0) | said.length;
        acknowledgeNext = false;
        byte[] body = new Bytes()
                .u8(confirmed ? 0x80 : 0x40)
                .u32le(devAddr)
                .u8(control)
                .u16le(counter & 0xFFFF)
                .raw(said)
                .u8(port)
                .raw(hidden)
                .done();
        byte[] prefix = new Bytes()
                .u8(0x49)
                .u32le(0)
                .u8(0)
                .u32le(devAddr)
                .u32le(counter)
                .u8(0)
                .u8(body.length)
                .done();
        return signed(new Bytes().raw(prefix).raw(body).done(), nwkSKey, body);
    }

    /** Whether a downlink is an authentic acknowledgement for this device; its counter if so. */
    public Optional<Long> hearAcknowledgement(byte[] frame) {
        return hear(frame).filter(Heard::acknowledges).map(Heard::counter);
    }

    /**
     * Hears a data downlink: empty if it is not for this device. MAC commands in it are answered as a willing device
     * does.
     */
    public Optional<Heard> hear(byte[] frame) {
        int header = frame.length < 12 || !joined ? 0 : frame[0] & 0xFF;
        if (header != 0x60 && header != 0xA0) {
            return Optional.empty();
        }
        long counter = (frame[6] & 0xFFL) | (frame[7] & 0xFFL) << 8;
        byte[] body = Arrays.copyOf(frame, frame.length - 4);
        byte[] prefix = new Bytes()
                .u8(0x49)
                .u32le(0)
                .u8(1)
                .u32le(devAddr)
                .u32le(counter)
                .u8(0)
                .u8(body.length)
                .done();
        byte[] code = Arrays.copyOf(
                Aes.cmac(nwkSKey, new Bytes().raw(prefix).raw(body).done()), 4);
        if (!Arrays.equals(code, Arrays.copyOfRange(frame, frame.length - 4, frame.length))) {
            return Optional.empty();
        }
        int options = 8 + (frame[5] & 0x0F);
        int port = options < body.length ? body[options] & 0xFF : -1;
        byte[] data = port < 0
                ? new byte[0]
                : crypt(port == 0 ? nwkSKey : appSKey, Arrays.copyOfRange(body, options + 1, body.length), counter, 1);
        answer(port == 0 ? data : Arrays.copyOfRange(body, 8, options));
        acknowledgeNext |= header == 0xA0;
        return Optional.of(
                new Heard(counter, header == 0xA0, (frame[5] & 0x20) != 0, (frame[5] & 0x10) != 0, port, data));
    }

    private void answer(byte[] commands) {
        if (commands.length > 0) {
            macHeard.add(commands);
        }
        for (int at = 0; at < commands.length; ) {
            switch (commands[at]) {
                case 0x02 -> at += 3;
                case 0x03 -> {
                    macAnswers.add(new byte[] {0x03, 0x07});
                    at += 5;
                }
                case 0x05 -> {
                    macAnswers.add(new byte[] {0x05, 0x07});
                    at += 5;
                }
                case 0x06 -> {
                    macAnswers.add(new byte[] {0x06, (byte) battery, 12});
                    at += 1;
                }
                case 0x07 -> {
                    macAnswers.add(new byte[] {0x07, 0x03});
                    at += 6;
                }
                case 0x0D -> at += 6;
                default -> at = commands.length;
            }
        }
    }

    private byte[] crypt(byte[] key, byte[] text, long counter, int direction) {
        byte[] result = text.clone();
        for (int at = 0; at < text.length; at += 16) {
            byte[] pad = Aes.encrypt(
                    key,
                    new Bytes()
                            .u8(1)
                            .u32le(0)
                            .u8(direction)
                            .u32le(devAddr)
                            .u32le(counter)
                            .u8(0)
                            .u8(at / 16 + 1)
                            .done());
            for (int k = at; k < Math.min(at + 16, text.length); k++) {
                result[k] ^= pad[k - at];
            }
        }
        return result;
    }

    private static byte[] signed(byte[] covered, byte[] key, byte[] body) {
        return new Bytes()
                .raw(body)
                .raw(Arrays.copyOf(Aes.cmac(key, covered), 4))
                .done();
    }
}
