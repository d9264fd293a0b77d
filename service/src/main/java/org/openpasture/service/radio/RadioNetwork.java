package org.openpasture.service.radio;

import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.judging.Event;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Downlink;
import org.openpasture.core.lorawan.JoinAccept;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.lorawan.Uplink;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.live.LiveEvent;
import org.openpasture.service.live.LiveHub;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.RadioChange;
import org.openpasture.store.telemetry.RadioMemory;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * The network's side of LoRaWAN: takes a frame with all its copies, checks it against sessions and keys, turns it into
 * readings, and answers. Fed by one thread; what it accepts is in memory at once, so that a replay is refused even
 * before the commit, and on disk before anything is sent in answer.
 */
@Component
public class RadioNetwork {
  private static final Logger LOG = LoggerFactory.getLogger(RadioNetwork.class);
  /** For experimental networks (LoRa Alliance TS002, NetID type 0). */
  private static final int NET_ID = 0;
  private static final int JOIN_NONCES = 1 << 24;

  private final RegistryStore registry;
  private final TelemetryStore telemetry;
  private final RadioKeys keys;
  private final Region region;
  private final DownlinkSender downlinks;
  private final DeviceStates devices;
  private final FrameViews frameViews;
  private final LiveHub live;
  private final Clock clock;
  private final Map<String, Session> sessions;
  private final Map<DevAddr, Set<String>> deviceIdsByAddress = new HashMap<>();
  private final Map<String, Set<Integer>> usedNonces;
  private final Map<String, Integer> joinNonces;

  RadioNetwork(RegistryStore registry, TelemetryStore telemetry, RadioKeys keys, Region region, DownlinkSender downlinks,
      DeviceStates devices, FrameViews frameViews, LiveHub live, Clock clock) {
    this.registry = registry;
    this.telemetry = telemetry;
    this.keys = keys;
    this.region = region;
    this.downlinks = downlinks;
    this.devices = devices;
    this.frameViews = frameViews;
    this.live = live;
    this.clock = clock;
    RadioMemory memory = telemetry.radioMemory();
    this.sessions = new HashMap<>(memory.sessions());
    this.usedNonces = new HashMap<>(memory.usedNonces());
    this.joinNonces = new HashMap<>(memory.joinNonces());
    sessions.forEach((id, session) -> index(id, session.devAddr()));
    devices.rebuild(registry.now());
  }

  private void index(String deviceId, DevAddr address) {
    deviceIdsByAddress.computeIfAbsent(address, key -> new HashSet<>()).add(deviceId);
  }

  /** Begins a session of a personalised device. On the network's thread. */
  void begin(String deviceId, Session session) {
    replace(deviceId, session);
    telemetry.submit(new Deposit(List.of(), List.of(), List.of(new RadioChange.SessionBegan(deviceId, session))));
  }

  /** Forgets a device that was removed. On the network's thread. */
  void forget(String deviceId) {
    Session old = sessions.remove(deviceId);
    if (old != null) {
      deviceIdsByAddress.getOrDefault(old.devAddr(), new HashSet<>()).remove(deviceId);
    }
    usedNonces.remove(deviceId);
    joinNonces.remove(deviceId);
    devices.forget(deviceId);
    telemetry.submit(new Deposit(List.of(), List.of(), List.of(new RadioChange.Forgotten(deviceId))));
  }

  private void replace(String deviceId, Session session) {
    Session old = sessions.put(deviceId, session);
    if (old != null && !old.devAddr().equals(session.devAddr())) {
      deviceIdsByAddress.getOrDefault(old.devAddr(), new HashSet<>()).remove(deviceId);
    }
    index(deviceId, session.devAddr());
  }

  /**
   * Takes a frame. On the network's thread.
   *
   * @param receptions one for each gateway that heard it, at least one
   */
  void take(byte[] bytes, List<Reception> receptions) {
    List<Reception> best = receptions.stream().sorted(Comparator.comparingDouble(Reception::snrDb).reversed()).toList();
    switch (PhyPayload.parse(bytes)) {
      case PhyPayload.Parsed.Refused(String reason) -> refuse(null, "unreadable", "", -1, bytes, best, reason);
      case PhyPayload.Parsed.Ok(PhyPayload.JoinRequest join) -> join(join, best);
      case PhyPayload.Parsed.Ok(PhyPayload.DataUp data) -> data(data, best);
    }
  }

