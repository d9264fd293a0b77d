package org.openpasture.service.fleet;

import java.util.List;
import java.util.Optional;
import org.openpasture.api.fleet.GatewayRequest;
import org.openpasture.api.fleet.GatewayView;
import org.openpasture.api.fleet.HeardGateway;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.GatewayEdits;
import org.openpasture.core.edit.GatewayWish;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.people.Right;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.radio.GatewayTokens;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.store.telemetry.TelemetryStore;
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
    private final GatewayStates states;
    private final GatewayTokens tokens;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Editor editor;

    GatewayController(
            GatewayStates states, GatewayTokens tokens, TelemetryStore telemetry, Reader reader, Editor editor) {
        this.telemetry = telemetry;
        this.states = states;
        this.tokens = tokens;
        this.reader = reader;
        this.editor = editor;
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
        Gateway gateway = gateway(Accounts.newId(), request);
        return edited(gateway, new GatewayWish.Make(gateway, counting(request)));
    }

    @PutMapping("/api/v1/gateways/{id}")
    GatewayView change(@PathVariable String id, @RequestBody GatewayRequest request) {
        Gateway gateway = gateway(id, request);
        return edited(gateway, new GatewayWish.Change(gateway, counting(request)));
    }

    private GatewayWish.Counting counting(GatewayRequest request) {
        return new GatewayWish.Counting(
                Optional.ofNullable(request.point()), Accounts.newId(), telemetry.highestPoint());
    }

    private static Gateway gateway(String id, GatewayRequest request) {
        return new Gateway(id, request.name(), request.eui(), request.siteId());
    }

    private GatewayView edited(Gateway gateway, GatewayWish wish) {
        Access after = editor.edit(access -> GatewayEdits.edit(access, wish));
        return states.view(after.registry(), gateway);
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
        editor.edit(access -> GatewayEdits.edit(access, new GatewayWish.Remove(id)));
        tokens.forget(id);
    }
}
