package org.openpasture.engine.radio;

import java.time.Clock;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.openpasture.api.inlet.InletView;
import org.springframework.stereotype.Component;

/** The newest things that came to the gateway port and could not be used, each with the reason. */
@Component
public class InletLog {
    private static final int KEPT = 100;
    private final Deque<InletView.Refusal> refusals = new ArrayDeque<>();
    private final Clock clock;

    InletLog(Clock clock) {
        this.clock = clock;
    }

    synchronized void refused(String sender, String reason) {
        refusals.addFirst(new InletView.Refusal(clock.instant(), sender, reason));
        if (refusals.size() > KEPT) {
            refusals.removeLast();
        }
    }

    public synchronized List<InletView.Refusal> newest() {
        return List.copyOf(refusals);
    }
}
