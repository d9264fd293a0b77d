package org.openpasture.service.inlet;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.PollView;
import org.openpasture.api.inlet.PollingRequest;
import org.openpasture.api.inlet.ProposalView;
import org.openpasture.api.inlet.SetRequest;
import org.openpasture.api.inlet.StrangerView;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.api.inlet.TrialView;
import org.openpasture.core.access.Access;
import org.openpasture.core.bacnet.Controller;
import org.openpasture.core.decoding.ChannelText;
import org.openpasture.core.edit.InletEdits;
import org.openpasture.core.edit.InletWish;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Polling;
import org.openpasture.core.fleet.Proposal;
import org.openpasture.core.framing.Splitter;
import org.openpasture.core.inlet.Arrived;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.Stranger;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.engine.heard.MessageText;
import org.openpasture.engine.inlet.InletDesk;
import org.openpasture.engine.inlet.InletSecrets;
import org.openpasture.engine.inlet.InletTokens;
import org.openpasture.engine.inlet.MessageIntake;
import org.openpasture.engine.inlet.PollDesk;
import org.openpasture.engine.inlet.Taken;
import org.openpasture.engine.radio.GatewayIntake;
import org.openpasture.inlets.poll.Poller;
import org.openpasture.inlets.poll.Target;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
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

/** Inlets: the ways in that were made, beside the ports for LoRaWAN gateways. */
@RestController
class InletController {
    private static final int MOST_ASKED = 20;
    private static final String NOT_ASKED =
            "It is not asked: it or its inlet is paused, or its model has neither a register map nor a list of objects.";
    private final RegistryStore registry;
    private final GatewayIntake gateways;
    private final InletStates states;
    private final InletDesk desk;
    private final InletTokens tokens;
    private final InletSecrets secrets;
    private final PollDesk polls;
    private final MessageIntake intake;
    private final Reader reader;
    private final Editor editor;

    InletController(
            RegistryStore registry,
            GatewayIntake gateways,
            InletStates states,
            InletDesk desk,
            InletTokens tokens,
            InletSecrets secrets,
            PollDesk polls,
            MessageIntake intake,
            Reader reader,
            Editor editor) {
        this.editor = editor;
        this.registry = registry;
        this.gateways = gateways;
        this.states = states;
        this.desk = desk;
        this.tokens = tokens;
        this.secrets = secrets;
        this.polls = polls;
        this.intake = intake;
        this.reader = reader;
    }

    @GetMapping("/api/v1/inlets")
    List<InletView> list() {
        Access access = reader.access();
        List<InletView> all = new ArrayList<>(access.mayAnywhere(Right.LOOK) ? gateways.views() : List.of());
        access.registry().all(Inlet.class).stream()
                .filter(inlet -> access.may(Right.LOOK, inlet))
                .map(inlet -> view(access.registry(), inlet))
                .forEach(all::add);
        return all;
    }

    @GetMapping("/api/v1/inlets/{id}")
    InletView one(@PathVariable String id) {
        return view(reader.now(), inlet(id));
    }

    private Inlet inlet(String id) {
        Access access = reader.access();
        return access.registry()
                .find(Inlet.class, id)
                .filter(inlet -> access.may(Right.LOOK, inlet))
                .orElseThrow(() -> Problem.notFound("inlet"));
    }

    private Inlet mayChange(String id) {
        return may(Right.EDIT, inlet(id), "change this inlet");
    }

    /** What is sent to devices goes over the inlet's line, which others share. */
    private Inlet mayOperate(Inlet inlet) {
        return may(Right.OPERATE, inlet, "send anything by this inlet");
    }

    private Inlet may(Right right, Inlet inlet, String what) {
        reader.require(right, inlet.siteId(), what);
        return inlet;
    }

    private InletView view(Registry now, Inlet inlet) {
        InletStates.Standing standing = states.standing(inlet.id());
        return new InletView(
                inlet.id(),
                inlet.name(),
                kind(inlet.source()),
                inlet.siteId(),
                now.find(Site.class, inlet.siteId()).map(Site::name).orElse(""),
                standing.address() == null ? inlet.source().address() : standing.address(),
                inlet.paused() ? "paused" : standing.condition(),
                standing.words(),
                standing.frames(),
                standing.refused(),
                standing.lost(),
                standing.thinned(),
                standing.replaced(),
                standing.lastAt(),
                now.devicesOf(inlet.id()).size(),
                unknown(now, inlet).size(),
                standing.refusals(),
                new InletView.Settings(inlet.source(), inlet.framing(), inlet.contents(), inlet.keepEverySeconds()));
    }

