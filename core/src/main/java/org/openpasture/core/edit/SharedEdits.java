package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

/**
 * Changes of limit sets and device models. What all sites share judges and reads for all of them, so that only who
 * manages the whole instance changes it; whoever edits one site makes and changes what belongs to that site.
 */
public final class SharedEdits {
    private SharedEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, SharedWish wish) {
        return switch (wish) {
            case SharedWish.Make make ->
                Edited.unless(
                        mayHave(access, make.thing(), "add")
                                .or(() -> unit(make.thing()))
                                .or(() -> channels(make.thing())),
                        () -> Changes.put(make.thing()));
            case SharedWish.Remove remove ->
                Edited.unless(
                        mayHave(access, remove.thing(), "remove")
                                .or(() -> shipped(remove.thing()))
                                .or(() -> inUse(access.registry(), remove.thing())),
                        () -> new Changes(List.of(new Change.Remove(
                                Kind.of(remove.thing()), remove.thing().id()))));
            case SharedWish.Change change -> {
                Shareable thing = change.thing();
                Optional<? extends Shareable> before = access.registry().find(thing.getClass(), thing.id());
                yield Edited.unless(
                        before.filter(access::maySee).isEmpty()
                                ? Optional.of(Refused.unknown(word(thing)))
                                : mayHave(access, before.get(), "change")
                                        .or(() -> shipped(before.get()))
                                        .or(() -> mayHave(access, thing, "change"))
                                        .or(() -> unit(thing))
                                        .or(() -> channels(thing))
                                        .or(() -> keepsAveraging(access.registry(), before.get(), thing))
                                        .or(() -> usedElsewhere(access.registry(), thing)),
                        () -> Changes.put(thing));
            }
        };
    }

    /** Refuses to let a place use what belongs to another site. */
    static Optional<Refused> usable(Access access, Shareable thing, String placeId) {
        return isFor(access.registry(), thing, placeId)
                ? Optional.empty()
                : Optional.of(
                        access.maySee(thing)
                                ? Refused.clash(
                                        "'" + name(thing) + "' belongs to another site.",
                                        "Choose a " + word(thing) + " of this site, or one that all sites share.")
                                : Refused.unknown(word(thing)));
    }

    /** Whether devices and points of a place may use it. */
    public static boolean isFor(Registry now, Shareable thing, String placeId) {
        return thing.siteId() == null
                || now.siteOf(placeId)
                        .map(Site::id)
                        .filter(thing.siteId()::equals)
                        .isPresent();
    }

    private static Optional<Refused> mayHave(Access access, Shareable thing, String verb) {
        String site = thing.siteId();
        if (site != null) {
            return Rights.onSite(access, Right.EDIT, site, verb + " " + word(thing) + "s of this site");
        }
        return access.mayManageInstance()
                ? Optional.empty()
                : Optional.of(new Refused(
                        Edited.Reason.NOT_ALLOWED,
                        "You may not " + verb + " " + word(thing) + "s that all sites share.",
                        "Make one for a site that you edit (siteId), or ask an owner."));
    }

    /** Limits in a unit of something else could be held against nothing. */
    private static Optional<Refused> unit(Shareable thing) {
        return thing instanceof LimitSet set && !set.quantity().takes(set.unit())
                ? Optional.of(Refused.invalid(
                        "'" + set.unit() + "' is no unit of " + set.quantity().title() + ", which is kept in '"
                                + set.quantity().unit() + "'.",
                        "Write the limits in '" + set.quantity().unit() + "', or in what can be converted to it."))
                : Optional.empty();
    }

    /** Refuses channels that nothing would ever fill. */
    private static Optional<Refused> channels(Shareable thing) {
        return thing instanceof DeviceModel model && model.script() == null
                ? model.channels().stream()
                        .map(Channel::name)
                        .filter(name -> !name.equals(Channel.SIGNAL)
                                && !model.layout().channels().contains(name))
                        .findFirst()
                        .map(name -> Refused.invalid(
                                "The layout has no field for the channel '" + name + "'.",
                                "Add the field to the layout, or remove the channel."))
                        .or(() -> words(thing))
                : words(thing);
    }

    private static Optional<Refused> words(Shareable thing) {
        return thing instanceof DeviceModel model
                ? model.channels().stream()
                        .filter(channel -> !ValueWords.areUsable(channel.words()))
                        .findFirst()
                        .map(channel -> Refused.invalid(
                                "The channel '" + channel.name() + "' has words for values that cannot be used.",
                                ValueWords.TODO))
                : Optional.empty();
    }

    private static Optional<Refused> shipped(Shareable before) {
        return before instanceof LimitSet set && set.shipped()
                ? Optional.of(Refused.clash(
                        "A shipped limit set is read-only, since its figures are those of a standard.",
                        "Copy it and adjust the copy."))
                : Optional.empty();
    }

    /** Points that a set holds for are averaged as it says; with another rule it would silently hold for none. */
    private static Optional<Refused> keepsAveraging(Registry now, Shareable before, Shareable after) {
        return before instanceof LimitSet one
                        && after instanceof LimitSet other
                        && !one.averaging().equals(other.averaging())
                        && inUse(now, before).isPresent()
                ? Optional.of(Refused.clash(
                        "The limit set is in use for the " + one.averaging().words() + "; it keeps this rule.",
                        "Copy it, and give the copy the other rule."))
                : Optional.empty();
    }

    private static Optional<Refused> inUse(Registry now, Shareable thing) {
        String id = thing.id();
        return new Uses()
                .count("asset", now.all(Asset.class), asset -> asset.limitSets().contains(id))
                .count("point", now.all(Point.class), point -> id.equals(point.limitSet()))
                .count("device", now.all(Device.class), device -> device.modelId()
                        .equals(id))
                .refusal(name(thing));
    }

    private static Optional<Refused> usedElsewhere(Registry now, Shareable thing) {
        List<String> users =
                switch (thing) {
                    case LimitSet set ->
                        Stream.concat(
                                        now.all(Asset.class).stream()
                                                .filter(asset ->
                                                        asset.limitSets().contains(set.id()))
                                                .map(Asset::id),
                                        now.all(Point.class).stream()
                                                .filter(point -> set.id().equals(point.limitSet()))
                                                .map(Point::placeId))
                                .toList();
                    case DeviceModel model ->
                        now.all(Device.class).stream()
                                .filter(device -> device.modelId().equals(model.id()))
                                .map(Device::placeId)
                                .toList();
                    default -> List.of();
                };
        long elsewhere =
                users.stream().filter(place -> !isFor(now, thing, place)).count();
        return elsewhere == 0
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "Other sites use this " + word(thing) + ": it cannot become one of a single site.",
                        "Copy it, and give the copy to the site."));
    }

    private static String word(Shareable thing) {
        return switch (thing) {
            case LimitSet set -> "limit set";
            default -> "device model";
        };
    }

    private static String name(Shareable thing) {
        return switch (thing) {
            case LimitSet set -> set.title();
            case DeviceModel model -> model.name();
            default -> thing.id();
        };
    }
}
