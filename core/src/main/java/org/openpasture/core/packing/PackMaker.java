package org.openpasture.core.packing;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.pack.References;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.Rule;

/** Makes a pack of what is registered, with what it needs and without what is nobody else's matter. */
public final class PackMaker {
    private final Access access;
    private final List<Rule> rules;
    private final List<Dashboard> dashboards;
    private final Set<LimitSet> limitSets = new LinkedHashSet<>();
    private final List<DeviceModel> models;
    private final List<Place> places = new ArrayList<>();
    private final List<Point> points = new ArrayList<>();
    private final Keys placeKeys = new Keys();
    private final Keys pointKeys = new Keys();
    private final Keys setKeys = new Keys();

    private PackMaker(Access access, PackChoice choice) {
        this.access = access;
        rules = chosen(Rule.class, choice.ruleIds()).toList();
        dashboards = chosen(Dashboard.class, choice.dashboardIds()).toList();
        models = chosen(DeviceModel.class, choice.modelIds()).toList();
        chosen(LimitSet.class, choice.limitSetIds())
                .filter(set -> !set.shipped())
                .forEach(limitSets::add);
        Set<String> pointIds = new LinkedHashSet<>();
        Set<String> placeIds = new LinkedHashSet<>();
        references().forEach(of -> {
            pointIds.addAll(of.points());
            placeIds.addAll(of.places());
        });
        pointIds.forEach(id -> access.registry()
                .find(Point.class, id)
                .filter(access::maySee)
                .ifPresent(point -> {
                    points.add(point);
                    placeIds.add(point.placeId());
                }));
        placeIds.stream()
                .flatMap(id -> access.registry().place(id).stream())
                .sorted(Comparator.comparingInt(
                        place -> access.registry().pathUp(place.id()).size()))
                .forEach(places::add);
        // Shipped sets are named by their ids, which no other set's key may look like.
        access.registry().all(LimitSet.class).stream()
                .filter(LimitSet::shipped)
                .forEach(set -> setKeys.reserve(set.id()));
        places.forEach(place -> limitsOf(place).forEach(this::addOwn));
        points.forEach(point ->
                access.registry().find(LimitSet.class, point.limitSet()).ifPresent(this::addOwn));
    }

    /** Why somebody cannot have a pack of that. */
    public static Optional<Refused> refusal(Access access, PackChoice choice) {
        return unknown(access, Rule.class, choice.ruleIds(), "rule")
                .or(() -> unknown(access, Dashboard.class, choice.dashboardIds(), "dashboard"))
                .or(() -> unknown(access, LimitSet.class, choice.limitSetIds(), "limit set"))
                .or(() -> unknown(access, DeviceModel.class, choice.modelIds(), "device model"))
                .or(() -> {
                    PackMaker maker = new PackMaker(access, choice);
                    return maker.isEmpty()
                            ? Optional.of(Refused.invalid(
                                    "There is nothing in the pack.",
                                    "Choose rules, dashboards, limit sets of your own or device models."))
                            : maker.hidden();
                });
    }

    /** The pack of a choice that is not refused. */
    public static Pack pack(Access access, PackChoice choice) {
        return new PackMaker(access, choice).pack(choice);
    }

    private <T extends Entity> Stream<T> chosen(Class<T> type, Set<String> ids) {
        return access.registry().all(type).stream().filter(thing -> ids.contains(thing.id()));
    }

    private static <T extends Entity> Optional<Refused> unknown(
            Access access, Class<T> type, Set<String> ids, String word) {
        return ids.stream()
                .filter(id -> access.registry()
                        .find(type, id)
                        .filter(thing -> maySee(access, thing))
                        .isEmpty())
                .findFirst()
                .map(id -> Refused.unknown(word));
    }

    private static boolean maySee(Access access, Entity thing) {
        return switch (thing) {
            case Rule rule -> access.maySee(rule);
            case Dashboard dashboard -> access.may(Right.LOOK, dashboard);
            case LimitSet set -> access.maySee(set);
            case DeviceModel model -> access.maySee(model);
            default -> false;
        };
    }

    private boolean isEmpty() {
        return rules.isEmpty() && dashboards.isEmpty() && limitSets.isEmpty() && models.isEmpty();
    }

