package org.openpasture.core.registry;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.fleet.ResponseCheck;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.place.Tags;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.SiteDays;
import org.openpasture.core.rule.Target;
import org.openpasture.core.text.PersonName;

/**
 * One consistent picture of everything that is registered. Immutable: a change makes a new one, so readers never lock
 * and each frame is handled against a single picture. Look-ups are O(1); a change copies one map and the indexes.
 */
public final class Registry {
    private final Map<Kind, Map<String, Entity>> byKind;
    private final Map<Integer, Point> pointsByNumber = new HashMap<>();
    private final Map<Eui64, Gateway> gatewaysByEui = new HashMap<>();
    private final Map<String, Gateway> gatewaysByPoint = new HashMap<>();
    private final Map<Eui64, Device> devicesByEui = new HashMap<>();
    private final Map<String, Device> devicesByInletAndAddress = new HashMap<>();
    private final Map<String, List<Device>> devicesByInlet = new HashMap<>();
    private final Map<String, List<Assignment>> assignmentsByDevice = new HashMap<>();
    private final Map<String, List<Assignment>> assignmentsByPoint = new HashMap<>();
    private final Map<String, List<Point>> pointsByPlace = new HashMap<>();
    private final Map<String, List<ResponseCheck>> checksByPoint = new HashMap<>();
    private final Map<String, List<Baseline>> baselinesByPoint = new HashMap<>();
    private final Map<String, List<Grant>> grantsByHolder = new HashMap<>();
    private final Map<String, List<Group>> groupsByPerson = new HashMap<>();
    /** Of people in groups: their own grants, then those of their groups. */
    private final Map<String, List<Grant>> grantsOfMembers = new HashMap<>();

    private Registry(Map<Kind, Map<String, Entity>> byKind) {
        this.byKind = byKind;
        all(Point.class).forEach(point -> {
            pointsByNumber.put(point.number(), point);
            pointsByPlace
                    .computeIfAbsent(point.placeId(), id -> new ArrayList<>())
                    .add(point);
        });
        all(Gateway.class).forEach(gateway -> {
            gatewaysByEui.put(gateway.eui(), gateway);
            if (gateway.pointId() != null) {
                gatewaysByPoint.put(gateway.pointId(), gateway);
            }
        });
        all(Device.class).forEach(device -> {
            switch (device.identity()) {
                case RadioIdentity radio -> devicesByEui.put(radio.devEui(), device);
                case DeviceIdentity.OfInlet of -> {
                    devicesByInletAndAddress.put(of.key(), device);
                    devicesByInlet
                            .computeIfAbsent(of.inletId(), id -> new ArrayList<>())
                            .add(device);
                }
            }
        });
        all(Assignment.class).forEach(assignment -> {
            assignmentsByDevice
                    .computeIfAbsent(assignment.deviceId(), id -> new ArrayList<>())
                    .add(assignment);
            assignmentsByPoint
                    .computeIfAbsent(assignment.pointId(), id -> new ArrayList<>())
                    .add(assignment);
        });
        all(Baseline.class).forEach(baseline -> baselinesByPoint
                .computeIfAbsent(baseline.pointId(), id -> new ArrayList<>())
                .add(baseline));
        all(Grant.class).forEach(grant -> grantsByHolder
                .computeIfAbsent(grant.holderId(), id -> new ArrayList<>())
                .add(grant));
        all(Group.class).forEach(group -> group.memberIds().forEach(person -> {
            groupsByPerson.computeIfAbsent(person, id -> new ArrayList<>()).add(group);
            grantsOfMembers
                    .computeIfAbsent(person, id -> new ArrayList<>(grantsHeldBy(id)))
                    .addAll(grantsHeldBy(group.id()));
        }));
        all(ResponseCheck.class).forEach(check -> check.pointIds().forEach(point -> checksByPoint
                .computeIfAbsent(point, id -> new ArrayList<>())
                .add(check)));
    }

    public static Registry empty() {
        return new Registry(new EnumMap<>(Kind.class));
    }

    /** A registry with these entities; of two with the same id the later wins. */
    public static Registry of(Collection<? extends Entity> entities) {
        return empty().with(entities.stream().<Change>map(Change.Put::new).toList());
    }

    /** The registry after some changes. */
    public Registry with(List<Change> changes) {
        Map<Kind, Map<String, Entity>> next = new EnumMap<>(Kind.class);
        next.putAll(byKind);
        Map<Kind, Map<String, Entity>> copied = new EnumMap<>(Kind.class);
        for (Change change : changes) {
            Kind kind =
                    switch (change) {
                        case Change.Put put -> Kind.of(put.entity());
                        case Change.Remove remove -> remove.kind();
                    };
            Map<String, Entity> entities =
                    copied.computeIfAbsent(kind, k -> new LinkedHashMap<>(byKind.getOrDefault(k, Map.of())));
            switch (change) {
                case Change.Put put -> entities.put(put.entity().id(), put.entity());
                case Change.Remove remove -> entities.remove(remove.id());
            }
            next.put(kind, entities);
        }
        return new Registry(next);
    }

