package org.openpasture.service.radio;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletionException;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.radio.CommandRequest;
import org.openpasture.api.radio.CommandView;
import org.openpasture.api.radio.RadioStateView;
import org.openpasture.api.radio.SettingForMany;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.DeviceSetting;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.MacCommand;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.people.Right;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.engine.radio.CommandDesk;
import org.openpasture.engine.radio.RadioNetwork;
import org.openpasture.engine.script.Codec;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What is sent to devices, and how their radio stands. */
@RestController
class CommandController {
    private static final int SHOWN = 50;

    private final RadioNetwork network;
    private final CommandDesk desk;
    private final RadioPlan plan;
    private final Decoders decoders;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Clock clock;

    CommandController(
            RadioNetwork network,
            CommandDesk desk,
            RadioPlan plan,
            Decoders decoders,
            TelemetryStore telemetry,
            Reader reader,
            Clock clock) {
        this.network = network;
        this.desk = desk;
        this.plan = plan;
        this.decoders = decoders;
        this.telemetry = telemetry;
        this.reader = reader;
        this.clock = clock;
    }

    /** The newest commands of a device, the newest first. */
    @GetMapping("/api/v1/devices/{id}/commands")
    List<CommandView> list(@PathVariable String id) {
        Device device = reader.device(id);
        return telemetry.commands().of(id, SHOWN).stream()
                .map(command -> view(command, device))
                .toList();
    }

    /** Wants something sent. It goes when the device listens next; a device that always listens gets it at once. */
    @PostMapping("/api/v1/devices/{id}/commands")
    @ResponseStatus(HttpStatus.ACCEPTED)
    CommandView want(@PathVariable String id, @RequestBody CommandRequest request) {
        Device device = reader.device(id);
        reader.require(Right.OPERATE, device.placeId(), "send to this device");
        return view(wanted(draft(device, request)), device);
    }

    /** Wants one value of a setting in several devices; either all are taken or none. */
    @PostMapping("/api/v1/commands")
    @ResponseStatus(HttpStatus.ACCEPTED)
    List<CommandView> wantForMany(@RequestBody SettingForMany request) {
        List<Command> drafts = new ArrayList<>();
        List<Device> devices =
                request.deviceIds().stream().distinct().map(reader::device).toList();
        for (Device device : devices) {
            reader.require(Right.OPERATE, device.placeId(), "send to '" + device.name() + "'");
            drafts.add(draft(device, new CommandRequest(request.setting(), request.value(), null, null, true)));
        }
        List<CommandView> views = new ArrayList<>();
        for (int i = 0; i < devices.size(); i++) {
            views.add(view(wanted(drafts.get(i)), devices.get(i)));
        }
        return views;
    }

    private Command draft(Device device, CommandRequest request) {
        device.inletId()
                .flatMap(inlet -> reader.now().find(Inlet.class, inlet))
                .filter(inlet -> !(inlet.source() instanceof Source.HttpInbox))
                .ifPresent(inlet -> {
                    throw Problem.invalid(
                            "only devices on LoRaWAN and those that call in by HTTP take settings; channels of a device that is asked are set on its inlet's page");
                });
        String person = reader.person().name();
        if (request.setting() == null) {
            byte[] payload = HexFormat.of().parseHex(String.valueOf(request.payload()));
            int port = request.port() == null ? 0 : request.port();
            return draft(
                    device,
                    person,
                    payload.length + " bytes on port " + port,
                    null,
                    null,
                    port,
                    payload,
                    request.isConfirmed());
        }
        DeviceModel model = reader.find(DeviceModel.class, device.modelId(), "device model");
        DeviceSetting setting = model.setting(request.setting())
                .orElseThrow(() ->
                        Problem.invalid("the model '" + model.name() + "' has no setting '" + request.setting() + "'"));
        double value = request.value() == null ? Double.NaN : request.value();
        try {
            Codec.Encoded encoded = decoders.encode(model, setting, value).join();
            return draft(
                    device,
                    person,
                    setting.inWords(value),
                    setting.name(),
                    value,
                    encoded.port(),
                    encoded.bytes(),
                    request.isConfirmed());
        } catch (CompletionException e) {
            throw Problem.invalid(
                    "the model's script cannot write this: " + (e.getCause() == null ? e : e.getCause()).getMessage());
        }
    }

