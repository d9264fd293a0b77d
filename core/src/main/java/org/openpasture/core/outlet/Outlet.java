package org.openpasture.core.outlet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.quantity.Quantity;

/**
 * A configured way out: readings and alerts are passed on as they come.
 *
 * @param siteId whose rights decide who may see and change it
 * @param paused whether nothing is sent for now; what comes is kept for it all the same
 * @param placeIds readings and alerts of these places and all below are passed on; empty for the site
 * @param quantities only readings of these; null for all
 * @param readings whether readings are passed on
 * @param alerts whether alerts are
 * @param lifeSignMinutes after so many minutes it says again that this service lives, from 1 to 1440; null for never
 * @param form of readings; alerts are always JSON
 * @param reachesInside whether its address may lie in this machine or the networks around it, which who manages the
 *     instance decides; null, from before that was asked, for yes
 */
public record Outlet(
        String id,
        String name,
        String siteId,
        boolean paused,
        Destination destination,
        List<String> placeIds,
        @Nullable Set<Quantity> quantities,
        boolean readings,
        boolean alerts,
        Form form,
        @Nullable Boolean reachesInside,
        @Nullable Integer lifeSignMinutes)
        implements Entity {
    private static final int LONGEST_MINUTES = 1_440;

    public Outlet {
        placeIds = placeIds == null || placeIds.isEmpty() ? List.of(siteId) : List.copyOf(placeIds);
        quantities = quantities == null || quantities.isEmpty() ? null : Set.copyOf(quantities);
        if (!readings && !alerts && lifeSignMinutes == null) {
            throw new IllegalArgumentException("an outlet passes on readings, alerts, life signs, or several of these");
        }
        if (lifeSignMinutes != null && (lifeSignMinutes < 1 || lifeSignMinutes > LONGEST_MINUTES)) {
            throw new IllegalArgumentException("a life sign is given every 1 to 1440 minutes");
        }
    }

    /** How often it says that this service lives; empty for never. */
    public Optional<Duration> lifeSign() {
        return Optional.ofNullable(lifeSignMinutes).map(Duration::ofMinutes);
    }

    /** How readings are written. */
    public enum Form {
        JSON,
        /** RFC 8428. */
        SENML;

        @JsonCreator
        public static Form of(String id) {
            return Ids.of(values(), Form::id, "form", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The same, going or paused. */
    public Outlet paused(boolean now) {
        return new Outlet(
                id,
                name,
                siteId,
                now,
                destination,
                placeIds,
                quantities,
                readings,
                alerts,
                form,
                reachesInside,
                lifeSignMinutes);
    }

    public boolean mayReachInside() {
        return !Boolean.FALSE.equals(reachesInside);
    }

    /** The same, where it may lie in this machine or the networks around it, or not. */
    public Outlet reachingInside(boolean may) {
        return new Outlet(
                id,
                name,
                siteId,
                paused,
                destination,
                placeIds,
                quantities,
                readings,
                alerts,
                form,
                may,
                lifeSignMinutes);
    }
}
