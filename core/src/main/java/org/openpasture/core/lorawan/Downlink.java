package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** A frame for a device, ready to be sent, and the session after it. */
public record Downlink(byte[] bytes, Session session) {
  private static final int UNCONFIRMED_DATA_DOWN = 0x60;
  private static final int ACK = 0x20;

  /** An empty frame that acknowledges a confirmed uplink (LoRaWAN L2 1.0.4, 4.3.1.2). */
  public static Downlink acknowledgement(Session session) {
    ByteBuffer frame = ByteBuffer.allocate(12).order(ByteOrder.LITTLE_ENDIAN)
        .put((byte) UNCONFIRMED_DATA_DOWN).putInt(session.devAddr().bits()).put((byte) ACK).putShort((short) session.nextDown());
    byte[] code = FrameCrypto.dataCode(session.nwkSKey(), FrameCrypto.DOWNLINK, session.devAddr(), session.nextDown(),
        frame.array(), 8);
    frame.put(code, 0, 4);
    return new Downlink(frame.array(), session.withNextDown(session.nextDown() + 1));
  }
}