    /** Who was heard and, as it is now, belongs to no device. */
    private List<Stranger> unknown(Registry now, Inlet inlet) {
        return states.strangers(inlet.id()).stream()
                .filter(one -> now.device(inlet.id(), one.address()).isEmpty())
                .toList();
    }

    private static String kind(Source source) {
        return switch (source) {
            case Source.TcpPort port -> "tcp";
            case Source.UdpPort port -> "udp";
            case Source.SerialPort port -> "serial";
            case Source.HttpInbox inbox -> "http-inbox";
            case Source.HttpFetch fetch -> "http-fetch";
            case Source.MqttBroker broker -> "mqtt";
            case Source.OwnBroker broker -> "own-broker";
            case Source.ModbusTcp tcp -> "modbus-tcp";
            case Source.ModbusRtuOverTcp rtu -> "modbus-rtu-tcp";
            case Source.ModbusSerial serial -> "modbus-serial";
            case Source.BacnetIp bacnet -> "bacnet-ip";
        };
    }

    /**
     * An inlet that was just made.
     *
     * @param token for the address that is posted to, or the password for our broker; shown only here. Null for other
     *     kinds
     */
    record MadeView(InletView inlet, @Nullable String token) {}

    @PostMapping("/api/v1/inlets")
    @ResponseStatus(HttpStatus.CREATED)
    MadeView make(@RequestBody InletRequest request) {
        Inlet made = inlet(Accounts.newId(), request);
        // Its secrets are there before it opens, so that its first request does not go without them.
        editor.edit(
                access -> InletEdits.edit(access, new InletWish.Make(made)),
                () -> Optional.ofNullable(request.secrets()).ifPresent(given -> secrets.save(made.id(), given)),
                () -> secrets.forgetAll(made.id()));
        desk.settle();
        return new MadeView(view(reader.now(), made), made.source().hasToken() ? tokens.make(made.id()) : null);
    }

    @PutMapping("/api/v1/inlets/{id}")
    InletView change(@PathVariable String id, @RequestBody InletRequest request) {
        Inlet before = inlet(id);
        Inlet changed = inlet(id, request);
        InletWish wish = new InletWish.Change(changed);
        if (!before.source().place().equals(changed.source().place())) {
            // Secrets are for the address that they were entered for, and gone before another is called.
            editor.check(access -> InletEdits.edit(access, wish));
            secrets.forgetAll(id);
        }
        editor.edit(access -> InletEdits.edit(access, wish));
        settle(changed, request.secrets());
        return one(id);
    }

    private static Inlet inlet(String id, InletRequest request) {
        return new Inlet(
                id,
                request.name(),
                request.siteId(),
                false,
                request.source(),
                request.effectiveFraming(),
                request.contents(),
                request.keepEverySeconds(),
                false);
    }

    /** @param others null to leave the secrets as they are */
    private void settle(Inlet inlet, @Nullable Map<String, String> others) {
        if (others != null) {
            secrets.save(inlet.id(), others);
            desk.reopen(inlet.id());
        }
        desk.settle();
    }

    @PostMapping("/api/v1/inlets/{id}/pause")
    InletView pause(@PathVariable String id) {
        return pause(id, true);
    }

    @PostMapping("/api/v1/inlets/{id}/resume")
    InletView resume(@PathVariable String id) {
        return pause(id, false);
    }

    private InletView pause(String id, boolean paused) {
        editor.edit(access -> InletEdits.edit(access, new InletWish.Pause(id, paused)));
        desk.settle();
        return one(id);
    }

    @DeleteMapping("/api/v1/inlets/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> InletEdits.edit(access, new InletWish.Remove(id)));
        tokens.forget(id);
        desk.settle();
    }

    /** A token that was just made; it is shown only here. */
    record TokenView(String token, @Nullable Instant oldWorksUntil) {}

    /** Makes another token for an inbox; the one before works for a week more. */
    @PostMapping("/api/v1/inlets/{id}/token")
    @ResponseStatus(HttpStatus.CREATED)
    TokenView makeToken(@PathVariable String id) {
        if (!mayChange(id).source().hasToken()) {
            throw Problem.invalid("only an inbox and topics of our own broker have a token");
        }
        String token = tokens.make(id);
        return new TokenView(token, tokens.oldWorksUntil(id).orElse(null));
    }

    /** The token before the newest is of no use any more. */
    @DeleteMapping("/api/v1/inlets/{id}/token/before")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdrawOldToken(@PathVariable String id) {
        tokens.withdrawOld(mayChange(id).id());
    }

