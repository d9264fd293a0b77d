package org.openpasture.service.access;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
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

    /** What they may do, by the registry as it is now. */
    public Access access() {
        return new Access(registry.now(), person());
    }

    public void requireOwner(String what) {
        if (!person().owner()) {
            throw Problem.forbidden(what);
        }
    }

    /** Checks a right on a place; a place that may not even be seen is not found. */
    public void require(Right right, @Nullable String placeId, String what) {
        Access access = access();
        if (!access.may(Right.LOOK, placeId)) {
            throw Problem.notFound("place");
        }
        if (!access.may(right, placeId)) {
            throw Problem.forbidden(what);
        }
    }

    /** A place that is registered, and on which the person has a right. */
    public Place place(Right right, String id, String what) {
        require(right, id, what);
        return now().place(id).orElseThrow(() -> Problem.notFound("place"));
    }

    /** A site that is registered, and on which the person has a right. */
    public Site site(Right right, String id, String what) {
        require(right, id, what);
        return find(Site.class, id, "site");
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
                .or(() -> id.chars().allMatch(Character::isDigit) && id.length() < 9
                        ? access.registry().point(Integer.parseInt(id))
                        : java.util.Optional.empty())
                .filter(access::maySee)
                .orElseThrow(() -> Problem.notFound("point"));
    }

    /** A device that the person may see. */
    public Device device(String id) {
        Access access = access();
        return access.registry()
                .find(Device.class, id)
                .filter(device -> access.may(Right.LOOK, device))
                .orElseThrow(() -> Problem.notFound("device"));
    }

    /** An entity of any kind, without a check of rights. */
    public <T extends Entity> T find(Class<T> type, String id, String what) {
        return now().find(type, id).orElseThrow(() -> Problem.notFound(what));
    }

    public Registry now() {
        return registry.now();
    }
}
