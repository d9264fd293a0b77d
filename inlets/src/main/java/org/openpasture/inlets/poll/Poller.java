package org.openpasture.inlets.poll;

import java.util.List;
import java.util.Optional;
import org.openpasture.inlets.message.MessageInlet;

/** Asks devices, each at its own period. */
public interface Poller extends MessageInlet {
    /** Asks these from now on, and nobody else; who was asked before the same way goes on undisturbed. */
    void ask(List<Target> targets);

    /**
     * Asks a device once, out of turn, for all that it is asked for.
     *
     * @return empty if it is not one of those that are asked
     */
    Optional<PollSink.Round> askNow(Target target);

    /**
     * Who a device says that it is, as in "Quern Instruments, PM-3, 1.4"; empty if it says nothing, or nothing of that.
     */
    default Optional<String> identity(Target target) {
        return Optional.empty();
    }

    /**
     * Sets a channel of a device.
     *
     * @param value NaN to let go of it, where the device knows who else wants what
     * @throws SetFailed if the device did not do it, in words
     * @throws IllegalArgumentException if the channel cannot be set, or not to this value
     */
    void set(Target target, String channel, double value) throws SetFailed;

    /** A device did not do what was wanted. */
    final class SetFailed extends Exception {
        private static final long serialVersionUID = 1L;

        public SetFailed(String message) {
            super(message);
        }
    }
}