    /** Addresses that were heard and belong to no device, the newest first. */
    @GetMapping("/api/v1/inlets/{id}/strangers")
    List<StrangerView> strangers(@PathVariable String id) {
        Inlet inlet = inlet(id);
        Registry now = reader.now();
        return unknown(now, inlet).stream().map(one -> view(inlet, one)).toList();
    }

    private static StrangerView view(Inlet inlet, Stranger one) {
        if (inlet.source() instanceof Source.BacnetIp) {
            Controller said = Controller.of(one.newest().payload());
            return new StrangerView(
                    one.address(),
                    one.firstHeard(),
                    one.lastHeard(),
                    one.count(),
                    said.inWords(),
                    proposal(Proposal.of(said)));
        }
        return new StrangerView(
                one.address(),
                one.firstHeard(),
                one.lastHeard(),
                one.count(),
                MessageText.of(one.newest().bytes()),
                proposal(Proposal.of(one.newest().payload())));
    }

    /** Asks who is there; answers with all who did and are not registered. */
    @PostMapping("/api/v1/inlets/{id}/look")
    List<StrangerView> look(@PathVariable String id) throws InterruptedException {
        Inlet inlet = mayChange(id);
        if (!(inlet.source() instanceof Source.BacnetIp)) {
            throw Problem.invalid(
                    "only building controllers can be asked who is there; others are listed when they speak");
        }
        if (inlet.paused()) {
            throw Problem.conflict("The inlet '" + inlet.name() + "' is paused.", "Let it go on, and look again.");
        }
        desk.look(id);
        return strangers(id);
    }

    /** Says what a message would come to, with nothing kept of it. */
    @PostMapping("/api/v1/inlets/{id}/try")
    TrialView tryOut(@PathVariable String id, @RequestBody TrialRequest request) {
        Inlet inlet = inlet(id);
        if (inlet.source() instanceof Source.Polled) {
            mayOperate(inlet);
            return askAll(inlet);
        }
        Arrived newest = states.newest(id).orElse(null);
        byte[] bytes = request.text() != null
                ? request.text().getBytes(StandardCharsets.UTF_8)
                : request.hex() != null ? HexFormat.of().parseHex(request.hex().replaceAll("[\\s:]", "")) : null;
        List<TrialView.Part> parts = new ArrayList<>();
        if (bytes == null) {
            if (newest == null) {
                throw Problem.conflict(
                        "Nothing has come by this inlet yet.",
                        "Give a message to try, or wait for one. "
                                + states.standing(id).words());
            }
            parts(inlet, newest, parts);
            return new TrialView(MessageText.of(newest.bytes()), parts);
        }
        Map<String, String> names = request.topic() != null
                ? names(inlet.source(), request.topic())
                : newest == null ? Map.of() : newest.names();
        for (Splitter.Piece piece : inlet.framing().cut(bytes)) {
            switch (piece) {
                case Splitter.Piece.Whole(byte[] whole, byte[] payload) ->
                    parts(inlet, new Arrived(payload, newest == null ? "trial" : newest.sender(), names), parts);
                case Splitter.Piece.Lost(byte[] lost, String reason) ->
                    parts.add(TrialView.Part.of(null, null, null, MessageText.of(lost), reason));
            }
        }
        return new TrialView(MessageText.of(bytes), parts);
    }

    private static Map<String, String> names(Source source, String topic) {
        return switch (source) {
            case Source.MqttBroker broker -> TopicPattern.names(broker.topics(), topic);
            case Source.OwnBroker(List<TopicPattern> topics) -> TopicPattern.names(topics, topic);
            default -> Map.of();
        };
    }

    /** Asks the first devices of an inlet out of turn; nothing is kept of what they answer. */
    private TrialView askAll(Inlet inlet) {
        Access access = reader.access();
        Registry now = access.registry();
        List<TrialView.Part> parts = now.devicesOf(inlet.id()).stream()
                .filter(device -> access.may(Right.LOOK, device))
                .limit(MOST_ASKED)
                .map(device -> ask(now, inlet, device, true))
                .toList();
        if (parts.isEmpty()) {
            throw Problem.conflict(
                    "No device is registered at '" + inlet.name() + "' yet.",
                    "Bring one in with its address; then it can be asked.");
        }
        return new TrialView(parts.size() == 1 ? "Asked one device." : "Asked " + parts.size() + " devices.", parts);
    }

