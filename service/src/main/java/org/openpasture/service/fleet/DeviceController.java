package org.openpasture.service.fleet;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.api.fleet.AssignmentRequest;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.radio.DeviceStates;
import org.openpasture.service.radio.GatewayIntake;
import org.openpasture.service.radio.RadioKeys;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Devices, and which of their channels feed which points. */
@RestController
class DeviceController {
  private final RegistryStore registry;
  private final DeviceStates states;
  private final GatewayIntake intake;
  private final RadioKeys keys;
  private final Reader reader;
  private final Clock clock;

  DeviceController(RegistryStore registry, DeviceStates states, GatewayIntake intake, RadioKeys keys, Reader reader, Clock clock) {
    this.registry = registry;
    this.states = states;
    this.intake = intake;
    this.keys = keys;
    this.reader = reader;
    this.clock = clock;
  }

  @GetMapping("/api/v1/devices")
  List<DeviceView> list() {
    Access access = reader.access();
    return access.registry().all(Device.class).stream().filter(device -> access.may(Right.LOOK, device))
        .map(device -> states.view(access.registry(), device)).toList();
  }

  @GetMapping("/api/v1/devices/{id}")
  DeviceView one(@PathVariable String id) {
    return states.view(reader.now(), reader.device(id));
  }

  /** Brings a device in; with {@code makePoints} each channel of its model gets a point at once, not yet released. */
  @PostMapping("/api/v1/devices")
  @ResponseStatus(HttpStatus.CREATED)
  DeviceView make(@RequestBody DeviceRequest request) {
    reader.require(Right.EDIT, request.placeId(), "bring devices in here");
    DeviceModel model = reader.find(DeviceModel.class, request.modelId(), "device model");
    String id = Accounts.newId();
    Optional<AesKey> appKey = Optional.ofNullable(request.appKey()).map(AesKey::ofHex);
    Optional<Session> session = appKey.isPresent() ? Optional.empty() : Optional.of(session(request));
    RadioIdentity radio = session.<RadioIdentity>map(begun -> new RadioIdentity.Personalised(request.devEui(), begun.devAddr()))
        .orElseGet(() -> new RadioIdentity.OverTheAir(request.devEui(),
            request.joinEui() == null ? new Eui64(0) : request.joinEui()));
    Device device = new Device(id, request.name(), request.modelId(), request.placeId(), radio);
    appKey.ifPresent(key -> keys.save(id, key));
    try {
      registry.change(reader.person().name(), now -> changes(now, device, model, Boolean.TRUE.equals(request.makePoints())));
    } catch (Problem clash) {
      keys.forget(id);
      throw clash;
    }
    session.ifPresent(begun -> intake.begin(id, begun));
    return states.view(registry.now(), device);
  }

  private static Session session(DeviceRequest request) {
    return Session.fresh(DevAddr.of(present(request.devAddr())), AesKey.ofHex(present(request.nwkSKey())),
        AesKey.ofHex(present(request.appSKey())));
  }

  private static String present(@org.jspecify.annotations.Nullable String text) {
    return text == null ? "" : text;
  }

  private List<Change> changes(Registry now, Device device, DeviceModel model, boolean makePoints) {
    now.device(device.radio().devEui()).ifPresent(other -> {
      throw Problem.conflict("A device with the EUI " + other.radio().devEui() + " is here already: '" + other.name() + "'.",
          "Look at that one, or check the EUI on the label.");
    });
    List<Change> changes = new ArrayList<>();
    changes.add(new Change.Put(device));
    if (makePoints) {
      int number = now.highestPointNumber();
      for (Channel channel : model.channels()) {
        if (channel.name().equals(model.batteryChannel())) {
          continue;
        }
        number++;
        Point point = new Point(Accounts.newId(), number, channel.title(), device.placeId(), channel.quantity(), channel.unit(), null,
            channel.direction(), null, false);
        changes.add(new Change.Put(point));
        changes.add(new Change.Put(new Assignment(Accounts.newId(), device.id(), channel.name(), point.id(), clock.instant(), null,
            null)));
      }
    }
    return changes;
  }

  @DeleteMapping("/api/v1/devices/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable String id) {
    Device device = reader.device(id);
    reader.require(Right.EDIT, device.placeId(), "remove this device");
    registry.change(reader.person().name(), now -> {
      List<Change> changes = new ArrayList<>();
      now.assignmentsOf(id).stream().filter(assignment -> assignment.until() == null)
          .forEach(assignment -> changes.add(new Change.Put(ended(assignment))));
      changes.add(new Change.Remove(Kind.DEVICE, id));
      return changes;
    });
    keys.forget(id);
    intake.forget(id);
  }

  /** Lets a channel feed a point; what fed the point until now ends. */
  @PostMapping("/api/v1/devices/{id}/assignments")
  @ResponseStatus(HttpStatus.CREATED)
  DeviceView assign(@PathVariable String id, @RequestBody AssignmentRequest request) {
    Device device = reader.device(id);
    Point point = reader.point(request.pointId());
    reader.require(Right.EDIT, device.placeId(), "assign this device's channels");
    reader.require(Right.EDIT, point.placeId(), "assign to this point");
    DeviceModel model = reader.find(DeviceModel.class, device.modelId(), "device model");
    if (model.channel(request.channel()).isEmpty()) {
      throw Problem.invalid("the model '" + model.name() + "' has no channel '" + request.channel() + "'");
    }
    registry.change(reader.person().name(), now -> {
      List<Change> changes = new ArrayList<>();
      Optional<Assignment> same = now.assignmentsTo(point.id()).stream().filter(assignment -> assignment.until() == null
          && assignment.deviceId().equals(id) && assignment.channel().equals(request.channel())).findFirst();
      // The same channel to the same point: its calibration is put right, also for frames that are read again.
      now.assignmentsTo(point.id()).stream().filter(assignment -> assignment.until() == null && !same.equals(Optional.of(assignment)))
          .forEach(assignment -> changes.add(new Change.Put(ended(assignment))));
      changes.add(new Change.Put(new Assignment(same.map(Assignment::id).orElseGet(Accounts::newId), id, request.channel(), point.id(),
          same.map(Assignment::from).orElseGet(clock::instant), null, request.calibration())));
      return changes;
    });
    return one(id);
  }

  @DeleteMapping("/api/v1/assignments/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unassign(@PathVariable String id) {
    Assignment assignment = reader.find(Assignment.class, id, "assignment");
    reader.require(Right.EDIT, reader.device(assignment.deviceId()).placeId(), "end this assignment");
    registry.change(reader.person().name(), List.of(new Change.Put(ended(assignment))));
  }

  private Assignment ended(Assignment assignment) {
    return new Assignment(assignment.id(), assignment.deviceId(), assignment.channel(), assignment.pointId(), assignment.from(),
        clock.instant(), assignment.calibration());
  }
}
