package org.openpasture.service.radio;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.openpasture.api.fleet.FleetNewsView;
import org.openpasture.api.fleet.GatewayPageView;
import org.openpasture.api.fleet.SignalView;
import org.openpasture.core.access.Access;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.TimeOnAir;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.engine.heard.FleetNews;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.radio.DownlinkSender;
import org.openpasture.engine.radio.GatewayAir;
import org.openpasture.engine.radio.GatewayTokens;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The health of the radio fleet: each gateway with what it hears, each device with how it was heard. */
@RestController
class FleetController {
    private static final int FRAMES = 400;
    private final GatewayStates gateways;
    private final GatewayAir air;
    private final GatewayTokens tokens;
    private final DeviceStates devices;
    private final DownlinkSender downlinks;
    private final FleetNews news;
    private final RadioPlan plan;
    private final TelemetryStore telemetry;
    private final Reader reader;

    FleetController(
            GatewayStates gateways,
            GatewayAir air,
            GatewayTokens tokens,
            DeviceStates devices,
            DownlinkSender downlinks,
            FleetNews news,
            RadioPlan plan,
            TelemetryStore telemetry,
            Reader reader) {
        this.gateways = gateways;
        this.air = air;
        this.tokens = tokens;
        this.devices = devices;
        this.downlinks = downlinks;
        this.news = news;
        this.plan = plan;
        this.telemetry = telemetry;
        this.reader = reader;
    }

    /** First heard, back again; the newest first. */
    @GetMapping("/api/v1/fleet/news")
    List<FleetNewsView> news() {
        Access access = reader.access();
        return news.newest().stream()
                .filter(item -> access.may(Right.LOOK, item.placeId()))
                .map(FleetNews.Item::view)
                .toList();
    }

    @GetMapping("/api/v1/gateways/{id}")
    GatewayPageView gateway(@PathVariable String id) {
        Access access = reader.access();
        Registry now = access.registry();
        Gateway gateway = now.find(Gateway.class, id)
                .filter(one -> access.may(Right.LOOK, one))
                .orElseThrow(() -> Problem.notFound("gateway"));
        CompletableFuture<Double> used = new CompletableFuture<>();
        downlinks.usedShare(gateway.eui(), used::complete);
        List<Device> heard = gateways.devicesOf(gateway.eui()).stream()
                .flatMap(device -> now.find(Device.class, device).stream())
                .filter(device -> access.may(Right.LOOK, device))
                .toList();
        List<String> only = heard.stream()
                .filter(device -> gateways.gatewaysOf(device.id()).equals(List.of(gateway.eui())))
                .map(Device::name)
                .sorted()
                .toList();
        return new GatewayPageView(
                gateways.view(now, gateway),
                air.hours(gateway.eui()),
                air.channels(gateway.eui()),
                used.join() * 100,
                heard.stream()
                        .map(device -> new GatewayPageView.DeviceHeard(
                                device.id(),
                                device.name(),
                                devices.view(now, device).state()))
                        .toList(),
                only,
                tokens.has(gateway.id()));
    }

    /** How a device was heard over its newest 400 frames. */
    @GetMapping("/api/v1/devices/{id}/signal")
    SignalView signal(@PathVariable String id) {
        Device device = reader.device(id);
        Registry now = reader.now();
        Region region = plan.now().region();
        List<Frame> frames = new ArrayList<>(telemetry.frames().find(FrameQuery.newestOf(id, FRAMES)));
        Collections.reverse(frames);
        List<SignalView.Heard> heard = new ArrayList<>();
        long expected = 0;
        long got = 0;
        long before = -1;
        Duration onAir = Duration.ZERO;
        for (Frame frame : frames) {
            if (!frame.kind().equals(Frame.UPLINK) || frame.receptions().isEmpty() || frame.counter() < 0) {
                continue;
            }
            Reception best = frame.receptions().getFirst();
            Optional<DataRate> rate = region.dataRate(best.dataRate());
            heard.add(new SignalView.Heard(
                    frame.receivedAt(),
                    frame.counter(),
                    best.rssiDbm(),
                    best.snrDb(),
                    rate.map(one -> one.marginDb(best.snrDb())).orElse(0.0),
                    best.dataRate(),
                    name(now, best.gateway()),
                    frame.receptions().size()));
            onAir = rate.isEmpty() ? onAir : onAir.plus(TimeOnAir.of(rate.get(), frame.bytes().length, true));
            if (frame.outcome() == Frame.Outcome.ACCEPTED) {
                got++;
                expected += before >= 0 && frame.counter() > before ? frame.counter() - before : 1;
                before = frame.counter();
            }
        }
        long joins = frames.stream()
                .filter(frame -> frame.kind().equals(Frame.JOIN_REQUEST) && frame.outcome() == Frame.Outcome.ACCEPTED)
                .count();
        long restarts = frames.stream()
                .filter(frame -> frame.cause() == Cause.COUNTER_RESET)
                .count();
        double seconds = heard.size() < 2
                ? 0
                : Duration.between(heard.getFirst().time(), heard.getLast().time())
                                .toMillis()
                        / 1e3;
        Optional<DeviceModel> model = now.find(DeviceModel.class, device.modelId());
        Double percent = devices.view(now, device).batteryPercent();
        Double months = percent == null
                ? null
                : model.map(DeviceModel::power)
                        .flatMap(power -> power.monthsLeft(percent, model.get().intervalSeconds()))
                        .orElse(null);
        return new SignalView(
                heard,
                expected == 0 ? null : 100.0 * (expected - got) / expected,
                joins,
                restarts,
                seconds == 0
                        ? 0
                        : onAir.toMillis() / 1e3 / seconds * Duration.ofDays(1).toSeconds(),
                months);
    }

    private static String name(Registry now, Eui64 gateway) {
        return now.gateway(gateway).map(Gateway::name).orElse(gateway.toString());
    }
}
