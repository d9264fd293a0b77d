package org.openpasture.engine.heard;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.GatewayView;
import org.openpasture.api.fleet.HeardGateway;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.springframework.stereotype.Component;

/** When each gateway was last heard and how well; also those that nobody registered. */
@Component
public class GatewayStates {
    /** Packet forwarders ask for downlinks every few seconds; after this long without any sign one is silent. */
    public static final Duration SILENT_AFTER = Duration.ofSeconds(60);

    private static final int MOST_UNKNOWN = 200;

    private record State(
            Instant lastHeard,
            @Nullable Instant lastPull,
            long frames,
            @Nullable Double rssi,
            @Nullable Double snr) {}

    private final Map<Eui64, State> states = new ConcurrentHashMap<>();
    private final Map<Eui64, Set<String>> deviceIds = new ConcurrentHashMap<>();
    private final Map<Eui64, HeardGateway> unknown = new ConcurrentHashMap<>();
    private final Clock clock;

    GatewayStates(Clock clock) {
        this.clock = clock;
    }

    /** A gateway gave a sign of life. */
    public void sign(Eui64 eui, boolean asksForDownlinks) {
        Instant now = clock.instant();
        states.merge(
                eui,
                new State(now, asksForDownlinks ? now : null, 0, null, null),
                (was, fresh) ->
                        new State(now, asksForDownlinks ? now : was.lastPull(), was.frames(), was.rssi(), was.snr()));
    }

    /** A gateway brought a frame. */
    public void frame(Reception reception) {
        Instant now = clock.instant();
        states.merge(
                reception.gateway(),
                new State(now, null, 1, reception.rssiDbm(), reception.snrDb()),
                (was, fresh) ->
                        new State(now, was.lastPull(), was.frames() + 1, reception.rssiDbm(), reception.snrDb()));
    }

    /** A gateway lost its connection: nothing can be sent by it now. */
    public void gone(Eui64 eui) {
        states.computeIfPresent(
                eui, (key, was) -> new State(was.lastHeard(), null, was.frames(), was.rssi(), was.snr()));
    }

    /** A gateway heard a device; known from the frame log too, so that the cause of a silence outlives a restart. */
    public void carries(Reception reception, String deviceId) {
        states.putIfAbsent(
                reception.gateway(),
                new State(reception.receivedAt(), null, 0, reception.rssiDbm(), reception.snrDb()));
        deviceIds
                .computeIfAbsent(reception.gateway(), key -> ConcurrentHashMap.newKeySet())
                .add(deviceId);
    }

    /** Notes a gateway that nobody registered; says whether it is a new one. */
    public boolean unknown(Eui64 eui, int frames) {
        Instant now = clock.instant();
        if (!unknown.containsKey(eui) && unknown.size() >= MOST_UNKNOWN) {
            unknown.values().stream()
                    .min(Comparator.comparing(HeardGateway::lastHeard))
                    .ifPresent(oldest -> unknown.remove(oldest.eui()));
        }
        HeardGateway after = unknown.merge(
                eui,
                new HeardGateway(eui, now, now, frames),
                (was, fresh) -> new HeardGateway(eui, was.firstHeard(), now, was.frames() + frames));
        return after.firstHeard().equals(now);
    }

    /** Gateways heard and not registered, the newest first. */
    public List<HeardGateway> heardUnknown(Registry registry) {
        unknown.keySet().removeIf(eui -> registry.gateway(eui).isPresent());
        return unknown.values().stream()
                .sorted(Comparator.comparing(HeardGateway::lastHeard).reversed())
                .toList();
    }

    /**
     * When a gateway was heard last.
     *
     * @param frames that it brought since the service started
     */
    record Sign(Instant at, long frames) {}

    /** The last sign of life of a gateway; empty if there was none. */
    Optional<Sign> lastSign(Eui64 eui) {
        return Optional.ofNullable(states.get(eui)).map(state -> new Sign(state.lastHeard(), state.frames()));
    }

    /** Whether a gateway was heard within the last minute. */
    public boolean isOnline(Eui64 eui) {
        State state = states.get(eui);
        return state != null && state.lastHeard().isAfter(clock.instant().minus(SILENT_AFTER));
    }

    /** Whether there are such gateways, and none of them was heard within the last minute. */
    public boolean areAllSilent(List<Eui64> heardBy) {
        return !heardBy.isEmpty() && heardBy.stream().noneMatch(this::isOnline);
    }

    /** Gateways that brought frames of a device since the service started. */
    public List<Eui64> gatewaysOf(String deviceId) {
        return deviceIds.entrySet().stream()
                .filter(entry -> entry.getValue().contains(deviceId))
                .map(Map.Entry::getKey)
                .sorted(Comparator.comparing(Eui64::toString))
                .toList();
    }

    /** Devices that were heard by a gateway. */
    public Set<String> devicesOf(Eui64 eui) {
        return deviceIds.getOrDefault(eui, Set.of());
    }

    public GatewayView view(Registry registry, Gateway gateway) {
        Optional<State> state = Optional.ofNullable(states.get(gateway.eui()));
        Instant recently = clock.instant().minus(SILENT_AFTER);
        return new GatewayView(
                gateway.id(),
                gateway.name(),
                gateway.eui(),
                gateway.siteId(),
                registry.find(Point.class, gateway.pointId()).map(Point::id).orElse(null),
                registry.find(Site.class, gateway.siteId()).map(Site::name).orElse(""),
                state.isEmpty() ? "never-heard" : state.get().lastHeard().isAfter(recently) ? "online" : "silent",
                state.map(State::lastHeard).orElse(null),
                state.map(State::lastPull)
                        .filter(pull -> pull.isAfter(recently))
                        .isPresent(),
                state.map(State::frames).orElse(0L),
                state.map(State::rssi).orElse(null),
                state.map(State::snr).orElse(null),
                devicesOf(gateway.eui()).stream()
                        .flatMap(id -> registry.find(Device.class, id).stream())
                        .map(Device::name)
                        .sorted()
                        .toList());
    }
}
