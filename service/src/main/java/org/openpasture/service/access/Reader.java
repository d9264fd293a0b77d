package org.openpasture.service.access;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.Scope;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.Rights;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.entity.Shareable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.PersonUnits;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/** Who asks, and the checks that every request goes through. Rights are enforced here, whatever the console shows. */
@Component
public class Reader {
    private final RegistryStore registry;

    Reader(RegistryStore registry) {
        this.registry = registry;
    }

    /** The person who asks. */
    public Person person() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        if (authentication != null && authentication.getPrincipal() instanceof Person signedIn) {
            return registry.now()
                    .find(Person.class, signedIn.id())
                    .orElseThrow(() -> Problem.unauthorised("Your account is gone."));
        }
        throw Problem.unauthorised("You are not signed in.");
    }

    /** The hash of the token by which they are recognised. */
    public String tokenHash() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        if (authentication != null && authentication.getCredentials() instanceof String hash) {
            return hash;
        }
        throw Problem.unauthorised("You are not signed in.");
    }

    /** What they may do, by the registry as it is now. */
    public Access access() {
        return access(registry.now(), person());
    }

    /** What somebody who asks by this request may do, by some registry. */
    public Access access(Registry now, Person asks) {
        return new Access(now, asks, scope());
    }

    /** What the request may use of the person's rights. */
    public Scope scope() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getDetails() instanceof Scope scope ? scope : Scope.ALL;
    }

    /** What belongs to the person and not to a place needs a sign-in: a program's token is not enough. */
    public void requireSignIn(String what) {
        if (!scope().isAll()) {
            throw Problem.forbidden(what + " with an API token; sign in instead");
        }
    }

    /** What belongs to the person alone still needs a token that may edit. */
    public void requireScope(Right right, String what) {
        if (!scope().most().includes(right)) {
            throw Problem.forbidden(what + " with this API token");
        }
    }

    public void requireOwner(String what) {
        if (!access().mayManageInstance()) {
            throw Problem.forbidden(what);
        }
    }

    /** Checks a right on a place; a place that may not even be seen is not found. */
    public void require(Right right, @Nullable String placeId, String what) {
        Rights.of(access(), right, placeId, what).ifPresent(Reader::refuse);
    }

    /** Checks a right on a place that has to be registered; an owner has every right even where there is no place. */
    public void requirePlace(Right right, String placeId, String what) {
        Rights.on(access(), right, placeId, what).ifPresent(Reader::refuse);
    }

    /** Checks a right on a site that has to be registered. */
    public void requireSite(Right right, String siteId, String what) {
        requirePlace(right, siteId, what);
        find(Site.class, siteId, "site");
    }

    private static void refuse(Edited.Refused refused) {
        throw Problem.of(refused);
    }

    /** Checks a right that is needed on some site only. */
    public void requireAnywhere(Right right, String what) {
        if (!access().mayAnywhere(right)) {
            throw Problem.forbidden(what);
        }
    }

    /** A point that the person may see. */
    public Point point(String id) {
        Access access = access();
        return access.registry()
                .find(Point.class, id)
                .or(() -> Point.number(id).flatMap(access.registry()::point))
                .filter(access::maySee)
                .orElseThrow(() -> Problem.notFound("point"));
    }

    /** A site, area or asset that the reader may look at. */
    public Place place(String id) {
        Access access = access();
        return access.registry()
                .place(id)
                .filter(found -> access.may(Right.LOOK, found.id()))
                .orElseThrow(() -> Problem.notFound("place"));
    }

    /** A device that the person may see. */
    public Device device(String id) {
        Access access = access();
        return access.registry()
                .find(Device.class, id)
                .filter(device -> access.may(Right.LOOK, device))
                .orElseThrow(() -> Problem.notFound("device"));
    }

    /** A limit set or a device model that the person may see. */
    public <T extends Shareable> T shared(Class<T> type, String id, String what) {
        Access access = access();
        return access.registry().find(type, id).filter(access::maySee).orElseThrow(() -> Problem.notFound(what));
    }

    /**
     * The site that a new limit set or device model belongs to, where none was named: for an owner none, so that all
     * sites share it; for others the one site that they edit.
     */
    public @Nullable String siteForNew(@Nullable String named) {
        Access access = access();
        if (named != null || access.mayManageInstance()) {
            return named;
        }
        List<String> sites = access.registry().all(Site.class).stream()
                .map(Site::id)
                .filter(site -> access.may(Right.EDIT, site))
                .toList();
        return sites.size() == 1 ? sites.getFirst() : null;
    }

    /**
     * The site that a limit set or a device model belongs to after a change.
     *
     * @param named null where it stays as it is; empty for all sites
     */
    public static @Nullable String siteAfter(@Nullable String named, Shareable before) {
        return named == null ? before.siteId() : named.isEmpty() ? null : named;
    }

    /** An entity of any kind, without a check of rights. */
    public <T extends Entity> T find(Class<T> type, String id, String what) {
        return now().find(type, id).orElseThrow(() -> Problem.notFound(what));
    }

    public Registry now() {
        return registry.now();
    }

    /** The units that a request asks for: "kept", or "mine" for those in which the reader reads values. */
    public DisplayUnits units(String asked) {
        return switch (asked) {
            case "kept" -> DisplayUnits.asKept(person().id());
            case "mine" -> PersonUnits.of(now(), person().id());
            default -> throw Problem.invalid("units are 'kept' or 'mine', not '" + asked + "'");
        };
    }
}