    /** All entities of a type, in the order in which they were made. */
    @SuppressWarnings("unchecked") // each map holds only its kind's type
    public <T extends Entity> Collection<T> all(Class<T> type) {
        return (Collection<T>) Collections.unmodifiableCollection(
                byKind.getOrDefault(Kind.of(type), Map.of()).values());
    }

    /** The person with a name, however it is spelt. */
    public Optional<Person> person(String name) {
        String key = PersonName.key(name);
        return all(Person.class).stream()
                .filter(person -> PersonName.key(person.name()).equals(key))
                .findFirst();
    }

    public <T extends Entity> Optional<T> find(Class<T> type, @Nullable String id) {
        return id == null
                ? Optional.empty()
                : Optional.ofNullable(
                        type.cast(byKind.getOrDefault(Kind.of(type), Map.of()).get(id)));
    }

    /** The entity that holds this id, of whichever kind. */
    public Optional<Entity> find(Kind kind, String id) {
        return Optional.ofNullable(byKind.getOrDefault(kind, Map.of()).get(id));
    }

    /** Every entity of every kind. */
    public List<Entity> everything() {
        return byKind.values().stream()
                .flatMap(entities -> entities.values().stream())
                .toList();
    }

    public Optional<Point> point(int number) {
        return Optional.ofNullable(pointsByNumber.get(number));
    }

    /** The highest number that any point has, 0 if there is none. */
    public int highestPointNumber() {
        return pointsByNumber.keySet().stream()
                .mapToInt(Integer::intValue)
                .max()
                .orElse(0);
    }

    /** The gateway whose frames a point counts. */
    public Optional<Gateway> gatewayCountedAt(String pointId) {
        return Optional.ofNullable(gatewaysByPoint.get(pointId));
    }

    public Optional<Gateway> gateway(Eui64 eui) {
        return Optional.ofNullable(gatewaysByEui.get(eui));
    }

    public Optional<Device> device(Eui64 devEui) {
        return Optional.ofNullable(devicesByEui.get(devEui));
    }

    /** The device that an address in the messages of an inlet belongs to. */
    public Optional<Device> device(String inletId, String address) {
        return Optional.ofNullable(devicesByInletAndAddress.get(DeviceIdentity.OfInlet.key(inletId, address)));
    }

    /** The devices that speak by an inlet, or are asked by it. */
    public List<Device> devicesOf(String inletId) {
        return devicesByInlet.getOrDefault(inletId, List.of());
    }

    /** The rights of a person: their own, and those of the groups that they are in. */
    public List<Grant> grantsOf(String personId) {
        return grantsOfMembers.getOrDefault(personId, grantsHeldBy(personId));
    }

    /** The rights that a person or a group was given itself. */
    public List<Grant> grantsHeldBy(String holderId) {
        return grantsByHolder.getOrDefault(holderId, List.of());
    }

    /** The groups that a person is in. */
    public List<Group> groupsOf(String personId) {
        return groupsByPerson.getOrDefault(personId, List.of());
    }

    public List<Assignment> assignmentsOf(String deviceId) {
        return assignmentsByDevice.getOrDefault(deviceId, List.of());
    }

    /** Which channels fed a point, and feed it now. */
    public List<Assignment> assignmentsTo(String pointId) {
        return assignmentsByPoint.getOrDefault(pointId, List.of());
    }

    /**
     * Whether a sensor of a point is being provoked at a moment, so that what it reads says nothing about the place.
     */
    public boolean isBeingChecked(int pointNumber, Instant time) {
        Point point = checksByPoint.isEmpty() ? null : pointsByNumber.get(pointNumber);
        return point != null
                && checksByPoint.getOrDefault(point.id(), List.of()).stream().anyMatch(check -> check.covers(time));
    }

    /** Points of exactly this place, not of what lies below it. */
    public List<Point> pointsOf(String placeId) {
        return pointsByPlace.getOrDefault(placeId, List.of());
    }

    /** A site, area or asset. */
    public Optional<Place> place(@Nullable String id) {
        return find(Asset.class, id)
                .<Place>map(asset -> asset)
                .or(() -> find(Area.class, id))
                .or(() -> find(Site.class, id));
    }

    /** From a place up to its site; empty if there is no such place. */
    public List<Place> pathUp(@Nullable String placeId) {
        List<Place> path = new ArrayList<>();
        Optional<Place> place = place(placeId);
        while (place.isPresent() && path.size() < 64) {
            path.add(place.get());
            place = place(place.get().parentId());
        }
        return path;
    }

    /** Whether a place is another one, or lies below it. */
    public boolean isWithin(@Nullable String placeId, String other) {
        return pathUp(placeId).stream().anyMatch(place -> place.id().equals(other));
    }

    /** The time zone of the site that a place lies in; UTC where there is none. */
    public ZoneId zoneOf(@Nullable String placeId) {
        return siteOf(placeId).map(Site::zone).orElse(ZoneOffset.UTC);
    }

