package org.openpasture.core.limit;

import java.util.Comparator;
import java.util.Optional;

/** Which worse zone a value comes to if it goes on as it does. */
public final class Ahead {
    private Ahead() {}

    /** The next boundary to a worse zone in the direction in which a value goes; empty if there is none. */
    public static Optional<Boundary> of(LimitSet set, double value, boolean rising) {
        Severity now = set.zoneOf(value).severity();
        Comparator<Boundary> byValue = Comparator.comparingDouble(Boundary::value);
        return set.zones().stream()
                .filter(zone -> zone.severity().compareTo(now) > 0)
                .flatMap(zone -> Optional.ofNullable(rising ? zone.from() : zone.to())
                        .filter(edge -> rising ? edge > value : edge < value)
                        .map(edge -> new Boundary(edge, zone.severity(), zone.label()))
                        .stream())
                .min(rising ? byValue : byValue.reversed());
    }
}
