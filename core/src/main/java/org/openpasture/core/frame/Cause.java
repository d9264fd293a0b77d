package org.openpasture.core.frame;

/**
 * Why a frame was refused, or a downlink not sent: what programs decide by. The words for people stand beside it, in
 * {@link Frame#reason}.
 */
public enum Cause {
    /** It is no frame, or none of a kind that is understood. */
    UNREADABLE,
    /** No registered device has the EUI or the address that it carries. */
    UNKNOWN_DEVICE,
    /** DevEUI and JoinEUI were swapped in the device. */
    EUIS_SWAPPED,
    /** The integrity code does not fit the key. */
    WRONG_KEY,
    /** The DevNonce was used before, or is not higher than the last. */
    NONCE_USED,
    /** It asks to join and is registered as personalised. */
    IS_PERSONALISED,
    /** Its counter was used before. */
    REPLAYED,
    /** The device counts from the beginning again. */
    COUNTER_RESET,
    /** Its counter is further ahead than its version of the protocol allows. */
    COUNTER_GAP,
    /** The frame is authentic and came a second time. */
    REPEATED,
    /** What it holds cannot be read by the device's model. */
    NOT_DECODED,
    /** The device or the gateway is set to another band. */
    OTHER_BAND,
    /** It came too late to the gateway to be sent, or the gateway's clock is off. */
    TOO_LATE,
    /** It could not be sent for another reason. */
    NOT_SENT
}
