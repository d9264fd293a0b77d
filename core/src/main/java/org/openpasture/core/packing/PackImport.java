package org.openpasture.core.packing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.DashboardEdits;
import org.openpasture.core.edit.DashboardWish;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.edit.PlaceEdits;
import org.openpasture.core.edit.PlaceWish;
import org.openpasture.core.edit.PointEdits;
import org.openpasture.core.edit.PointWish;
import org.openpasture.core.edit.Rights;
import org.openpasture.core.edit.RuleEdits;
import org.openpasture.core.edit.RuleWish;
import org.openpasture.core.edit.SharedEdits;
import org.openpasture.core.edit.SharedWish;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.pack.Content;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.pack.References;
import org.openpasture.core.packing.PackPlan.Fate;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Rule;

/**
 * Finds out what becomes of a pack here. Each part goes through the same checks as if a person entered it, one after
 * the other, so that a rule finds the limit set that came before it. One import is one object, used by one thread.
 */
public final class PackImport {
    private final Pack pack;
    private final PackWish wish;
    private final Supplier<String> newIds;
    private final List<Change> steps = new ArrayList<>();
    private final List<PackPlan.Part> parts = new ArrayList<>();
    private final Map<String, String> placeIds = new LinkedHashMap<>();
    private final Map<String, String> pointIds = new LinkedHashMap<>();
    private final Map<String, ImportedPack.Item> items = new HashMap<>();
    private final Map<String, String> setIds = new HashMap<>();
    private final Map<Class<? extends Shareable>, Map<String, String>> usable = new HashMap<>();
    private final Optional<ImportedPack> lastTime;
    private final Optional<ImportedPack> before;
    private final @Nullable String siteId;
    /** As it will be after the steps so far. */
    private Access access;

    private PackImport(Access access, Pack pack, PackWish wish, Supplier<String> newIds) {
        this.access = access;
        this.pack = pack;
        this.wish = wish;
        this.newIds = newIds;
        lastTime = onlyEarlier();
        pack.places().forEach(place -> matching(place).ifPresent(id -> placeIds.put(place.key(), id)));
        pack.points().forEach(point -> matching(point).ifPresent(id -> pointIds.put(point.key(), id)));
        siteId = wish.siteId() == null
                ? placeIds.values().stream()
                        .flatMap(id -> registry().siteOf(id).stream())
                        .map(Site::id)
                        .findFirst()
                        .orElse(null)
                : wish.siteId().isEmpty() ? null : wish.siteId();
        before = earlier()
                .filter(one -> Objects.equals(one.siteId(), siteId) && isForTheSame(one.places(), placeIds))
                .findFirst();
        before.ifPresent(one -> items.putAll(one.items()));
    }

    /**
     * What becomes of a pack.
     *
     * @param access what is registered, and what the person who imports it may do
     * @param newIds ids for what is made
     */
    public static PackPlan plan(Access access, Pack pack, PackWish wish, Supplier<String> newIds) {
        return new PackImport(access, pack, wish, newIds).plan();
    }

    /** Refuses places, points and sites that are none, that the person may not know of, or that are something else. */
    public static Optional<Refused> refusal(Access access, Pack pack, PackWish wish) {
        Registry now = access.registry();
        Optional<Refused> site = wish.siteId() == null || wish.siteId().isEmpty()
                ? Optional.empty()
                : Rights.onSite(access, Right.EDIT, wish.siteId(), "import packs for this site");
        return site.or(() -> pack.places().stream()
                        .flatMap(needed -> place(access, needed, wish.places().get(needed.key())).stream())
                        .findFirst())
                .or(() -> pack.points().stream()
                        .flatMap(needed ->
                                point(now, access, needed, wish.points().get(needed.key())).stream())
                        .findFirst());
    }

