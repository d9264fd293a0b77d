package org.openpasture.service.commissioning;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.openpasture.api.commissioning.CheckRequest;
import org.openpasture.api.commissioning.CheckResult;
import org.openpasture.api.commissioning.CommissioningView;
import org.openpasture.api.commissioning.CommissioningView.CheckView;
import org.openpasture.core.commissioning.InletSteps;
import org.openpasture.core.commissioning.Step;
import org.openpasture.core.commissioning.Steps;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.fleet.ResponseCheck;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.heard.InletStates;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A device on its way in: step by step, with its response check at the end. */
@RestController
class CommissioningController {
    private static final int FRAMES = 60;
    private static final Duration STRANGERS_OF = Duration.ofHours(1);
    private static final Duration BEFORE = Duration.ofDays(2);
    private final TelemetryStore telemetry;
    private final RegistryStore registry;
    private final GatewayStates gateways;
    private final InletStates inlets;
    private final RadioPlan plan;
    private final Reader reader;
    private final Clock clock;

    CommissioningController(
            TelemetryStore telemetry,
            RegistryStore registry,
            GatewayStates gateways,
            InletStates inlets,
            RadioPlan plan,
            Reader reader,
            Clock clock) {
        this.telemetry = telemetry;
        this.registry = registry;
        this.gateways = gateways;
        this.inlets = inlets;
        this.plan = plan;
        this.reader = reader;
        this.clock = clock;
    }

    @GetMapping("/api/v1/devices/{id}/commissioning")
    CommissioningView view(@PathVariable String id) {
        Device device = reader.device(id);
        Registry now = reader.now();
        List<Step> steps = new ArrayList<>(way(now, device));
        boolean decoded = steps.getLast().state().equals("done");
        List<CheckView> checks = checks(now, device);
        steps.add(meaning(now, device, decoded));
        steps.add(response(checks, decoded));
        return new CommissioningView(
                id, steps, steps.stream().allMatch(step -> step.state().equals("done")), checks);
    }

    private List<Step> way(Registry now, Device device) {
        List<Frame> frames = telemetry.frames().find(FrameQuery.newestOf(device.id(), FRAMES));
        return switch (device.identity()) {
            case RadioIdentity radio -> radioWay(now, device, radio, frames);
            case DeviceIdentity.OfInlet of ->
                new InletSteps(
                                of.address(),
                                now.find(Inlet.class, of.inletId())
                                        .map(Inlet::name)
                                        .orElse(""),
                                inlets.whyDown(of.inletId()),
                                frames,
                                inlets.strangers(of.inletId()))
                        .all();
        };
    }

    private List<Step> radioWay(Registry now, Device device, RadioIdentity radio, List<Frame> frames) {
        String siteId = now.siteOf(device.placeId()).map(Site::id).orElse("");
        List<Steps.GatewayState> near = now.all(Gateway.class).stream()
                .filter(gateway -> gateway.siteId().equals(siteId))
                .map(gateway -> gateways.view(now, gateway))
                .map(one -> new Steps.GatewayState(one.name(), one.state().equals("online"), one.canTransmit()))
                .toList();
        return new Steps(
                        radio,
                        frames,
                        telemetry.frames().ofStrangers(clock.instant().minus(STRANGERS_OF), FRAMES),
                        near,
                        plan.now().region(),
                        plan.now().subBand())
                .all();
    }

    private Step meaning(Registry now, Device device, boolean decoded) {
        List<Point> fed = points(now, device);
        long hidden = fed.stream().filter(point -> !point.released()).count();
        String title = "Its values have a meaning and are released";
        if (fed.isEmpty()) {
            return new Step(
                    "meaning",
                    title,
                    decoded ? "waiting" : "later",
                    "None of its channels feeds a point.",
                    "Let its channels feed points.",
                    null);
        }
        return hidden == 0
                ? new Step("meaning", title, "done", fed.size() + (fed.size() == 1 ? " point" : " points"), "", null)
                : new Step(
                        "meaning",
                        title,
                        decoded ? "waiting" : "later",
                        hidden + " of " + fed.size() + " points are not released: only editors see them.",
                        decoded ? "Release them when name, unit and place are right." : "",
                        null);
    }