    /** Asks a device out of turn, and if it is wanted also who it is. */
    private TrialView.Part ask(Registry now, Inlet inlet, Device device, boolean who) {
        String address = device.identity().address();
        return polls.whole(now, device)
                .flatMap(target -> desk.askNow(inlet.id(), target)
                        .map(round -> new TrialView.Part(
                                address,
                                device.id(),
                                device.name(),
                                inlet.source() instanceof Source.BacnetIp
                                        ? MessageText.of(round.answer().image())
                                        : HexFormat.of()
                                                .formatHex(round.answer().image()),
                                ChannelText.of(polls.values(now, device, round)),
                                round.answer().problem().isEmpty()
                                        ? null
                                        : round.answer().problem(),
                                null,
                                who && round.answer().something()
                                        ? desk.identity(inlet.id(), target).orElse(null)
                                        : null)))
                .orElseGet(() -> TrialView.Part.of(address, device.id(), device.name(), "", NOT_ASKED));
    }

    /** The polled devices of an inlet, and how the last round went. */
    @GetMapping("/api/v1/inlets/{id}/polls")
    List<PollView> polls(@PathVariable String id) {
        Inlet inlet = inlet(id);
        Access access = reader.access();
        return access.registry().devicesOf(inlet.id()).stream()
                .filter(device -> access.may(Right.LOOK, device))
                .flatMap(device -> polls.views(access.registry(), device).stream())
                .toList();
    }

    /** Changes how often a device is asked, or pauses that. */
    @PutMapping("/api/v1/devices/{id}/polling")
    PollView changePolling(@PathVariable String id, @RequestBody PollingRequest request) {
        Device device = reader.device(id);
        reader.require(Right.OPERATE, device.placeId(), "change how often this device is asked");
        mayOperate(askedBy(device));
        Device changed = device.asked(new Polling(request.paused(), request.everySeconds()));
        registry.change(reader.person().name(), List.of(new Change.Put(changed)));
        desk.settle();
        return polls.views(reader.now(), changed).getFirst();
    }

    private Inlet askedBy(Device device) {
        return device.inletId()
                .flatMap(inlet -> reader.now().find(Inlet.class, inlet))
                .filter(inlet -> inlet.source() instanceof Source.Polled)
                .orElseThrow(() -> Problem.invalid("this device is not asked, it speaks by itself"));
    }

    /** Sets a channel of a device that is asked, and asks it what it holds then. */
    @PutMapping("/api/v1/devices/{id}/channels/{channel}")
    TrialView.Part set(@PathVariable String id, @PathVariable String channel, @RequestBody SetRequest request) {
        Device device = reader.device(id);
        reader.require(Right.OPERATE, device.placeId(), "set a channel of this device");
        Inlet inlet = mayOperate(askedBy(device));
        Registry now = reader.now();
        Target target = polls.whole(now, device).orElseThrow(() -> Problem.invalid(NOT_ASKED));
        Double value = request.value();
        if (value == null && !(inlet.source() instanceof Source.BacnetIp)) {
            throw Problem.invalid("a value is needed: only building controllers know who else wants what");
        }
        try {
            desk.set(inlet.id(), target, channel, value == null ? Double.NaN : value);
        } catch (Poller.SetFailed e) {
            throw Problem.conflict(
                    device.name() + " did not set " + channel + ": " + e.getMessage() + ".",
                    "Look at how it is asked, on its inlet's page.");
        }
        intake.set(
                inlet,
                device,
                reader.person().name(),
                value == null ? channel + "=let go" : ChannelText.of(List.of(new ChannelValue(channel, value))));
        return ask(now, inlet, device, false);
    }

    private void parts(Inlet inlet, Arrived message, List<TrialView.Part> parts) {
        intake.read(inlet, message).join().forEach(part -> parts.add(view(part)));
    }

    private static @Nullable ProposalView proposal(Optional<Proposal> proposed) {
        return proposed.map(one -> new ProposalView(one.layout(), one.channels(), ChannelText.of(one.values())))
                .orElse(null);
    }

    private static TrialView.Part view(Taken part) {
        return switch (part) {
            case Taken.Read read ->
                new TrialView.Part(
                        read.item().address(),
                        read.device().id(),
                        read.device().name(),
                        MessageText.of(read.item().payload()),
                        read.frame().values(),
                        read.frame().reason(),
                        null,
                        null);
            case Taken.OfStranger(Item.Opened item) ->
                new TrialView.Part(
                        item.address(),
                        null,
                        null,
                        MessageText.of(item.payload()),
                        "",
                        "No device at this inlet has this address.",
                        proposal(Proposal.of(item.payload())),
                        null);
            case Taken.Refused(byte[] bytes, Device device, String reason) ->
                TrialView.Part.of(
                        null,
                        device == null ? null : device.id(),
                        device == null ? null : device.name(),
                        MessageText.of(bytes),
                        reason);
        };
    }
}