  private void join(PhyPayload.JoinRequest join, List<Reception> receptions) {
    Registry now = registry.now();
    Optional<Device> found = now.device(join.devEui());
    String address = join.devEui().toString();
    if (found.isEmpty()) {
      String swapped = now.device(join.joinEui()).isPresent() ? "; its JoinEUI is a registered device's EUI: the two were swapped" : "";
      refuse(null, "join request", address, -1, join.bytes(), receptions, "no device has the EUI " + address + swapped);
      return;
    }
    Device device = found.get();
    if (!(device.radio() instanceof RadioIdentity.OverTheAir)) {
      refuse(device, "join request", address, -1, join.bytes(), receptions, "the device asks to join, but is registered as personalised");
      return;
    }
    Optional<AesKey> appKey = keys.appKey(device.id());
    if (appKey.isEmpty() || !join.isAuthentic(appKey.get())) {
      refuse(device, "join request", address, -1, join.bytes(), receptions,
          "the application key is wrong: the integrity code does not fit. Compare the key on the device with the one entered");
      return;
    }
    Set<Integer> nonces = usedNonces.computeIfAbsent(device.id(), id -> new HashSet<>());
    if (!nonces.add(join.devNonce())) {
      refuse(device, "join request", address, -1, join.bytes(), receptions,
          "DevNonce " + join.devNonce() + " was used before: a replayed join request, or a device that lost its memory");
      return;
    }
    int joinNonce = joinNonces.getOrDefault(device.id(), 1);
    int nextJoinNonce = (joinNonce + 1) % JOIN_NONCES;
    joinNonces.put(device.id(), nextJoinNonce);
    JoinAccept accept = JoinAccept.answer(join, appKey.get(), joinNonce, NET_ID, freeAddress(), region.rx2DataRate(),
        region.rx1DelaySeconds(), region.extraChannelsHz());
    replace(device.id(), accept.session());
    Frame frame = frame(device, "join request", address, -1, -1, join.bytes(), new byte[0], Frame.Outcome.ACCEPTED,
        "answered; the device is now " + accept.session().devAddr(), "", receptions);
    telemetry.submit(new Deposit(List.of(), List.of(frame), List.of(
            new RadioChange.SessionBegan(device.id(), accept.session()),
            new RadioChange.Joined(device.id(), join.devNonce(), nextJoinNonce))))
        .whenComplete((committed, error) -> {
          if (error == null) {
            downlinks.send(accept.bytes(), receptions, region.joinDelaySeconds());
            tell(device, committed.frames(), frame);
          } else {
            LOG.error("a join could not be written and is not answered", error);
          }
        });
    devices.note(now, device, frame, 0);
  }

  private DevAddr freeAddress() {
    DevAddr address;
    do {
      address = new DevAddr(ThreadLocalRandom.current().nextInt(1, 1 << 25));
    } while (deviceIdsByAddress.containsKey(address));
    return address;
  }

  private void data(PhyPayload.DataUp data, List<Reception> receptions) {
    String address = data.devAddr().toString();
    Set<String> candidates = deviceIdsByAddress.getOrDefault(data.devAddr(), Set.of());
    if (candidates.isEmpty()) {
      refuse(null, "uplink", address, data.counter(), data.bytes(), receptions,
          "no device has the address " + address + ": it belongs to another network, or has to join again");
      return;
    }
    Device device = null;
    Uplink result = null;
    for (String id : candidates) {
      Uplink checked = Uplink.check(data, session(id));
      boolean fits = !(checked instanceof Uplink.Refused refused) || refused.cause() != Uplink.Cause.WRONG_KEY;
      if (result == null || fits) {
        device = registry.now().find(Device.class, id).orElse(null);
        result = checked;
      }
    }
    if (device == null || result == null) {
      refuse(null, "uplink", address, data.counter(), data.bytes(), receptions, "the device was removed");
      return;
    }
    switch (result) {
      case Uplink.Refused(Uplink.Cause cause, String reason) ->
          refuse(device, "uplink", address, data.counter(), data.bytes(), receptions, reason);
      case Uplink.Repeated(long counter) -> {
        refuse(device, "uplink", address, counter, data.bytes(), receptions,
            "frame " + counter + " came again, because its acknowledgement was not heard; answered again, counted once");
        acknowledge(device, receptions);
      }
      case Uplink.Accepted accepted -> accept(device, data, accepted, receptions);
    }
  }

  private void acknowledge(Device device, List<Reception> receptions) {
    Downlink answer = Downlink.acknowledgement(session(device.id()));
    sessions.put(device.id(), answer.session());
    telemetry.submit(new Deposit(List.of(), List.of(), List.of(moved(device, answer.session()))))
        .thenRun(() -> downlinks.send(answer.bytes(), receptions, region.rx1DelaySeconds()));
  }