    private static Optional<Refused> place(Access access, Pack.NeededPlace needed, @Nullable String id) {
        if (id == null || id.isEmpty()) {
            return Optional.empty();
        }
        return Rights.on(access, Right.LOOK, id, "look there").or(() -> access.registry()
                .place(id)
                .filter(place -> !Kind.of(place).id().equals(needed.kind()))
                .map(place -> Refused.invalid(
                        "'" + place.name() + "' is a " + Kind.of(place).id() + " and cannot stand for '" + needed.name()
                                + "'.",
                        "Choose the " + needed.kind() + " that stands for it.")));
    }

    private static Optional<Refused> point(Registry now, Access access, Pack.NeededPoint needed, @Nullable String id) {
        if (id == null || id.isEmpty()) {
            return Optional.empty();
        }
        Optional<Point> point = now.find(Point.class, id).filter(access::maySee);
        return point.isEmpty()
                ? Optional.of(Refused.unknown("point"))
                : point.filter(one -> one.quantity() != needed.quantity())
                        .map(one -> Refused.invalid(
                                "'" + one.name() + "' measures "
                                        + one.quantity().title() + ", not "
                                        + needed.quantity().title() + ".",
                                "Choose a point of the same quantity as '" + needed.name() + "'."));
    }

    private PackPlan plan() {
        pack.limitSets().forEach(this::limitSet);
        pack.deviceModels().forEach(this::deviceModel);
        pack.places().forEach(this::limitsOf);
        pack.points().forEach(this::limitsOf);
        pack.rules().forEach(this::rule);
        pack.dashboards().forEach(this::dashboard);
        items.keySet().stream()
                .sorted()
                .filter(key -> parts.stream().noneMatch(part -> part.key().equals(key)))
                .forEach(key -> add(key, key.substring(key.indexOf('/') + 1), Fate.NOT_IN_PACK, ""));
        String importId = remember();
        return new PackPlan(
                pack,
                importId,
                siteId,
                before.isPresent(),
                pack.places().stream()
                        .map(place -> new PackPlan.PlaceMatch(place, placeIds.get(place.key())))
                        .toList(),
                pack.points().stream()
                        .map(point -> new PackPlan.PointMatch(point, pointIds.get(point.key())))
                        .toList(),
                parts,
                steps);
    }

    /**
     * Whether two imports are about the same places: none stands for two, and some place is in both. One that had no
     * place for a part of the pack goes on when there is one.
     */
    private static boolean isForTheSame(Map<String, String> some, Map<String, String> others) {
        List<String> common = some.keySet().stream().filter(others::containsKey).toList();
        return common.isEmpty()
                ? some.isEmpty() && others.isEmpty()
                : common.stream().allMatch(key -> Objects.equals(some.get(key), others.get(key)));
    }

    private Registry registry() {
        return access.registry();
    }

    // What stands for what

    private Stream<ImportedPack> earlier() {
        return registry().all(ImportedPack.class).stream()
                .filter(one -> one.packId().equals(pack.id()));
    }

    /** The import before, if there was one only: what stood for what then is proposed again. */
    private Optional<ImportedPack> onlyEarlier() {
        return only(
                earlier().toList(),
                one -> wish.siteId() == null || wish.siteId().equals(one.siteId()));
    }

    private Optional<String> matching(Pack.NeededPlace needed) {
        String named = wish.places().get(needed.key());
        if (named != null) {
            return seen(named).map(Place::id);
        }
        Optional<String> last =
                lastTime.map(one -> one.places().get(needed.key())).filter(id -> seen(id).isPresent());
        if (last.isPresent()) {
            return last;
        }
        List<Place> possible = places(needed);
        return only(possible, place -> place.name().equalsIgnoreCase(needed.name()))
                .or(() -> only(
                        possible,
                        place -> place instanceof Asset asset
                                && needed.assetKind() != null
                                && asset.kind().equalsIgnoreCase(needed.assetKind())))
                .or(() -> only(possible, place -> place instanceof Site))
                .map(Place::id);
    }

