package org.openpasture.core.pack;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Rule;

/**
 * What one person hands to another: rules, limit sets, device models and dashboards, with the places and points that
 * they are about. Nothing in it has an id of the instance that it comes from: everything is named by a key, and rules
 * and panels name places and points by theirs. Who is notified is not in it.
 *
 * @param format the version of the file's format
 * @param id the same in each edition of a pack, by which a later one is known
 * @param about what it is for, in a few sentences
 * @param places that it is about, those above before those below
 * @param points that it is about
 * @param limitSets with their keys as ids
 * @param deviceModels with their keys as ids
 * @param rules with their keys as ids, and about the keys of places and points
 */
public record Pack(
        @JsonProperty("openPasturePack") int format,
        String id,
        String name,
        String about,
        List<NeededPlace> places,
        List<NeededPoint> points,
        List<LimitSet> limitSets,
        List<DeviceModel> deviceModels,
        List<Rule> rules,
        List<PackedDashboard> dashboards) {
    /** The version of the format that this program writes. */
    public static final int FORMAT = 1;

    private static final int LONGEST_NAME = 120;
    private static final int MOST = 200;

    public Pack {
        about = about == null ? "" : about;
        places = listed(places, "places", NeededPlace::key);
        points = listed(points, "points", NeededPoint::key);
        limitSets = listed(limitSets, "limit sets", LimitSet::id);
        deviceModels = listed(deviceModels, "device models", DeviceModel::id);
        rules = listed(rules, "rules", Rule::id);
        dashboards = listed(dashboards, "dashboards", PackedDashboard::key);
        id = keyOf(id, "the pack");
        name = nameOf(name, "the pack");
        Set<String> known = new HashSet<>();
        for (NeededPlace place : places) {
            if (place.within() != null && !known.contains(place.within())) {
                throw new IllegalArgumentException("the place '" + place.key() + "' lies within '" + place.within()
                        + "', which is not listed before it");
            }
            known.add(place.key());
        }
        points.stream()
                .filter(point -> !known.contains(point.place()))
                .findFirst()
                .ifPresent(point -> {
                    throw new IllegalArgumentException("the point '" + point.key() + "' belongs to the place '"
                            + point.place() + "', which is not among the pack's places");
                });
        rules.forEach(rule -> nameOf(rule.name(), "a rule"));
    }

    /**
     * A place that rules and dashboards of the pack are about.
     *
     * @param kind "site", "area" or "asset"
     * @param assetKind for an asset, what it is in a word; null if that is not known
     * @param within the key of the nearest place above it that the pack is about too; null for none
     * @param limitSets keys of the pack's limit sets, or ids of shipped ones, that hold there
     */
    public record NeededPlace(
            String key,
            String name,
            String kind,
            @Nullable String assetKind,
            @Nullable String within,
            List<String> limitSets) {
        private static final Set<String> KINDS = Set.of("site", "area", "asset");

        public NeededPlace {
            key = keyOf(key, "a place");
            name = nameOf(name, "a place");
            limitSets = limitSets == null ? List.of() : List.copyOf(limitSets);
            if (kind == null || !KINDS.contains(kind)) {
                throw new IllegalArgumentException(
                        "a place is a site, an area or an asset, not '" + (kind == null ? "" : kind) + "'");
            }
        }
    }

    /**
     * A point that rules and dashboards of the pack are about.
     *
     * @param place the key of its place
     * @param limitSet key of the pack's limit set, or id of a shipped one, that holds for this point; null for that of
     *     its place
     */
    public record NeededPoint(
            String key,
            String name,
            String place,
            Quantity quantity,
            @Nullable String direction,
            @Nullable String limitSet) {
        public NeededPoint {
            key = keyOf(key, "a point");
            name = nameOf(name, "a point");
            if (place == null || quantity == null) {
                throw new IllegalArgumentException("the point '" + key + "' needs its place and its quantity");
            }
        }
    }

    /** A dashboard; its panels are about the keys of places and points. */
    public record PackedDashboard(String key, String name, List<Panel> panels) {
        public PackedDashboard {
            key = keyOf(key, "a dashboard");
            name = nameOf(name, "a dashboard");
            panels = panels == null ? List.of() : List.copyOf(panels);
        }
    }

    /** Whether there is nothing in it that could be imported. */
    public boolean hasNothing() {
        return limitSets.isEmpty() && deviceModels.isEmpty() && rules.isEmpty() && dashboards.isEmpty();
    }

    private static String keyOf(@Nullable String key, String what) {
        if (key == null || !key.matches("[a-z0-9][a-z0-9-]{0,79}")) {
            throw new IllegalArgumentException(
                    what + " needs a key of small letters, digits and hyphens, not '" + (key == null ? "" : key) + "'");
        }
        return key;
    }

    private static String nameOf(@Nullable String name, String what) {
        if (name == null || name.isBlank() || name.length() > LONGEST_NAME || name.contains("\n")) {
            throw new IllegalArgumentException(
                    what + " needs a name in one line, of up to " + LONGEST_NAME + " characters");
        }
        return name;
    }

    private static <T> List<T> listed(@Nullable List<T> things, String word, Function<T, String> key) {
        if (things == null) {
            return List.of();
        }
        if (things.size() > MOST) {
            throw new IllegalArgumentException("a pack has at most " + MOST + " " + word + ", not " + things.size());
        }
        Set<String> keys = new HashSet<>();
        things.forEach(thing -> {
            if (!keys.add(keyOf(key.apply(thing), "one of the " + word))) {
                throw new IllegalArgumentException("two " + word + " have the key '" + key.apply(thing) + "'");
            }
        });
        return List.copyOf(things);
    }
}
