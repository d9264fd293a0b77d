package org.openpasture.service.outlet;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.outlet.OutletView;
import org.openpasture.core.access.Access;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.engine.outlet.PassingDesk;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Outlets: ways out by which readings and alerts are passed on as they come. */
@RestController
class OutletController {
    private final RegistryStore registry;
    private final PassingDesk desk;
    private final InletSecrets secrets;
    private final Reader reader;

    OutletController(RegistryStore registry, PassingDesk desk, InletSecrets secrets, Reader reader) {
        this.registry = registry;
        this.desk = desk;
        this.secrets = secrets;
        this.reader = reader;
    }

    @GetMapping("/api/v1/outlets")
    List<OutletView> list() {
        Access access = reader.access();
        return access.registry().all(Outlet.class).stream()
                .filter(outlet -> access.may(Right.LOOK, outlet.siteId()))
                .map(outlet -> view(access.registry(), outlet))
                .toList();
    }

    @GetMapping("/api/v1/outlets/{id}")
    OutletView one(@PathVariable String id) {
        return view(reader.now(), outlet(id));
    }

    private Outlet outlet(String id) {
        Access access = reader.access();
        return access.registry()
                .find(Outlet.class, id)
                .filter(outlet -> access.may(Right.LOOK, outlet.siteId()))
                .orElseThrow(() -> Problem.notFound("outlet"));
    }

    private Outlet mayChange(String id) {
        Outlet outlet = outlet(id);
        reader.require(Right.EDIT, outlet.siteId(), "change this outlet");
        return outlet;
    }

    private OutletView view(Registry now, Outlet outlet) {
        PassingDesk.Standing standing = desk.standing(outlet);
        return new OutletView(
                outlet.id(),
                outlet.name(),
                outlet.siteId(),
                now.find(Site.class, outlet.siteId()).map(Site::name).orElse(""),
                standing.state(),
                standing.reason(),
                outlet.destination().address(),
                outlet.destination(),
                outlet.placeIds(),
                outlet.quantities(),
                outlet.readings(),
                outlet.alerts(),
                outlet.form(),
                standing.waiting(),
                standing.oldestAt(),
                standing.counts().passed(),
                standing.counts().dropped(),
                standing.counts().refused(),
                standing.counts().passedAt(),
                secrets.of(outlet.id()).keySet().stream().sorted().toList());
    }

    @PostMapping("/api/v1/outlets")
    @ResponseStatus(HttpStatus.CREATED)
    OutletView make(@RequestBody OutletRequest request) {
        return save(Accounts.newId(), request, false);
    }

    @PutMapping("/api/v1/outlets/{id}")
    OutletView change(@PathVariable String id, @RequestBody OutletRequest request) {
        return save(id, request, mayChange(id).paused());
    }

    private OutletView save(String id, OutletRequest request, boolean paused) {
        reader.requireSite(Right.EDIT, request.siteId(), "make outlets here");
        Outlet outlet = new Outlet(
                id,
                request.name(),
                request.siteId(),
                paused,
                request.destination(),
                request.placeIds() == null ? List.of() : request.placeIds(),
                request.quantities(),
                request.readings(),
                request.alerts(),
                request.form() == null ? Outlet.Form.JSON : request.form());
        outlet.placeIds().forEach(place -> {
            if (reader.now().pathUp(place).stream().map(Place::id).noneMatch(request.siteId()::equals)) {
                throw Problem.invalid("a place that is passed on does not belong to the outlet's site");
            }
        });
        if (request.secrets() != null) {
            secrets.save(id, request.secrets());
        }
        registry.change(reader.person().name(), now -> {
            now.all(Outlet.class).stream()
                    .filter(other -> !other.id().equals(id) && other.name().equalsIgnoreCase(outlet.name()))
                    .findFirst()
                    .ifPresent(other -> {
                        throw Problem.conflict(
                                "There is an outlet called '" + other.name() + "' already.",
                                "Give this one another name.");
                    });
            return List.of(new Change.Put(outlet));
        });
        if (request.secrets() != null) {
            desk.reopen(id);
        }
        return view(reader.now(), outlet);
    }

    @PostMapping("/api/v1/outlets/{id}/pause")
    OutletView pause(@PathVariable String id) {
        return put(mayChange(id).paused(true));
    }

    @PostMapping("/api/v1/outlets/{id}/resume")
    OutletView resume(@PathVariable String id) {
        return put(mayChange(id).paused(false));
    }

    private OutletView put(Outlet outlet) {
        registry.change(reader.person().name(), List.of(new Change.Put(outlet)));
        return view(reader.now(), outlet);
    }

    /** Sends a message that says that it is a trial, and tells what the outside answered. */
    @PostMapping("/api/v1/outlets/{id}/try")
    Map<String, String> attempt(@PathVariable String id) throws InterruptedException {
        Outlet outlet = mayChange(id);
        try {
            return Map.of("answer", desk.attempt(outlet));
        } catch (IOException e) {
            throw Problem.conflict(
                    "It was not taken: " + e.getMessage() + ".", "Put its destination right, and try again.");
        }
    }

    @DeleteMapping("/api/v1/outlets/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        mayChange(id);
        registry.change(reader.person().name(), List.of(new Change.Remove(Kind.OUTLET, id)));
        secrets.forget(id);
    }
}
