package org.openpasture.core.lorawan;

import org.jspecify.annotations.Nullable;

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
     * Authentic, and the very frame accepted last: a confirmed uplink whose acknowledgement got lost, which is to be
     * answered again, or one of the repetitions that the network asked for. Not counted.
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
        COUNTER_RESET,
        COUNTER_GAP
    }

    /** How many roll-overs of the 16 bits that are sent may have been missed. */
    int MOST_ROLLOVERS = 3;

    /** The same for a device whose version nobody states and that sends each uplink once. */
    static Uplink check(PhyPayload.DataUp frame, Session session) {
        return check(frame, session, null, 1);
    }

    /**
     * Checks integrity and counter, then decrypts.
     *
     * @param version that the device's model states; null if it states none
     * @param repetitions how often the device was told to send each uplink (NbTrans), 1 if only once
     */
    static Uplink check(PhyPayload.DataUp frame, Session session, @Nullable LorawanVersion version, int repetitions) {
        long last = session.lastUp();
        long sameEpoch = Math.max(last, 0) & ~0xFFFFL | frame.counter();
        long first = sameEpoch > last ? sameEpoch : sameEpoch + 0x1_0000;
        for (int rollover = 0; rollover <= MOST_ROLLOVERS; rollover++) {
            long counter = first + rollover * 0x1_0000L;
            if (counter > 0xFFFF_FFFFL) {
                break;
            }
            if (frame.isAuthentic(session.nwkSKey(), counter)) {
                return inOrder(frame, session, version, counter);
            }
        }
        if (sameEpoch <= last && frame.isAuthentic(session.nwkSKey(), sameEpoch)) {
            if (sameEpoch == last && (frame.confirmed() || repetitions > 1)) {
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

    private static Uplink inOrder(
            PhyPayload.DataUp frame, Session session, @Nullable LorawanVersion version, long counter) {
        long last = session.lastUp();
        if (last >= 0 && counter - last > MAX_COUNTER_GAP && LorawanVersion.limitsGap(version)) {
            return new Refused(
                    Cause.COUNTER_GAP,
                    "counter " + counter + " is " + (counter - last) + " ahead of the last, " + last
                            + ". The key is right, but LoRaWAN 1.0.2 and 1.0.3 allow a gap of " + MAX_COUNTER_GAP
                            + " frames at most: let the device join again");
        }
        AesKey key = frame.port() == 0 ? session.nwkSKey() : session.appSKey();
        byte[] clear = FrameCrypto.crypt(key, FrameCrypto.UPLINK, frame.devAddr(), counter, frame.payload());
        return new Accepted(
                counter, last < 0 ? 0 : counter - last - 1, frame.port(), clear, session.withLastUp(counter));
    }
}