    private Command draft(
            Device device,
            String person,
            String what,
            @Nullable String setting,
            @Nullable Double value,
            int port,
            byte[] payload,
            boolean confirmed) {
        return new Command(
                0,
                device.id(),
                clock.instant(),
                person,
                what,
                setting,
                value,
                port,
                payload,
                confirmed,
                Command.State.WANTED,
                0,
                -1,
                clock.instant(),
                device.inletId().isPresent() ? "waits until the device calls in" : "waits until the device listens");
    }

    private Command wanted(Command draft) {
        try {
            return desk.want(draft).join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof IllegalArgumentException why) {
                throw Problem.conflict(
                        "This cannot be sent: " + why.getMessage() + ".",
                        "Wait until some of them were sent, or take them back.");
            }
            throw e;
        }
    }

    /** Takes a command back that was not sent yet. */
    @DeleteMapping("/api/v1/commands/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cancel(@PathVariable long id) {
        Command command = telemetry.commands().find(id).orElseThrow(() -> Problem.notFound("command"));
        Device device = reader.device(command.deviceId());
        reader.require(Right.OPERATE, device.placeId(), "take back what is sent to this device");
        if (!desk.cancel(command, reader.person().name()).join()) {
            throw Problem.conflict("This was sent already, or is done with.", "Send the former value to undo it.");
        }
    }

    private static CommandView view(Command command, Device device) {
        return new CommandView(
                command.id(),
                device.id(),
                device.name(),
                command.wantedAt(),
                command.person(),
                command.what(),
                command.setting(),
                command.value(),
                command.port(),
                HexFormat.of().formatHex(command.payload()),
                command.confirmed(),
                command.state().id(),
                command.tries(),
                command.counter() < 0 ? null : command.counter(),
                command.changedAt(),
                command.reason());
    }

    /** How a device's radio stands; nothing before it has a session. */
    @GetMapping("/api/v1/devices/{id}/radio")
    ResponseEntity<RadioStateView> radio(@PathVariable String id) {
        Device device = reader.device(id);
        boolean always = reader.now()
                .find(DeviceModel.class, device.modelId())
                .map(DeviceModel::isAlwaysListening)
                .orElse(false);
        return network.standing(id)
                .join()
                .map(standing -> ResponseEntity.ok(view(standing, always)))
                .orElseGet(() -> ResponseEntity.noContent().build());
    }

    private RadioStateView view(RadioNetwork.Standing standing, boolean always) {
        Region region = plan.now().region();
        MacState mac = standing.mac();
        Optional<MacState.Status> status = Optional.ofNullable(mac.status());
        boolean heard = !standing.history().heard().isEmpty();
        return new RadioStateView(
                region.title(),
                standing.devAddr().toString(),
                standing.lastUp(),
                standing.nextDown(),
                region.dataRate(mac.link().dataRate()).map(DataRate::code).orElse(null),
                region.eirpDbm(mac.link().txPower()),
                mac.link().repetitions(),
                mac.windows().rx1DelaySeconds(),
                mac.windows().rx2FrequencyHz() / 1e6,
                region.dataRate(mac.windows().rx2DataRate()).map(DataRate::code).orElse("?"),
                mac.channelsHz().stream().map(hz -> hz / 1e6).toList(),
                region.isFixed() ? mac.channelsChosen() : null,
                status.map(one -> batteryWords(one.battery())).orElse(null),
                status.map(MacState.Status::marginDb).orElse(null),
                status.map(MacState.Status::at).orElse(null),
                mac.newestRefusal().orElse(null),
                mac.asked().open().stream()
                        .map(open -> MacCommand.requestName(open.cid()))
                        .toList(),
                heard ? standing.history().bestSnrDb() : null,
                heard ? standing.history().lost() * 100 : null,
                standing.waiting(),
                always);
    }

    private static String batteryWords(int battery) {
        return switch (battery) {
            case 0 -> "outside power";
            case 255 -> "it cannot tell";
            default -> Math.round((battery - 1) / 253.0 * 100) + " %";
        };
    }
}