    private Optional<Place> seen(String placeId) {
        return registry().place(placeId).filter(place -> access.may(Right.LOOK, place.id()));
    }

    /** Places of the same kind, below the one that stands for the place above. */
    private List<Place> places(Pack.NeededPlace needed) {
        String above = needed.within() == null ? null : placeIds.get(needed.within());
        Class<? extends Place> type =
                switch (needed.kind()) {
                    case "site" -> Site.class;
                    case "area" -> Area.class;
                    default -> Asset.class;
                };
        return registry().all(type).stream()
                .<Place>map(place -> place)
                .filter(place -> access.may(Right.EDIT, place.id())
                        && !placeIds.containsValue(place.id())
                        && (above == null || registry().isWithin(place.id(), above))
                        && (wish.siteId() == null
                                || wish.siteId().isEmpty()
                                || registry().isWithin(place.id(), wish.siteId())))
                .toList();
    }

    private Optional<String> matching(Pack.NeededPoint needed) {
        String named = wish.points().get(needed.key());
        if (named != null) {
            return registry()
                    .find(Point.class, named)
                    .filter(access::maySee)
                    .filter(point -> point.quantity() == needed.quantity())
                    .map(Point::id);
        }
        String place = placeIds.get(needed.place());
        if (place == null) {
            return Optional.empty();
        }
        Optional<String> last = lastTime.map(one -> one.points().get(needed.key()))
                .filter(id -> registry()
                        .find(Point.class, id)
                        .filter(access::maySee)
                        .filter(point -> point.placeId().equals(place))
                        .isPresent());
        if (last.isPresent()) {
            return last;
        }
        List<Point> possible = registry().pointsOf(place).stream()
                .filter(access::maySee)
                .filter(point -> point.quantity() == needed.quantity()
                        && (needed.direction() == null || needed.direction().equalsIgnoreCase(point.direction())))
                .toList();
        return only(possible, point -> point.name().equalsIgnoreCase(needed.name()))
                .or(() -> only(possible, point -> true))
                .map(Point::id);
    }

    private static <T> Optional<T> only(List<T> all, Predicate<T> wanted) {
        List<T> found = all.stream().filter(wanted).limit(2).toList();
        return found.size() == 1 ? Optional.of(found.getFirst()) : Optional.empty();
    }

    // Limit sets and device models

    private void limitSet(LimitSet set) {
        String key = "limit-set/" + set.id();
        shared(key, set.title(), LimitSet.class, set.as(newIds.get(), siteId), old -> set.as(old.id(), old.siteId()));
        ImportedPack.Item item = items.get(key);
        if (item != null && registry().find(LimitSet.class, item.id()).isPresent()) {
            setIds.put(set.id(), item.id());
        }
    }

    private void deviceModel(DeviceModel model) {
        shared(
                "device-model/" + model.id(),
                model.name(),
                DeviceModel.class,
                model.as(newIds.get(), 1, siteId),
                old -> model.as(old.id(), old.version() == null ? 2 : old.version() + 1, old.siteId()));
    }

    /** What says the same and may be used here is used, not made once more. */
    private <T extends Shareable> void shared(
            String key, String name, Class<T> type, T made, UnaryOperator<T> changed) {
        String content = Content.of(made);
        Optional<String> same = items.containsKey(key)
                ? Optional.empty()
                : Optional.ofNullable(
                        usable.computeIfAbsent(type, this::byContent).get(content));
        if (same.isPresent() && !wish.leaveOut().contains(key)) {
            items.put(key, new ImportedPack.Item(same.get(), content));
            add(key, name, Fate.SAME, "");
            return;
        }
        part(
                key,
                name,
                type,
                made,
                changed,
                thing -> SharedEdits.edit(access, new SharedWish.Make(thing)),
                thing -> SharedEdits.edit(access, new SharedWish.Change(thing)));
    }