  private Session session(String deviceId) {
    return Objects.requireNonNull(sessions.get(deviceId), "an address is indexed only while there is a session");
  }

  private static RadioChange moved(Device device, Session session) {
    return new RadioChange.CountersMoved(device.id(), session.lastUp(), session.nextDown());
  }

  private void accept(Device device, PhyPayload.DataUp data, Uplink.Accepted accepted, List<Reception> receptions) {
    Registry now = registry.now();
    Instant time = receptions.stream().map(Reception::receivedAt).min(Comparator.naturalOrder()).orElseGet(clock::instant);
    Optional<Downlink> answer = data.confirmed() ? Optional.of(Downlink.acknowledgement(accepted.session())) : Optional.empty();
    Session after = answer.map(Downlink::session).orElse(accepted.session());
    sessions.put(device.id(), after);

    Frame.Outcome outcome = Frame.Outcome.ACCEPTED;
    String reason = null;
    String values = "";
    List<Event> events = List.of();
    Optional<DeviceModel> model = now.find(DeviceModel.class, device.modelId());
    if (accepted.port() > 0 && model.isPresent()) {
      switch (model.get().layout().decode(accepted.port(), accepted.payload())) {
        case Decoding.Refused(String why) -> {
          outcome = Frame.Outcome.REFUSED;
          reason = "authentic, but cannot be decoded: " + why;
        }
        case Decoding.Decoded decoded -> {
          values = decoded.values().stream().map(value -> value.channel() + "=" + number(value.value()))
              .collect(Collectors.joining(" "));
          ReadingBuilder.Result built = ReadingBuilder.build(now, device, model.get(), decoded.values(), time);
          reason = built.remarks().isEmpty() ? null : String.join("; ", built.remarks());
          events = built.readings().isEmpty() ? List.of()
              : List.of(new Event.ReadingsArrived(Arrival.live(clock.instant(), built.readings())));
        }
      }
    }
    Frame frame = frame(device, "uplink", data.devAddr().toString(), accepted.port(), accepted.counter(), data.bytes(),
        accepted.payload(), outcome, reason, values, receptions);
    telemetry.submit(new Deposit(events, List.of(frame), List.of(moved(device, after)))).whenComplete((committed, error) -> {
      if (error == null) {
        answer.ifPresent(downlink -> downlinks.send(downlink.bytes(), receptions, region.rx1DelaySeconds()));
        tell(device, committed.frames(), frame);
      } else {
        LOG.error("a frame could not be written and is not acknowledged", error);
      }
    });
    devices.note(now, device, frame, accepted.lost());
  }

  private static String number(double value) {
    String text = String.format(Locale.ROOT, "%.4f", value);
    return text.contains(".") ? text.replaceAll("0+$", "").replaceAll("\\.$", "") : text;
  }

  private void refuse(@Nullable Device device, String kind, String address, long counter, byte[] bytes, List<Reception> receptions,
      String reason) {
    Frame frame = frame(device, kind, address, -1, counter, bytes, new byte[0], Frame.Outcome.REFUSED, reason, "", receptions);
    telemetry.submit(Deposit.of(frame)).whenComplete((committed, error) -> {
      if (error == null) {
        tell(device, committed.frames(), frame);
      }
    });
    if (device != null) {
      devices.note(registry.now(), device, frame, 0);
    }
  }

  private Frame frame(@Nullable Device device, String kind, String address, int port, long counter, byte[] bytes, byte[] payload,
      Frame.Outcome outcome, @Nullable String reason, String values, List<Reception> receptions) {
    return new Frame(0, clock.instant(), kind, device == null ? null : device.id(), address, bytes, payload, port, counter,
        outcome, reason, values, receptions);
  }

  private void tell(@Nullable Device device, List<Frame> committed, Frame frame) {
    if (!live.hasSubscribers()) {
      return;
    }
    Registry now = registry.now();
    Frame kept = committed.stream().filter(one -> one.bytes() == frame.bytes() && one.receivedAt().equals(frame.receivedAt()))
        .findFirst().orElse(frame);
    String placeId = device != null ? device.placeId() : frame.receptions().stream()
        .flatMap(reception -> now.gateway(reception.gateway()).stream()).map(gateway -> gateway.siteId()).findFirst().orElse(null);
    if (placeId == null) {
      return;
    }
    live.publish(new LiveEvent("frame", placeId, null, frameViews.view(now, kept)));
    if (device != null) {
      live.publish(new LiveEvent("device", placeId, null, devices.view(now, device)));
    }
  }
}
