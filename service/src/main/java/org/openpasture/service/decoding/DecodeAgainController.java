package org.openpasture.service.decoding;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.api.record.DecodeAgainReport;
import org.openpasture.api.record.DecodeAgainRequest;
import org.openpasture.core.decoding.ReadingBuilder;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Sheaf;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Reads stored frames again after a layout, a calibration or an assignment was put right. */
@RestController
class DecodeAgainController {
    private static final int PAGE = 1_000;
    private static final int MOST_FRAMES = 2_000_000;
    private static final int DIFFERENCES_SHOWN = 50;
    private final TelemetryStore telemetry;
    private final Decoders decoders;
    private final Reader reader;

    DecodeAgainController(TelemetryStore telemetry, Decoders decoders, Reader reader) {
        this.telemetry = telemetry;
        this.decoders = decoders;
        this.reader = reader;
    }

    /** What the frames of a range give now. */
    private static final class Found {
        private int frames;
        private int undecodable;
        private final Map<Integer, PointSeries> readings = new TreeMap<>();
    }

    /**
     * Reads the frames of a device in a range again; readings that come out otherwise than before are put in their
     * place.
     */
    @PostMapping("/api/v1/devices/{id}/decode-again")
    DecodeAgainReport decodeAgain(@PathVariable String id, @RequestBody DecodeAgainRequest request) {
        Device device = reader.device(id);
        reader.require(Right.EDIT, device.placeId(), "change readings of this device");
        TimeRange range = new TimeRange(request.from(), request.until());
        Registry now = reader.now();
        DeviceModel model = reader.find(DeviceModel.class, device.modelId(), "device model");
        Found found = read(now, device, model, range);
        int same = 0;
        int changed = 0;
        int added = 0;
        List<DecodeAgainReport.Difference> differences = new ArrayList<>();
        List<Rewrite> rewrites = new ArrayList<>();
        for (Map.Entry<Integer, PointSeries> entry : found.readings.entrySet()) {
            SeriesSlice fresh = entry.getValue().slice();
            long from = fresh.times()[0];
            long until = fresh.times()[fresh.size() - 1] + 1;
            SeriesSlice before =
                    telemetry.series().range(entry.getKey(), Instant.ofEpochMilli(from), Instant.ofEpochMilli(until));
            int ofPoint = 0;
            for (int i = 0; i < fresh.size(); i++) {
                int at = before.indexOf(fresh.times()[i]);
                boolean there = at < before.size() && before.times()[at] == fresh.times()[i];
                if (there && before.values()[at] == fresh.values()[i]) {
                    same++;
                    continue;
                }
                changed += there ? 1 : 0;
                added += there ? 0 : 1;
                ofPoint++;
                if (differences.size() < DIFFERENCES_SHOWN) {
                    differences.add(difference(now, entry.getKey(), fresh, i, there ? before.values()[at] : null));
                }
            }
            if (ofPoint > 0) {
                rewrites.add(new Rewrite(entry.getKey(), from, until, before.merge(fresh)));
            }
        }
        Long correction = request.dryRun() || rewrites.isEmpty()
                ? null
                : telemetry
                        .corrections()
                        .make(
                                reader.person().name(),
                                (request.note().isBlank() ? "" : request.note() + ": ") + "frames of " + device.name()
                                        + " read again",
                                rewrites);
        return new DecodeAgainReport(found.frames, found.undecodable, same, changed, added, differences, correction);
    }

    private static DecodeAgainReport.Difference difference(
            Registry now, int number, SeriesSlice fresh, int index, @Nullable Double before) {
        Point point = now.point(number).orElseThrow();
        return new DecodeAgainReport.Difference(
                point.id(), point.name(), Instant.ofEpochMilli(fresh.times()[index]), before, fresh.values()[index]);
    }

    private Found read(Registry now, Device device, DeviceModel model, TimeRange range) {
        Found found = new Found();
        long after = 0;
        List<Frame> page;
        do {
            page = telemetry.frames().page(device.id(), range.from(), range.until(), after, PAGE);
            for (Frame frame : page) {
                after = frame.id();
                if (frame.isData()) {
                    read(now, device, model, frame, found);
                }
            }
            if (found.frames > MOST_FRAMES) {
                throw Problem.invalid("that are more than " + MOST_FRAMES + " frames at once; choose a shorter range");
            }
        } while (page.size() == PAGE);
        return found;
    }

    private void read(Registry now, Device device, DeviceModel model, Frame frame, Found found) {
        for (Sheaf.Part part : frame.contents()) {
            found.frames++;
            switch (decoders.decode(model, frame.readingPort(), part.payload(), part.time())
                    .join()) {
                case Decoding.Refused refused -> found.undecodable++;
                case Decoding.Decoded decoded -> {
                    for (PointReading reading : ReadingBuilder.build(now, device, model, decoded.values(), part.time())
                            .readings()) {
                        found.readings
                                .computeIfAbsent(reading.point(), point -> new PointSeries())
                                .add(reading.reading());
                    }
                }
            }
        }
    }
}