    /** The ids of what may be used here, by what it says. */
    private Map<String, String> byContent(Class<? extends Shareable> type) {
        Map<String, String> ids = new HashMap<>();
        registry().all(type).stream()
                .filter(access::maySee)
                .filter(one -> one.siteId() == null || one.siteId().equals(siteId))
                .forEach(one -> ids.putIfAbsent(Content.of(one), one.id()));
        return ids;
    }

    // Which limits hold where

    private void limitsOf(Pack.NeededPlace needed) {
        String placeId = placeIds.get(needed.key());
        Optional<Asset> found = registry().find(Asset.class, placeId);
        List<LimitSet> sets =
                needed.limitSets().stream().flatMap(key -> set(key).stream()).toList();
        if (found.isEmpty() || sets.isEmpty()) {
            return;
        }
        Asset asset = found.get();
        List<String> after = new ArrayList<>(asset.limitSets());
        List<String> kept = new ArrayList<>();
        for (LimitSet set : sets) {
            Optional<LimitSet> own = asset.limitSets().stream()
                    .flatMap(id -> registry().find(LimitSet.class, id).stream())
                    .filter(one ->
                            one.quantity() == set.quantity() && one.averaging().equals(set.averaging()))
                    .findFirst();
            if (own.isEmpty()) {
                after.add(set.id());
            } else if (!own.get().id().equals(set.id())) {
                kept.add(own.get().title());
            }
        }
        holding(
                "limits/" + needed.key(),
                "Limits of " + asset.name(),
                String.join(" ", sets.stream().map(LimitSet::id).toList()),
                !after.equals(asset.limitSets()),
                kept,
                () -> PlaceEdits.edit(access, new PlaceWish.Change(asset.with(after))));
    }

    private void limitsOf(Pack.NeededPoint needed) {
        String wanted = needed.limitSet();
        Optional<Point> found = registry().find(Point.class, pointIds.get(needed.key()));
        Optional<LimitSet> set = wanted == null ? Optional.empty() : set(wanted);
        if (found.isEmpty() || set.isEmpty()) {
            return;
        }
        Point point = found.get();
        String id = set.get().id();
        List<String> kept = point.limitSet() == null || point.limitSet().equals(id)
                ? List.of()
                : registry().find(LimitSet.class, point.limitSet()).stream()
                        .map(LimitSet::title)
                        .toList();
        holding(
                "point-limits/" + needed.key(),
                "Limits of " + point.name(),
                id,
                point.limitSet() == null,
                kept,
                () -> PointEdits.edit(
                        access,
                        new PointWish.Change(
                                point.id(),
                                new PointWish.Properties(
                                        point.name(),
                                        point.placeId(),
                                        point.quantity(),
                                        point.unit(),
                                        id,
                                        point.direction(),
                                        point.note(),
                                        point.released(),
                                        point.formula(),
                                        null,
                                        null),
                                true)));
    }

    /** What has limits of its own for a quantity keeps them. */
    private void holding(
            String key, String name, String content, boolean adds, List<String> kept, Supplier<Edited> edit) {
        ImportedPack.Item last = items.get(key);
        if (wish.leaveOut().contains(key)) {
            add(key, name, Fate.LEFT_OUT, "");
        } else if (!adds) {
            items.put(key, new ImportedPack.Item("", content));
            add(
                    key,
                    name,
                    kept.isEmpty() ? Fate.SAME : Fate.CHANGED_HERE,
                    kept.isEmpty() ? "" : "Its own limit set stays: '" + String.join("', '", kept) + "'.");
        } else if (last != null
                && last.content().equals(content)
                && !wish.replace().contains(key)) {
            add(key, name, Fate.REMOVED_HERE, "");
        } else {
            done(key, name, Fate.NEW, new ImportedPack.Item("", content), edit.get());
        }
    }

