package org.openpasture.core.lorawan;

/**
 * What came of checking a data frame against a session: accepted, or refused for a reason that helps to find the cause.
 */
public sealed interface Uplink {
    /** How far a counter may jump before the frame is taken for somebody else's (LoRaWAN L2 1.0.3, MAX_FCNT_GAP). */
    long MAX_COUNTER_GAP = 16_384;

    /**
     * Authentic and new.
     *
     * @param counter all 32 bits
     * @param lost how many frames are missing since the last accepted one
     * @param payload decrypted
     * @param session the session after it
     */
    record Accepted(long counter, long lost, int port, byte[] payload, Session session) implements Uplink {}

    /**
     * Authentic, and the very frame accepted last: a confirmed uplink whose acknowledgement got lost. To be answered,
     * not counted.
     */
    record Repeated(long counter) implements Uplink {}

    /**
     * Not accepted.
     *
     * @param reason for the technician
     */
    record Refused(Cause cause, String reason) implements Uplink {}

    /** Why a frame was not accepted. */
    enum Cause {
        WRONG_KEY,
        REPLAYED,
        COUNTER_RESET
    }

    /** Checks integrity and counter, then decrypts. */
    static Uplink check(PhyPayload.DataUp frame, Session session) {
        long last = session.lastUp();
        long sameEpoch = Math.max(last, 0) & ~0xFFFFL | frame.counter();
        long counter = sameEpoch > last ? sameEpoch : sameEpoch + 0x1_0000;
        boolean plausible = last < 0 || counter - last <= MAX_COUNTER_GAP;
        if (plausible && frame.isAuthentic(session.nwkSKey(), counter)) {
            AesKey key = frame.port() == 0 ? session.nwkSKey() : session.appSKey();
            byte[] clear = FrameCrypto.crypt(key, FrameCrypto.UPLINK, frame.devAddr(), counter, frame.payload());
            return new Accepted(
                    counter, last < 0 ? 0 : counter - last - 1, frame.port(), clear, session.withLastUp(counter));
        }
        if (sameEpoch <= last && frame.isAuthentic(session.nwkSKey(), sameEpoch)) {
            if (sameEpoch == last && frame.confirmed()) {
                return new Repeated(sameEpoch);
            }
            return new Refused(
                    Cause.REPLAYED,
                    "counter " + sameEpoch + " was already used, the last was " + last
                            + ": a repeated or replayed frame, or the device was restarted without joining again");
        }
        if (frame.isAuthentic(session.nwkSKey(), frame.counter())) {
            return new Refused(
                    Cause.COUNTER_RESET,
                    "the device began to count again at " + frame.counter() + " (the last was " + last
                            + "): it was restarted; let it join again");
        }
        return new Refused(
                Cause.WRONG_KEY,
                "the integrity code does not fit: wrong key, or another network's device with the same address");
    }
}
