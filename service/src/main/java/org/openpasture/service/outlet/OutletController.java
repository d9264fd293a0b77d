package org.openpasture.service.outlet;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.outlet.OutletRequest;
import org.openpasture.api.outlet.OutletView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.OutletEdits;
import org.openpasture.core.edit.OutletWish;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.engine.outlet.PassingDesk;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
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
    private final PassingDesk desk;
    private final InletSecrets secrets;
    private final Reader reader;
    private final Editor editor;

    OutletController(PassingDesk desk, InletSecrets secrets, Reader reader, Editor editor) {
        this.editor = editor;
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
                secrets.of(outlet.id()).keySet().stream().sorted().toList(),
                outlet.lifeSignMinutes());
    }

    @PostMapping("/api/v1/outlets")
    @ResponseStatus(HttpStatus.CREATED)
    OutletView make(@RequestBody OutletRequest request) {
        Outlet made = outlet(Accounts.newId(), request);
        // Its secrets are there before it opens, so that its first message does not go without them.
        editor.edit(
                access -> OutletEdits.edit(access, new OutletWish.Make(made)),
                () -> Optional.ofNullable(request.secrets()).ifPresent(given -> secrets.save(made.id(), given)),
                () -> secrets.forgetAll(made.id()));
        return one(made.id());
    }

    @PutMapping("/api/v1/outlets/{id}")
    OutletView change(@PathVariable String id, @RequestBody OutletRequest request) {
        Outlet before = outlet(id);
        Outlet changed = outlet(id, request);
        OutletWish wish = new OutletWish.Change(changed);
        if (!before.destination().place().equals(changed.destination().place())) {
            // Secrets are for the address that they were entered for, and gone before another is called.
            editor.check(access -> OutletEdits.edit(access, wish));
            secrets.forgetAll(id);
        }
        editor.edit(access -> OutletEdits.edit(access, wish));
        settle(id, request.secrets());
        return one(id);
    }

    private static Outlet outlet(String id, OutletRequest request) {
        return new Outlet(
                id,
                request.name(),
                request.siteId(),
                false,
                request.destination(),
                request.placeIds() == null ? List.of() : request.placeIds(),
                request.quantities(),
                request.readings(),
                request.alerts(),
                request.form() == null ? Outlet.Form.JSON : request.form(),
                false,
                request.lifeSignMinutes());
    }

    /** @param others null to leave the secrets as they are */
    private void settle(String id, @Nullable Map<String, String> others) {
        if (others != null) {
            secrets.save(id, others);
            desk.reopen(id);
        }
    }

    @PostMapping("/api/v1/outlets/{id}/pause")
    OutletView pause(@PathVariable String id) {
        return pause(id, true);
    }

    @PostMapping("/api/v1/outlets/{id}/resume")
    OutletView resume(@PathVariable String id) {
        return pause(id, false);
    }

    private OutletView pause(String id, boolean paused) {
        editor.edit(access -> OutletEdits.edit(access, new OutletWish.Pause(id, paused)));
        return one(id);
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
        editor.edit(access -> OutletEdits.edit(access, new OutletWish.Remove(id)));
        secrets.forget(id);
    }
}