    /** A limit set of the pack, or one that ships. */
    private Optional<LimitSet> set(String key) {
        boolean isOwn = pack.limitSets().stream().anyMatch(set -> set.id().equals(key));
        return registry().find(LimitSet.class, isOwn ? setIds.get(key) : key).filter(access::maySee);
    }

    // Rules and dashboards

    private void rule(Rule packed) {
        String key = "rule/" + packed.id();
        References named = References.of(packed);
        Optional<String> missing = missing(named);
        if (missing.isPresent()) {
            boolean wanted = !wish.leaveOut().contains(key);
            add(key, packed.name(), wanted ? Fate.IMPOSSIBLE : Fate.LEFT_OUT, wanted ? missing.get() : "");
            return;
        }
        Rule local = RuleUnits.local(
                registry(), References.with(packed, id -> here(placeIds, id), id -> here(pointIds, id)));
        part(
                key,
                packed.name(),
                Rule.class,
                local.under(newIds.get(), local.enabled(), wish.recipients(), List.of()),
                old -> local.under(old.id(), old.enabled(), old.recipients(), old.rounds()),
                rule -> RuleEdits.edit(access, new RuleWish.Make(rule)),
                rule -> RuleEdits.edit(access, new RuleWish.Change(rule)));
    }

    private static Optional<String> here(Map<String, String> ids, String key) {
        return Optional.ofNullable(ids.get(key));
    }

    private Optional<String> missing(References named) {
        return Stream.concat(named.places().stream(), placesOf(named.points()))
                .filter(key -> !placeIds.containsKey(key))
                .map(key -> "Select a place for '" + placeName(key) + "'.")
                .findFirst()
                .or(() -> named.points().stream()
                        .filter(key -> !pointIds.containsKey(key))
                        .map(key -> "Select a point for '" + pointName(key) + "'.")
                        .findFirst());
    }

    /** The places of points that nothing stands for yet: with the place most points are found. */
    private Stream<String> placesOf(Set<String> keys) {
        return pack.points().stream()
                .filter(point -> keys.contains(point.key()) && !pointIds.containsKey(point.key()))
                .map(Pack.NeededPoint::place);
    }

    private String placeName(String key) {
        return pack.places().stream()
                .filter(place -> place.key().equals(key))
                .map(Pack.NeededPlace::name)
                .findFirst()
                .orElse(key);
    }

    private String pointName(String key) {
        return pack.points().stream()
                .filter(point -> point.key().equals(key))
                .map(point -> placeName(point.place()) + ", " + point.name())
                .findFirst()
                .orElse(key);
    }

    private void dashboard(Pack.PackedDashboard packed) {
        String key = "dashboard/" + packed.key();
        List<References> named = packed.panels().stream().map(References::of).toList();
        Set<String> missing = named.stream()
                .flatMap(of -> Stream.concat(
                        of.points().stream()
                                .filter(point -> !pointIds.containsKey(point))
                                .map(this::pointName),
                        of.places().stream()
                                .filter(place -> !placeIds.containsKey(place))
                                .map(this::placeName)))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        boolean somethingIsShown = missing.isEmpty()
                || named.stream()
                        .anyMatch(of -> of.points().stream().anyMatch(pointIds::containsKey)
                                || of.places().stream().anyMatch(placeIds::containsKey));
        if (!somethingIsShown && !wish.leaveOut().contains(key)) {
            add(
                    key,
                    packed.name(),
                    Fate.IMPOSSIBLE,
                    named.stream()
                            .flatMap(of -> missing(of).stream())
                            .findFirst()
                            .orElse(""));
            return;
        }
        List<Panel> panels = packed.panels().stream()
                .map(panel -> References.with(panel, id -> here(placeIds, id), id -> here(pointIds, id)))
                .toList();
        String site = siteId != null && access.may(Right.EDIT, siteId) ? siteId : null;
        part(
                key,
                packed.name(),
                Dashboard.class,
                new Dashboard(newIds.get(), packed.name(), access.person().id(), site, 1, panels),
                old -> new Dashboard(old.id(), packed.name(), old.ownerId(), old.siteId(), old.version(), panels),
                board -> DashboardEdits.edit(
                        access, new DashboardWish.Make(board.id(), board.name(), board.siteId(), board.panels())),
                board -> DashboardEdits.edit(
                        access,
                        new DashboardWish.Change(
                                board.id(), board.name(), board.siteId(), board.panels(), board.version())));
        if (!missing.isEmpty()) {
            PackPlan.Part last = parts.removeLast();
            add(
                    last.key(),
                    last.name(),
                    last.fate(),
                    (last.why() + " Nothing is selected for '" + String.join("', '", missing)
                                    + "', so it is not shown.")
                            .strip());
        }
    }