    /** A rule about what whoever exports it may not see would be about nothing there. */
    private Optional<Refused> hidden() {
        return rules.stream()
                .filter(rule -> !References.of(rule).points().stream().allMatch(id -> access.registry()
                                .find(Point.class, id)
                                .filter(access::maySee)
                                .isPresent())
                        || !References.of(rule).places().stream()
                                .allMatch(id -> access.registry().place(id).isPresent() && access.may(Right.LOOK, id)))
                .findFirst()
                .map(rule -> Refused.clash(
                        "The rule '" + rule.name() + "' is about something that does not exist or that you may not"
                                + " see.",
                        "Leave it out, or change the rule."));
    }

    private Stream<References> references() {
        return Stream.concat(
                rules.stream().map(References::of),
                dashboards.stream().flatMap(one -> one.panels().stream()).map(References::of));
    }

    private Stream<LimitSet> limitsOf(Place place) {
        return place instanceof Asset asset
                ? asset.limitSets().stream().flatMap(id -> access.registry().find(LimitSet.class, id).stream())
                : Stream.empty();
    }

    private void addOwn(LimitSet set) {
        if (!set.shipped() && access.maySee(set)) {
            limitSets.add(set);
        }
    }

    private Pack pack(PackChoice choice) {
        Keys ruleKeys = new Keys();
        Keys boardKeys = new Keys();
        Keys modelKeys = new Keys();
        return new Pack(
                Pack.FORMAT,
                id(choice.name()),
                choice.name(),
                choice.about(),
                places.stream().filter(this::isSeen).map(this::needed).toList(),
                points.stream().map(this::needed).toList(),
                limitSets.stream().map(set -> set.as(key(set), null)).toList(),
                models.stream()
                        .map(model -> model.as(modelKeys.of(model.id(), model.name()), 1, null))
                        .toList(),
                rules.stream()
                        .map(rule -> References.with(
                                        RuleUnits.usual(access.registry(), rule), this::placeKey, this::pointKey)
                                .under(ruleKeys.of(rule.id(), rule.name()), rule.enabled(), List.of(), List.of()))
                        .toList(),
                dashboards.stream()
                        .map(board -> new Pack.PackedDashboard(
                                boardKeys.of(board.id(), board.name()), board.name(), panels(board)))
                        .toList());
    }

    private List<Panel> panels(Dashboard board) {
        return board.panels().stream()
                // A camera is of this instance alone.
                .filter(panel -> !(panel instanceof Panel.FromCamera))
                .map(panel -> References.with(panel, this::placeKey, this::pointKey))
                .toList();
    }

    /** The same person's pack of the same name is the same pack, in a later edition. */
    private String id(String name) {
        return Keys.slug(name) + "-"
                + UUID.nameUUIDFromBytes((access.person().id() + "/" + name).getBytes(StandardCharsets.UTF_8))
                        .toString()
                        .substring(0, 8);
    }

    private boolean isSeen(Place place) {
        return access.may(Right.LOOK, place.id())
                || points.stream().anyMatch(point -> point.placeId().equals(place.id()));
    }

    private Optional<String> placeKey(String id) {
        return places.stream()
                .filter(place -> place.id().equals(id) && isSeen(place))
                .findFirst()
                .map(this::key);
    }

    private Optional<String> pointKey(String id) {
        return points.stream()
                .filter(point -> point.id().equals(id))
                .findFirst()
                .map(this::key);
    }

    private String key(Place place) {
        return placeKeys.of(place.id(), place.name());
    }

    private String key(Point point) {
        String place = access.registry().place(point.placeId()).map(Place::name).orElse("");
        return pointKeys.of(point.id(), place + " " + point.name());
    }

    private String key(LimitSet set) {
        return setKeys.of(set.id(), set.title());
    }

    private Pack.NeededPlace needed(Place place) {
        return new Pack.NeededPlace(
                key(place),
                place.name(),
                Kind.of(place).id(),
                place instanceof Asset asset ? asset.kind() : null,
                access.registry().pathUp(place.parentId()).stream()
                        .flatMap(above -> placeKey(above.id()).stream())
                        .findFirst()
                        .orElse(null),
                limitsOf(place).filter(access::maySee).map(this::reference).toList());
    }

    private Pack.NeededPoint needed(Point point) {
        return new Pack.NeededPoint(
                key(point),
                point.name(),
                placeKey(point.placeId()).orElseThrow(),
                point.quantity(),
                point.direction(),
                ownLimits(point));
    }

    private @Nullable String ownLimits(Point point) {
        return access.registry()
                .find(LimitSet.class, point.limitSet())
                .filter(access::maySee)
                .map(this::reference)
                .orElse(null);
    }

    private String reference(LimitSet set) {
        return set.shipped() ? set.id() : key(set);
    }
}
