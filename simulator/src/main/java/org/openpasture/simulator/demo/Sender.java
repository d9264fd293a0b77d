package org.openpasture.simulator.demo;

import org.openpasture.simulator.radio.SimulatedDevice;

/**
 * A radio sender of the demo that joins.
 *
 * @param eui 16 hex digits; its key is made of them, since nothing here is secret
 */
record Sender(String name, String eui) {
    String key() {
        return eui + new StringBuilder(eui).reverse();
    }

    /** The device as it is played, which joins with this number first. */
    SimulatedDevice device(int nonce) {
        return SimulatedDevice.joining(eui, Creamery.JOIN_EUI, key(), nonce);
    }
}
