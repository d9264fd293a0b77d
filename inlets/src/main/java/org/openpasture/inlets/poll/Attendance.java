package org.openpasture.inlets.poll;

import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import org.openpasture.inlets.message.Condition;

/** Who of those that are asked answers; tells the inlet's condition from it. Any thread may call it. */
public final class Attendance {
    private final PollSink sink;
    private final Set<String> asked = new HashSet<>();
    private final Set<String> silent = new HashSet<>();

    public Attendance(PollSink sink) {
        this.sink = sink;
    }

    /** These are asked from now on. */
    public synchronized void of(Collection<String> deviceIds) {
        asked.clear();
        asked.addAll(deviceIds);
        silent.retainAll(asked);
        tell();
    }

    /** Whether a device answered. */
    public synchronized void note(String deviceId, boolean answers) {
        if (asked.contains(deviceId) && (answers ? silent.remove(deviceId) : silent.add(deviceId))) {
            tell();
        }
    }

    private void tell() {
        int all = asked.size();
        int mute = silent.size();
        if (all == 0) {
            sink.condition(Condition.UP, "No device is asked by it yet.");
        } else if (mute == 0) {
            sink.condition(Condition.UP, all == 1 ? "Its device answers." : "All " + all + " devices answer.");
        } else {
            sink.condition(
                    mute == all ? Condition.DOWN : Condition.DEGRADED,
                    all == 1 ? "Its device does not answer." : mute + " of " + all + " devices do not answer.");
        }
    }
}
