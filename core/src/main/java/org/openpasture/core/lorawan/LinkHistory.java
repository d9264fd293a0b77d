package org.openpasture.core.lorawan;

import java.util.ArrayList;
import java.util.List;

/**
 * How the newest uplinks of a device were heard, by the gateway that heard each best. It begins anew when the device's
 * data rate or its power changes, since a ratio at another data rate or another power says nothing about this one. In
 * memory only: after a restart it fills again.
 *
 * @param dataRate that the device sent with; -1 while nothing was heard
 * @param txPower index of the power step that the device was told, 0 the most
 */
public record LinkHistory(int dataRate, int txPower, List<Heard> heard) {
    /** As many as the usual recommendation looks at. */
    public static final int LENGTH = 20;

    public LinkHistory {
        heard = List.copyOf(heard);
    }

    /** One uplink. */
    public record Heard(long counter, double snrDb) {}

    /** Before anything was heard. */
    public static LinkHistory empty() {
        return new LinkHistory(-1, 0, List.of());
    }

    /** The history with one uplink more. */
    public LinkHistory with(int rate, int power, long counter, double snrDb) {
        boolean anew = rate != dataRate
                || power != txPower
                || !heard.isEmpty() && counter <= heard.getLast().counter();
        if (anew) {
            return new LinkHistory(rate, power, List.of(new Heard(counter, snrDb)));
        }
        List<Heard> more =
                new ArrayList<>(heard.size() < LENGTH ? heard : heard.subList(heard.size() - LENGTH + 1, heard.size()));
        more.add(new Heard(counter, snrDb));
        return new LinkHistory(rate, power, more);
    }

    /** Whether enough was heard to advise. */
    public boolean isFull() {
        return heard.size() >= LENGTH;
    }

    /** The best signal-to-noise ratio in dB; not a number while nothing was heard. */
    public double bestSnrDb() {
        return heard.stream().mapToDouble(Heard::snrDb).max().orElse(Double.NaN);
    }

    /** The share of uplinks that nobody heard, 0 to 1. */
    public double lost() {
        if (heard.isEmpty()) {
            return 0;
        }
        long sent = heard.getLast().counter() - heard.getFirst().counter() + 1;
        return 1 - heard.size() / (double) sent;
    }
}
