package org.openpasture.service.fleet;

import java.util.List;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.fleet.GatewayView;
import org.openpasture.api.fleet.HeardGateway;
import org.openpasture.core.access.Access;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.radio.GatewayTokens;
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

/** Gateways: registered, heard but unknown, and the port they come in by. */
@RestController
class GatewayController {
    private final RegistryStore registry;
    private final GatewayStates states;
    private final GatewayTokens tokens;
    private final Reader reader;

    GatewayController(RegistryStore registry, GatewayStates states, GatewayTokens tokens, Reader reader) {
        this.registry = registry;
        this.states = states;
        this.tokens = tokens;
        this.reader = reader;
    }

    @GetMapping("/api/v1/gateways")
    List<GatewayView> list() {
        Access access = reader.access();
        return access.registry().all(Gateway.class).stream()
                .filter(gateway -> access.may(Right.LOOK, gateway))
                .map(gateway -> states.view(access.registry(), gateway))
                .toList();
    }

    /** Gateways that speak to us and that nobody registered; for who may edit some site. */
    @GetMapping("/api/v1/gateways/heard")
    List<HeardGateway> heard() {
        Access access = reader.access();
        return access.mayAnywhere(Right.EDIT) ? states.heardUnknown(access.registry()) : List.of();
    }

    /** Registers a gateway, or admits one that was heard. */
    @PostMapping("/api/v1/gateways")
    @ResponseStatus(HttpStatus.CREATED)
    GatewayView make(@RequestBody GatewayRequest request) {
        return save(Accounts.newId(), request);
    }

    @PutMapping("/api/v1/gateways/{id}")
    GatewayView change(@PathVariable String id, @RequestBody GatewayRequest request) {
        reader.require(Right.EDIT, reader.find(Gateway.class, id, "gateway").siteId(), "change this gateway");
        return save(id, request);
    }

    private GatewayView save(String id, GatewayRequest request) {
        reader.require(Right.EDIT, request.siteId(), "register gateways here");
        reader.find(Site.class, request.siteId(), "site");
        Gateway gateway = new Gateway(id, request.name(), request.eui(), request.siteId());
        registry.change(reader.person().name(), now -> {
            now.gateway(request.eui()).filter(other -> !other.id().equals(id)).ifPresent(other -> {
                throw Problem.conflict(
                        "A gateway with the EUI " + request.eui() + " is registered already: '" + other.name() + "'.",
                        "Change that one, or check the EUI.");
            });
            return List.of(new Change.Put(gateway));
        });
        return states.view(registry.now(), gateway);
    }

    /** A token that was just made; it is shown only here. */
    record TokenView(String token) {}

    /** Makes a token that the gateway's station has to give from now on; an older one is of no use any more. */
    @PostMapping("/api/v1/gateways/{id}/token")
    @ResponseStatus(HttpStatus.CREATED)
    TokenView makeToken(@PathVariable String id) {
        reader.require(Right.EDIT, reader.find(Gateway.class, id, "gateway").siteId(), "make a token for this gateway");
        return new TokenView(tokens.make(id));
    }

    @DeleteMapping("/api/v1/gateways/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        reader.require(Right.EDIT, reader.find(Gateway.class, id, "gateway").siteId(), "remove this gateway");
        registry.change(reader.person().name(), List.of(new Change.Remove(Kind.GATEWAY, id)));
        tokens.forget(id);
    }
}
