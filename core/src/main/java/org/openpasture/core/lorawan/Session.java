package org.openpasture.core.lorawan;

/**
 * What both sides share after activation. Counters only grow; a changed session is on disk before anything it allows is
 * sent.
 *
 * @param lastUp the highest uplink counter accepted, -1 before the first
 * @param nextDown the counter of the next downlink
 */
public record Session(DevAddr devAddr, AesKey nwkSKey, AesKey appSKey, long lastUp, long nextDown) {
    public static Session fresh(DevAddr devAddr, AesKey nwkSKey, AesKey appSKey) {
        return new Session(devAddr, nwkSKey, appSKey, -1, 0);
    }

    /** The same with another highest uplink counter. */
    public Session withLastUp(long counter) {
        return new Session(devAddr, nwkSKey, appSKey, counter, nextDown);
    }

    Session withNextDown(long counter) {
        return new Session(devAddr, nwkSKey, appSKey, lastUp, counter);
    }
}
