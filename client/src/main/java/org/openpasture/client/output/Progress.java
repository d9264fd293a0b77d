package org.openpasture.client.output;

import java.io.PrintWriter;
import java.util.function.Consumer;
import org.openpasture.client.http.ApiClient.Downloaded;

/** Says on one line how far a download is; only where somebody looks. */
public final class Progress implements Consumer<Downloaded> {
    private static final long EVERY_NANOS = 200_000_000;
    private final PrintWriter to;
    private final boolean shown = System.console() != null && System.console().isTerminal();
    private long saidAt = System.nanoTime();

    public Progress(PrintWriter to) {
        this.to = to;
    }

    @Override
    public void accept(Downloaded now) {
        if (shown && System.nanoTime() - saidAt > EVERY_NANOS) {
            saidAt = System.nanoTime();
            String share = now.readingsExpected() > 0 && now.lines() > 1
                    ? ", about " + Math.min(99, now.lines() * 100 / now.readingsExpected()) + " %"
                    : "";
            to.print("\r  " + Words.bytes(now.bytes()) + share + "   ");
            to.flush();
        }
    }
}