    /** The days of the site that a place lies in: its time zone, and its holidays. */
    public SiteDays daysOf(String placeId) {
        return new SiteDays(
                zoneOf(placeId),
                siteOf(placeId)
                        .flatMap(of -> find(Holidays.class, of.id()))
                        .map(Holidays::dates)
                        .orElse(Set.of()));
    }

    /** The site that a place belongs to. */
    public Optional<Site> siteOf(@Nullable String placeId) {
        return pathUp(placeId).stream()
                .filter(Site.class::isInstance)
                .map(Site.class::cast)
                .findFirst();
    }

    /** The baselines of a point, in the order in which they were made. */
    public List<Baseline> baselinesOf(String pointId) {
        return baselinesByPoint.getOrDefault(pointId, List.of());
    }

    /** The baseline that a point is compared with, if its values are known. */
    public Optional<Baseline> referenceOf(String pointId) {
        return baselinesOf(pointId).stream()
                .filter(baseline -> baseline.reference() && baseline.spread().isPresent())
                .findFirst();
    }

    /**
     * The limit set that holds for a point: its own, else the nearest one up its place's path for its quantity. Limits
     * for a mean hold for points that are that mean, and for no others.
     */
    public Optional<LimitSet> limitsOf(Point point) {
        return limitsOf(point, point.averaging());
    }

    /** The limit set that holds for what a point's values come to when they are averaged so. */
    public Optional<LimitSet> limitsOf(Point point, Averaging averaging) {
        Optional<LimitSet> own = find(LimitSet.class, point.limitSet());
        if (point.limitSet() != null && averaging.equals(point.averaging())) {
            return own.filter(set -> set.averaging().equals(averaging)).flatMap(set -> set.in(point.unit()));
        }
        return pathUp(point.placeId()).stream()
                .filter(Asset.class::isInstance)
                .flatMap(place -> ((Asset) place).limitSets().stream())
                .flatMap(id -> find(LimitSet.class, id).stream())
                .filter(set ->
                        set.quantity() == point.quantity() && set.averaging().equals(averaging))
                .findFirst()
                .flatMap(set -> set.in(point.unit()));
    }

    /**
     * The points that a rule looks at now. Of an asset or a selection a mean over time belongs to it only if the rule
     * is on zones: a limit of its own, with its own measure, is for what is measured.
     */
    public List<Point> pointsOf(Rule rule) {
        return switch (rule.target()) {
            case Target.OfPoint of -> find(Point.class, of.pointId()).stream().toList();
            case Target.OfAsset of ->
                pointsOf(of.assetId()).stream()
                        .filter(point -> point.quantity() == of.quantity() && isFor(rule.condition(), point))
                        .toList();
            case Target.Selection of ->
                pointsOf(of.points()).stream()
                        .filter(point -> isFor(rule.condition(), point))
                        .toList();
            case Target.Here here -> List.of();
        };
    }

    /**
     * Whether a condition looks at a point of an asset or a selection. A limit of a rule's own is for what is measured:
     * not for a mean over time, whose zones alone are looked at, and not for what was read while another point had
     * certain values, which has zones and a baseline of its own.
     */
    public static boolean isFor(Condition condition, Point point) {
        return switch (condition) {
            case Condition.InZone inZone -> true;
            case Condition.OffBaseline offBaseline -> isOfNow(point);
            case Condition.Above above -> isMeasured(point);
            case Condition.Below below -> isMeasured(point);
            case Condition.Outside outside -> isMeasured(point);
            case Condition.Silent silent -> isMeasured(point);
            case Condition.DeviceSays verdict -> isMeasured(point);
            case Condition.Faulty faulty -> isMeasured(point);
        };
    }

    private static boolean isMeasured(Point point) {
        return isOfNow(point) && !(point.formula() instanceof Formula.While);
    }

    private static boolean isOfNow(Point point) {
        return point.averaging().equals(Averaging.LAST);
    }

    /** The points that a selection has now. */
    public List<Point> pointsOf(PointSelection of) {
        String tag = of.tag();
        return all(Point.class).stream()
                .filter(point -> (of.quantity() == null || point.quantity() == of.quantity())
                        && (tag == null || Tags.contains(point.tags(), tag))
                        && isIn(of, point))
                .toList();
    }

    /** The place whose rights decide who may see and change a rule; empty text if its target is gone. */
    public String placeIdOf(Rule rule) {
        return switch (rule.target()) {
            case Target.OfPoint of ->
                find(Point.class, of.pointId()).map(Point::placeId).orElse("");
            case Target.OfAsset of ->
                find(Asset.class, of.assetId()).map(Asset::id).orElse("");
            case Target.Selection of -> place(of.placeId()).map(Place::id).orElse("");
            case Target.Here here -> "";
        };
    }

    private boolean isIn(PointSelection of, Point point) {
        List<Place> path = pathUp(point.placeId());
        return path.stream().anyMatch(place -> place.id().equals(of.placeId()))
                && (of.assetKind() == null
                        || !path.isEmpty()
                                && path.getFirst() instanceof Asset asset
                                && asset.kind().equalsIgnoreCase(of.assetKind()));
    }
}
