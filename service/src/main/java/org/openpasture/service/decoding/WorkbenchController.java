package org.openpasture.service.decoding;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.openpasture.api.fleet.WorkbenchRequest;
import org.openpasture.api.fleet.WorkbenchView;
import org.openpasture.core.access.Access;
import org.openpasture.core.decoding.ChannelText;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.people.Right;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The decoder workbench: a draft is tried on captured frames before it goes live. */
@RestController
class WorkbenchController {
    private static final int FRAMES = 100;
    /**
     * Which bytes a script's channel comes from is found out for so many frames, by changing one byte after the other.
     */
    private static final int TRIALS_FOR = 3;

    private static final int LONGEST_TRIAL = 64;
    private final TelemetryStore telemetry;
    private final Decoders decoders;
    private final Reader reader;
    private final Clock clock;

    WorkbenchController(TelemetryStore telemetry, Decoders decoders, Reader reader, Clock clock) {
        this.telemetry = telemetry;
        this.decoders = decoders;
        this.reader = reader;
        this.clock = clock;
    }

    /** A frame to be tried. */
    private record Sample(long id, java.time.Instant time, String deviceName, int port, byte[] payload) {}

    @PostMapping("/api/v1/workbench")
    WorkbenchView tryOut(@RequestBody WorkbenchRequest request) {
        DeviceModel live = reader.shared(DeviceModel.class, request.modelId(), "device model");
        requireTrying(live);
        DeviceModel draft = live.readBy(
                request.layout() == null ? live.layout() : request.layout(),
                request.script() == null && request.layout() == null ? live.script() : request.script());
        String person = reader.person().id();
        List<WorkbenchView.Tried> tried = new ArrayList<>();
        int same = 0;
        int different = 0;
        int failed = 0;
        for (Sample sample : samples(request)) {
            String now = text(decoders.decode(live, sample.port(), sample.payload(), sample.time())
                    .join());
            Decoding read = decoders.attempt(person, draft, sample.port(), sample.payload(), sample.time())
                    .join();
            String then = text(read);
            failed += then == null ? 1 : 0;
            same += then != null && then.equals(now) ? 1 : 0;
            different += then != null && !then.equals(now) ? 1 : 0;
            tried.add(new WorkbenchView.Tried(
                    sample.id(),
                    sample.time(),
                    sample.deviceName(),
                    sample.port(),
                    HexFormat.of().formatHex(sample.payload()),
                    now,
                    then,
                    read instanceof Decoding.Refused(String reason) ? reason : null,
                    parts(person, draft, sample, read, tried.size())));
        }
        return new WorkbenchView(tried, same, different, failed);
    }

    /** A draft runs in the service, and is written to take the model's place. */
    private void requireTrying(DeviceModel model) {
        Access access = reader.access();
        if (model.siteId() == null ? !access.mayManageInstance() : !access.may(Right.EDIT, model.siteId())) {
            throw Problem.forbidden("try drafts of this device model");
        }
    }

    private static @org.jspecify.annotations.Nullable String text(Decoding decoding) {
        return decoding instanceof Decoding.Decoded decoded ? ChannelText.of(decoded.values()) : null;
    }

    private List<Sample> samples(WorkbenchRequest request) {
        if (request.payload() != null) {
            return List.of(new Sample(
                    0,
                    clock.instant(),
                    "typed",
                    Objects.requireNonNullElse(request.port(), 1),
                    HexFormat.of().parseHex(request.payload().replaceAll("\\s", ""))));
        }
        Access access = reader.access();
        List<Sample> samples = new ArrayList<>();
        for (Device device : access.registry().all(Device.class)) {
            if (device.modelId().equals(request.modelId()) && access.may(Right.LOOK, device)) {
                telemetry.frames().find(FrameQuery.newestOf(device.id(), 2 * FRAMES)).stream()
                        .filter(frame -> frame.isData() && frame.payload().length > 0)
                        .limit(FRAMES)
                        .forEach(frame -> samples.add(new Sample(
                                frame.id(),
                                frame.receivedAt(),
                                device.name(),
                                frame.readingPort(),
                                frame.contents().getLast().payload())));
            }
        }
        return samples.stream()
                .sorted(Comparator.comparing(Sample::time).reversed())
                .limit(FRAMES)
                .toList();
    }

    private List<WorkbenchView.Part> parts(String person, DeviceModel draft, Sample sample, Decoding read, int index) {
        if (draft.script() == null) {
            return draft.layout().parts(sample.port(), sample.payload()).stream()
                    .map(part -> new WorkbenchView.Part(
                            part.channel(),
                            java.util.stream.IntStream.range(part.from(), part.until())
                                    .boxed()
                                    .toList()))
                    .toList();
        }
        if (index >= TRIALS_FOR
                || !(read instanceof Decoding.Decoded decoded)
                || sample.payload().length > LONGEST_TRIAL) {
            return List.of();
        }
        Map<String, List<Integer>> found = new TreeMap<>();
        decoded.values().forEach(value -> found.put(value.channel(), new ArrayList<>()));
        for (int at = 0; at < sample.payload().length; at++) {
            byte[] other = sample.payload().clone();
            other[at] ^= 0x05;
            if (decoders.attempt(person, draft, sample.port(), other, sample.time())
                            .join()
                    instanceof Decoding.Decoded changed) {
                int place = at;
                for (ChannelValue value : decoded.values()) {
                    if (!changed.values().contains(value)) {
                        found.getOrDefault(value.channel(), new ArrayList<>()).add(place);
                    }
                }
            }
        }
        return found.entrySet().stream()
                .map(entry -> new WorkbenchView.Part(entry.getKey(), entry.getValue()))
                .toList();
    }
}