    private static Step response(List<CheckView> checks, boolean decoded) {
        String title = "It answers when it is provoked";
        Optional<CheckView> said =
                checks.stream().filter(check -> check.worked() != null).findFirst();
        if (said.isPresent()) {
            CheckView check = said.get();
            boolean worked = Boolean.TRUE.equals(check.worked());
            return new Step(
                    "response",
                    title,
                    worked ? "done" : "failed",
                    check.pointName() + ", seen by " + check.person()
                            + (check.note().isEmpty() ? "." : ": " + check.note()),
                    worked ? "" : "Look at the sensor, then check again.",
                    check.until());
        }
        return new Step(
                "response",
                title,
                decoded ? "waiting" : "later",
                "Warm it, wet it, tap it, lift the float, and watch its value answer.",
                "",
                null);
    }

    private List<Point> points(Registry now, Device device) {
        Instant time = clock.instant();
        return now.assignmentsOf(device.id()).stream()
                .filter(assignment -> assignment.holdsAt(time))
                .map(Assignment::pointId)
                .flatMap(point -> now.find(Point.class, point).stream())
                .toList();
    }

    private List<CheckView> checks(Registry now, Device device) {
        return now.all(ResponseCheck.class).stream()
                .filter(check -> check.deviceId().equals(device.id()))
                .sorted(Comparator.comparing(ResponseCheck::from).reversed())
                .limit(10)
                .map(check -> view(now, check))
                .toList();
    }

    private CheckView view(Registry now, ResponseCheck check) {
        Optional<Point> point = now.find(Point.class, check.pointId());
        int number = point.map(Point::number).orElse(-1);
        SeriesSlice before = telemetry.series().range(number, check.from().minus(BEFORE), check.from());
        SeriesSlice during = telemetry.series().range(number, check.from(), check.until());
        Double lowest = null;
        Double highest = null;
        for (int i = 0; i < during.size(); i++) {
            Reading reading = during.reading(i);
            lowest = lowest == null ? reading.value() : Math.min(lowest, reading.value());
            highest = highest == null ? reading.value() : Math.max(highest, reading.value());
        }
        return new CheckView(
                check.id(),
                check.pointId(),
                point.map(Point::name).orElse("a point that is gone"),
                point.map(Point::unit).orElse(""),
                check.from(),
                check.until(),
                check.person(),
                check.worked(),
                check.note(),
                check.worked() == null && check.covers(clock.instant()),
                before.size() == 0 ? null : before.values()[before.size() - 1],
                lowest,
                highest);
    }

    /** Begins a response check; the device's readings raise no alerts until it is confirmed, ten minutes at most. */
    @PostMapping("/api/v1/devices/{id}/checks")
    @ResponseStatus(HttpStatus.CREATED)
    CommissioningView begin(@PathVariable String id, @RequestBody CheckRequest request) {
        Device device = reader.device(id);
        reader.require(Right.OPERATE, device.placeId(), "check this device");
        List<Point> fed = points(reader.now(), device);
        if (fed.stream().noneMatch(point -> point.id().equals(request.pointId()))) {
            throw Problem.invalid("the device does not feed this point; choose one that it feeds");
        }
        Instant now = clock.instant();
        registry.change(reader.person().name(), current -> {
            current.all(ResponseCheck.class).stream()
                    .filter(check -> check.deviceId().equals(id) && check.worked() == null && check.covers(now))
                    .findFirst()
                    .ifPresent(running -> {
                        throw Problem.conflict(
                                "A check of this device is running already, begun by " + running.person() + ".",
                                "Finish that one first.");
                    });
            return List.of(new Change.Put(new ResponseCheck(
                    Accounts.newId(),
                    id,
                    request.pointId(),
                    fed.stream().map(Point::id).toList(),
                    now,
                    now.plus(ResponseCheck.LONGEST),
                    reader.person().name(),
                    null,
                    "")));
        });
        return view(id);
    }

    /** Ends a response check with what was seen. */
    @PostMapping("/api/v1/checks/{id}/result")
    CommissioningView finish(@PathVariable String id, @RequestBody CheckResult result) {
        ResponseCheck check = reader.find(ResponseCheck.class, id, "check");
        Device device = reader.device(check.deviceId());
        reader.require(Right.OPERATE, device.placeId(), "check this device");
        if (check.worked() != null) {
            throw Problem.conflict("This check was finished already.", "Begin another one.");
        }
        registry.change(
                reader.person().name(),
                List.of(new Change.Put(check.ended(clock.instant(), result.worked(), String.valueOf(result.note())))));
        return view(device.id());
    }
}
