package org.openpasture.inlets.poll;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.openpasture.inlets.message.Condition;

/** Takes what devices answer. Any thread may call it. */
public interface PollSink {
    /** What came of asking a device; returns when it is kept. */
    void round(Target target, Round round);

    /** A device told of a change by itself; completes when that is kept. */
    CompletableFuture<?> told(String deviceId, byte[] image);

    /** What a device logged by itself, to be put in its place in history; returns when it is kept. */
    void logged(String deviceId, List<Logged> entries);

    /** Somebody is there who is not registered, with what he says of himself. */
    void found(String address, byte[] description);

    /** Whether an address is registered. */
    boolean isKnown(String address);

    /** Something came that cannot be used. */
    void lost(String sender, String reason);

    /** When a device was last heard; empty if it never was. */
    Optional<Instant> lastHeard(String deviceId);

    /** The way to the devices is in another condition. */
    void condition(Condition condition, String words);

    /**
     * What a device answered.
     *
     * @param image what was read, as its layout decodes it; may lack what was refused
     * @param something whether anything was read at all
     * @param problem what went wrong, in words; empty if nothing did
     */
    record Answer(byte[] image, boolean something, String problem) {}

    /**
     * One round of a device.
     *
     * @param took how long it lasted
     * @param late whether it ended after the next one should have begun
     */
    record Round(Answer answer, Duration took, boolean late) {}

    /** What a device logged by itself at a time. */
    record Logged(Instant time, byte[] image) {}
}
