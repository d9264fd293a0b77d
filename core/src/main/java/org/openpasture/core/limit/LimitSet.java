package org.openpasture.core.limit;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.Units;

/**
 * Named zones for a quantity. Zones are contiguous and ascending, the first without a lower and the last without an
 * upper bound, so that every value lies in one. A value on a boundary belongs to the less severe of its neighbours ("at
 * most 8 °C" is kept by 8.0 °C), unless the zone above it begins with its bound ("from 72").
 *
 * @param shipped true for sets that came with the program; they are read-only and copied to be adjusted
 * @param appliesTo when the set holds, in a sentence
 * @param siteId the site that it belongs to; null if all sites share it
 * @param averaging how values are averaged before they are compared; the last value if left out. It holds for points
 *     whose values are averaged so
 */
public record LimitSet(
        String id,
        String title,
        Source source,
        Quantity quantity,
        String unit,
        String appliesTo,
        boolean shipped,
        List<Zone> zones,
        @Nullable String siteId,
        @Nullable Averaging averaging)
        implements Shareable {
    public LimitSet {
        source = source == null ? Source.NONE : source;
        appliesTo = appliesTo == null ? "" : appliesTo;
        averaging = averaging == null ? Averaging.LAST : averaging;
        zones = List.copyOf(zones);
        if (zones.isEmpty()) {
            throw new IllegalArgumentException("limit set '" + title + "' has no zones");
        }
        if (zones.getFirst().from() != null || zones.getLast().to() != null) {
            throw new IllegalArgumentException(
                    "limit set '" + title + "': the first and last zone must be open to the outside");
        }
        for (int i = 1; i < zones.size(); i++) {
            Double end = zones.get(i - 1).to();
            Double start = zones.get(i).from();
            if (end == null || start == null || !end.equals(start)) {
                throw new IllegalArgumentException(
                        "limit set '" + title + "': zone " + zones.get(i).label() + " must begin where zone "
                                + zones.get(i - 1).label() + " ends");
            }
            if (zones.get(i).fromOrLowest() >= zones.get(i).toOrHighest()) {
                throw new IllegalArgumentException(
                        "limit set '" + title + "': zone " + zones.get(i).label() + " is empty");
            }
        }
    }

    /** How values are averaged before they are compared. */
    @Override
    public Averaging averaging() {
        return averaging == null ? Averaging.LAST : averaging;
    }

    /** One that all sites share. */
    public LimitSet(
            String id,
            String title,
            Source source,
            Quantity quantity,
            String unit,
            String appliesTo,
            boolean shipped,
            List<Zone> zones) {
        this(id, title, source, quantity, unit, appliesTo, shipped, zones, null);
    }

    /** One for the last value. */
    public LimitSet(
            String id,
            String title,
            Source source,
            Quantity quantity,
            String unit,
            String appliesTo,
            boolean shipped,
            List<Zone> zones,
            @Nullable String siteId) {
        this(id, title, source, quantity, unit, appliesTo, shipped, zones, siteId, Averaging.LAST);
    }

    /** The same as a set of one's own under another id, of a site or, with null, of all of them. */
    public LimitSet as(String otherId, @Nullable String site) {
        return new LimitSet(otherId, title, source, quantity, unit, appliesTo, false, zones, site, averaging);
    }

    /** The same set with its bounds in another unit; empty if values in that unit cannot be compared with them. */
    public Optional<LimitSet> in(String other) {
        if (unit.equals(other)) {
            return Optional.of(this);
        }
        return Units.areAlike(unit, other)
                ? Optional.of(new LimitSet(
                        id,
                        title,
                        source,
                        quantity,
                        other,
                        appliesTo,
                        shipped,
                        zones.stream().map(zone -> zone.in(unit, other)).toList(),
                        siteId,
                        averaging))
                : Optional.empty();
    }

    /**
     * How far a value may come back behind a limit before it meets the next one: half of the narrowest zone between.
     */
    public double widestDeadBand(Severity atLeast) {
        double widest = Double.POSITIVE_INFINITY;
        Double from = null;
        for (Zone zone : zones) {
            if (zone.severity().isAtLeast(atLeast)) {
                if (from != null && zone.fromOrLowest() > from) {
                    widest = Math.min(widest, (zone.fromOrLowest() - from) / 2);
                }
                from = zone.to();
            }
        }
        return widest;
    }

    /**
     * The limit at which restricted operation begins: the lowest value from which the set warns (for vibration the
     * boundary between zones B and C). Where it warns of low values only, the greatest of these. Empty if it never
     * warns.
     */
    public OptionalDouble warningLimit() {
        OptionalDouble upper = zones.stream()
                .filter(zone -> zone.from() != null && zone.severity().isAtLeast(Severity.WARNING))
                .mapToDouble(Zone::fromOrLowest)
                .findFirst();
        return upper.isPresent()
                ? upper
                : zones.stream()
                        .filter(zone -> zone.to() != null && zone.severity().isAtLeast(Severity.WARNING))
                        .mapToDouble(Zone::toOrHighest)
                        .max();
    }

    /** The zone in which a value lies. */
    public Zone zoneOf(double value) {
        return zones.get(zoneIndexOf(value));
    }

    /** The place in {@link #zones()} of the zone in which a value lies. */
    public int zoneIndexOf(double value) {
        for (int i = 0; i < zones.size(); i++) {
            double to = zones.get(i).toOrHighest();
            if (value < to || i == zones.size() - 1) {
                return i;
            }
            if (value == to) {
                Zone above = zones.get(i + 1);
                return above.includesFrom()
                                || above.severity().compareTo(zones.get(i).severity()) < 0
                        ? i + 1
                        : i;
            }
        }
        throw new AssertionError("the last zone has no upper bound");
    }

    /**
     * Judges a value: its zone, the nearest boundary to a worse one, and the headroom that is left before it.
     *
     * @param baseline the usual value, from which the headroom is measured where the limit is on one side and not
     *     crossed by it; null for where the quantity starts
     */
    public Judgement judge(double value, @Nullable Double baseline) {
        int index = zoneIndexOf(value);
        Zone zone = zones.get(index);
        Boundary upper = worseAbove(index);
        Boundary lower = worseBelow(index);
        double headroom = 1;
        Boundary nearest = null;
        if (upper != null && lower != null) {
            double middle = (upper.value() + lower.value()) / 2;
            double up = share(upper.value() - value, upper.value() - middle);
            double down = share(value - lower.value(), middle - lower.value());
            headroom = Math.min(up, down);
            nearest = up <= down ? upper : lower;
        } else if (upper != null) {
            double reference = baseline == null || baseline >= upper.value() ? bottomOfRange(upper.value()) : baseline;
            headroom = share(upper.value() - value, upper.value() - reference);
            nearest = upper;
        } else if (lower != null) {
            double reference = baseline == null || baseline <= lower.value() ? topOfRange(lower.value()) : baseline;
            headroom = share(value - lower.value(), reference - lower.value());
            nearest = lower;
        } else {
            headroom = 0;
        }
        return new Judgement(zone.severity(), zone.label(), headroom * 100, nearest);
    }

    /**
     * Where there is only a lower limit the way to it starts at the top of the quantity's range, or at twice the limit.
     */
    private double topOfRange(double lower) {
        double twice = lower <= 0 ? lower + Math.max(1, Math.abs(lower)) : lower * 2;
        return Math.min(quantity.highest(), twice);
    }

    /**
     * Where there is only an upper limit the way to it starts at zero, or as far below a limit that is not above it.
     */
    private double bottomOfRange(double upper) {
        return upper > 0 ? 0 : Math.max(quantity.lowest(), upper - Math.max(1, Math.abs(upper)));
    }

    private static double share(double left, double whole) {
        return whole <= 0 ? 0 : Math.clamp(left / whole, 0, 1);
    }

    private @Nullable Boundary worseAbove(int index) {
        for (int i = index + 1; i < zones.size(); i++) {
            if (zones.get(i).severity().compareTo(zones.get(index).severity()) > 0) {
                return new Boundary(
                        zones.get(i).fromOrLowest(),
                        zones.get(i).severity(),
                        zones.get(i).label());
            }
        }
        return null;
    }

    private @Nullable Boundary worseBelow(int index) {
        for (int i = index - 1; i >= 0; i--) {
            if (zones.get(i).severity().compareTo(zones.get(index).severity()) > 0) {
                return new Boundary(
                        zones.get(i).toOrHighest(),
                        zones.get(i).severity(),
                        zones.get(i).label());
            }
        }
        return null;
    }
}
