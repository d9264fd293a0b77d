package org.openpasture.simulator.radio;

import java.util.Arrays;
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
    byte[] body = new Bytes().u8(0x00).reversedHex(joinEui).reversedHex(devEui).u16le(devNonce++ & 0xFFFF).done();
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
    byte[] covered = new Bytes().u8(0x20).raw(Arrays.copyOf(clear, clear.length - 4)).done();
    if (!Arrays.equals(Arrays.copyOf(Aes.cmac(appKey, covered), 4), Arrays.copyOfRange(clear, clear.length - 4, clear.length))) {
      return false;
    }
    byte[] nonces = new Bytes().raw(Arrays.copyOf(clear, 6)).u16le(devNonce - 1 & 0xFFFF).done();
    nwkSKey = Aes.encrypt(appKey, Arrays.copyOf(new Bytes().u8(1).raw(nonces).done(), 16));
    appSKey = Aes.encrypt(appKey, Arrays.copyOf(new Bytes().u8(2).raw(nonces).done(), 16));
    devAddr = (clear[6] & 0xFFL) | (clear[7] & 0xFFL) << 8 | (clear[8] & 0xFFL) << 16 | (clear[9] & 0xFFL) << 24;
    counterUp = 0;
    joined = true;
    return true;
  }

  /** The next data frame. */
  public byte[] uplink(int port, byte[] payload, boolean confirmed) {
    long counter = counterUp++;
    byte[] hidden = crypt(payload, counter, 0);
    byte[] body = new Bytes().u8(confirmed ? 0x80 : 0x40).u32le(devAddr).u8(0).u16le(counter & 0xFFFF).u8(port).raw(hidden).done();
    byte[] prefix = new Bytes().u8(0x49).u32le(0).u8(0).u32le(devAddr).u32le(counter).u8(0).u8(body.length).done();
    return signed(new Bytes().raw(prefix).raw(body).done(), nwkSKey, body);
  }

  /** Whether a downlink is an authentic acknowledgement for this device; its counter if so. */
  public Optional<Long> hearAcknowledgement(byte[] frame) {
    if (frame.length < 12 || (frame[0] & 0xFF) != 0x60 || (frame[5] & 0x20) == 0) {
      return Optional.empty();
    }
    long counter = (frame[6] & 0xFFL) | (frame[7] & 0xFFL) << 8;
    byte[] body = Arrays.copyOf(frame, frame.length - 4);
    byte[] prefix = new Bytes().u8(0x49).u32le(0).u8(1).u32le(devAddr).u32le(counter).u8(0).u8(body.length).done();
    byte[] code = Arrays.copyOf(Aes.cmac(nwkSKey, new Bytes().raw(prefix).raw(body).done()), 4);
    return Arrays.equals(code, Arrays.copyOfRange(frame, frame.length - 4, frame.length)) ? Optional.of(counter) : Optional.empty();
  }

  private byte[] crypt(byte[] text, long counter, int direction) {
    byte[] result = text.clone();
    for (int at = 0; at < text.length; at += 16) {
      byte[] pad = Aes.encrypt(appSKey, new Bytes().u8(1).u32le(0).u8(direction).u32le(devAddr).u32le(counter).u8(0)
          .u8(at / 16 + 1).done());
      for (int k = at; k < Math.min(at + 16, text.length); k++) {
        result[k] ^= pad[k - at];
      }
    }
    return result;
  }

  private static byte[] signed(byte[] covered, byte[] key, byte[] body) {
    return new Bytes().raw(body).raw(Arrays.copyOf(Aes.cmac(key, covered), 4)).done();
  }
}
