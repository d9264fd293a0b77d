package org.openpasture.core.lorawan;

import java.util.ArrayList;
import java.util.List;

/**
 * How the newest uplinks of a device were heard, by the gateway that heard each best; begins anew when the device's
 * data rate changes, since a ratio at another data rate says nothing about this one. In memory only: after a restart it
 * fills again.
 */
public record LinkHistory(int dataRate, List<Heard> heard) {
    /** As many as the usual recommendation looks at. */
    public static final int LENGTH = 20;

    public LinkHistory {
        heard = List.copyOf(heard);
    }

    /** One uplink. */
    public record Heard(long counter, double snrDb) {}

    public static LinkHistory empty() {
        return new LinkHistory(-1, List.of());
    }

    /** The history with one uplink more. */
    public LinkHistory with(int rate, long counter, double snrDb) {
        if (rate != dataRate || !heard.isEmpty() && counter <= heard.getLast().counter()) {
            return new LinkHistory(rate, List.of(new Heard(counter, snrDb)));
        }
        List<Heard> more =
                new ArrayList<>(heard.size() < LENGTH ? heard : heard.subList(heard.size() - LENGTH + 1, heard.size()));
        more.add(new Heard(counter, snrDb));
        return new LinkHistory(rate, more);
    }

    public boolean isFull() {
        return heard.size() >= LENGTH;
    }

    public double bestSnrDb() {
        return heard.stream().mapToDouble(Heard::snrDb).max().orElse(Double.NaN);
    }

    /** The share of uplinks that nobody heard, 0 to 1. */
    public double lost() {
        return heard.isEmpty()
                ? 0
                : 1
                        - heard.size()
                                / (double) (heard.getLast().counter()
                                        - heard.getFirst().counter()
                                        + 1);
    }
}