    // What all parts have in common

    private <T extends Entity> void part(
            String key,
            String name,
            Class<T> type,
            T made,
            UnaryOperator<T> changed,
            Function<T, Edited> make,
            Function<T, Edited> change) {
        ImportedPack.Item last = items.get(key);
        String content = Content.of(made);
        Optional<T> here = last == null ? Optional.empty() : registry().find(type, last.id());
        boolean replace = wish.replace().contains(key);
        if (wish.leaveOut().contains(key)) {
            add(key, name, Fate.LEFT_OUT, "");
        } else if (last != null && here.isEmpty() && !replace) {
            add(key, name, Fate.REMOVED_HERE, "");
        } else if (last == null || here.isEmpty()) {
            done(key, name, Fate.NEW, new ImportedPack.Item(made.id(), content), make.apply(made));
        } else {
            T old = here.get();
            String now = Content.of(old);
            if (now.equals(content)) {
                items.put(key, new ImportedPack.Item(old.id(), content));
                add(key, name, Fate.SAME, "");
            } else if (!now.equals(last.content()) && !replace) {
                add(
                        key,
                        name,
                        Fate.CHANGED_HERE,
                        content.equals(last.content()) ? "" : "The pack has a newer version, too.");
            } else {
                done(
                        key,
                        name,
                        Fate.UPDATED,
                        new ImportedPack.Item(old.id(), content),
                        change.apply(changed.apply(old)));
            }
        }
    }

    private void done(String key, String name, Fate fate, ImportedPack.Item item, Edited edited) {
        switch (edited) {
            case Edited.Refused refused -> add(key, name, Fate.IMPOSSIBLE, refused.what() + " " + refused.todo());
            case Edited.Changes changes -> {
                steps.addAll(changes.steps());
                if (changes.steps().stream().anyMatch(PackImport::matters)) {
                    access = new Access(registry().with(changes.steps()), access.person(), access.scope());
                }
                items.put(key, item);
                add(key, name, fate, "");
            }
        }
    }

    /** Whether later parts are checked against it; another picture of all that is registered costs time. */
    private static boolean matters(Change step) {
        return !(step instanceof Change.Put(Entity entity) && (entity instanceof Rule || entity instanceof Dashboard));
    }

    private void add(String key, String name, Fate fate, String why) {
        parts.add(new PackPlan.Part(key, name, fate, why));
    }

    /** Keeps what became what; the id under which that is kept, null if nothing was imported. */
    private @Nullable String remember() {
        if (items.isEmpty()) {
            return null;
        }
        ImportedPack now = new ImportedPack(
                before.map(ImportedPack::id).orElseGet(newIds),
                pack.id(),
                pack.name(),
                siteId,
                with(before.map(ImportedPack::places).orElse(Map.of()), placeIds),
                with(before.map(ImportedPack::points).orElse(Map.of()), pointIds),
                items);
        if (before.filter(now::equals).isEmpty()) {
            steps.add(new Change.Put(now));
        }
        return now.id();
    }

    private static Map<String, String> with(Map<String, String> some, Map<String, String> more) {
        Map<String, String> all = new HashMap<>(some);
        all.putAll(more);
        return all;
    }
}
