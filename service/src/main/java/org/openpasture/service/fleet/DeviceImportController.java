package org.openpasture.service.fleet;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.LabelRequest;
import org.openpasture.api.fleet.LabelView;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.core.access.Access;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DeviceLabel;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Site;
import org.openpasture.engine.importing.BoundedLines;
import org.openpasture.engine.importing.LineReport;
import org.openpasture.engine.radio.KeyList;
import org.openpasture.inlets.message.Causes;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Bringing devices in by the label's code, by a list of keys, and by the hundred. */
@RestController
class DeviceImportController {
    /** So many are registered in one change. */
    private static final int AT_ONCE = 500;

    private final BringingIn bringIn;
    private final KeyList keys;
    private final Reader reader;

    DeviceImportController(BringingIn bringIn, KeyList keys, Reader reader) {
        this.bringIn = bringIn;
        this.keys = keys;
        this.reader = reader;
    }

    /** What the code on a label says, and what is known of that device here. */
    @PostMapping("/api/v1/labels/read")
    LabelView read(@RequestBody LabelRequest request) {
        Access access = reader.access();
        DeviceLabel label = DeviceLabel.parse(request.text());
        Optional<Device> known =
                access.registry().device(label.devEui()).filter(device -> access.may(Right.LOOK, device));
        String profile = label.vendorId() + label.profileId();
        return new LabelView(
                label.joinEui(),
                label.devEui(),
                label.vendorId(),
                label.profileId(),
                label.serialNumber(),
                known.map(Device::id).orElse(null),
                known.map(Device::name).orElse(null),
                keys.find(label.devEui()).isPresent(),
                access.registry().all(DeviceModel.class).stream()
                        .filter(model -> profile.equalsIgnoreCase(model.labelProfile()))
                        .map(DeviceModel::id)
                        .findFirst()
                        .orElse(null));
    }

    /** How many keys wait for their devices. */
    record KeyCount(int keys) {}

    @GetMapping("/api/v1/keys")
    KeyCount keys() {
        reader.requireOwner("handle the list of keys, which all sites share");
        return new KeyCount(keys.size());
    }

    /**
     * Loads application keys for devices that come later. CSV with the columns "dev eui", "app key" and, if wanted,
     * "join eui".
     */
    @PostMapping(path = "/api/v1/keys", consumes = "text/csv")
    ImportReport loadKeys(HttpServletRequest request, @RequestParam(defaultValue = "false") boolean dryRun)
            throws IOException {
        reader.requireOwner("handle the list of keys, which all sites share");
        return lines(request, dryRun, List.of("dev eui", "app key"), line -> {
            Eui64 eui = Eui64.of(line.needed("dev eui"));
            KeyList.Entry entry = new KeyList.Entry(
                    AesKey.ofHex(line.needed("app key")),
                    line.find("join eui").map(Eui64::of).orElseGet(() -> new Eui64(0)));
            if (!dryRun) {
                keys.add(eui, entry);
            }
        });
    }

    /** Forgets all keys that wait for devices. */
    @DeleteMapping("/api/v1/keys")
    KeyCount forgetKeys() {
        reader.requireOwner("handle the list of keys, which all sites share");
        keys.forgetAll();
        return new KeyCount(0);
    }

    /**
     * Brings many devices in. CSV with the columns "name", "model" and "place" (name or id); for devices of an inlet
     * "inlet" (name or id) and "address"; for LoRaWAN devices "dev eui" and for the keys "join eui" and "app key", or
     * "dev addr", "nwk s key" and "app s key"; or none, if the list of keys has them. Lines that are wrong are
     * reported, the others are taken.
     */
    @PostMapping(path = "/api/v1/devices/import", consumes = "text/csv")
    ImportReport importDevices(
            HttpServletRequest request,
            @RequestParam(defaultValue = "false") boolean dryRun,
            @RequestParam(defaultValue = "true") boolean makePoints)
            throws IOException {
        Access access = reader.access();
        Set<String> seen = new HashSet<>();
        List<DeviceRequest> right = new ArrayList<>();
        ImportReport report = lines(request, dryRun, List.of("name", "model", "place"), line -> {
            DeviceRequest device = new DeviceRequest(
                    line.needed("name"),
                    model(access, line.needed("model")),
                    place(access, line.needed("place")),
                    line.find("inlet").isPresent() ? null : Eui64.of(line.needed("dev eui")),
                    line.find("join eui").map(Eui64::of).orElse(null),
                    line.find("app key").orElse(null),
                    line.find("dev addr").orElse(null),
                    line.find("nwk s key").orElse(null),
                    line.find("app s key").orElse(null),
                    line.find("inlet").map(name -> inlet(access, name)).orElse(null),
                    line.find("address").orElse(null),
                    makePoints);
            String identity = device.devEui() != null ? "EUI " + device.devEui() : "address " + device.address();
            bringIn.check(device);
            if (!seen.add(bringIn.key(access, device))) {
                throw new IllegalArgumentException("the " + identity + " stands in this file twice");
            }
            right.add(device);
        });
        for (int i = 0; !dryRun && i < right.size(); i += AT_ONCE) {
            bringIn.bringIn(right.subList(i, Math.min(right.size(), i + AT_ONCE)));
        }
        return report;
    }

    private static String model(Access access, String name) {
        return access.registry().all(DeviceModel.class).stream()
                .filter(access::maySee)
                .filter(model -> model.id().equals(name) || model.name().equalsIgnoreCase(name))
                .map(DeviceModel::id)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no device model '" + name + "'"));
    }

    private static String inlet(Access access, String name) {
        return access.registry().all(Inlet.class).stream()
                .filter(inlet -> access.may(Right.LOOK, inlet))
                .filter(inlet -> inlet.id().equals(name) || inlet.name().equalsIgnoreCase(name))
                .map(Inlet::id)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no inlet '" + name + "'"));
    }

    private static String place(Access access, String name) {
        List<Place> all = new ArrayList<>(access.registry().all(Site.class));
        all.addAll(access.registry().all(Area.class));
        all.addAll(access.registry().all(Asset.class));
        List<String> found = all.stream()
                .filter(place -> access.may(Right.LOOK, place.id()))
                .filter(place -> place.id().equals(name) || place.name().equalsIgnoreCase(name))
                .map(Place::id)
                .toList();
        if (found.size() != 1) {
            throw new IllegalArgumentException(
                    found.isEmpty()
                            ? "there is no place '" + name + "'"
                            : "there are " + found.size() + " places called '" + name + "'; give the id");
        }
        return found.getFirst();
    }

    /** A line whose fields are found by their column's name. */
    private record Line(CSVRecord line) {
        Optional<String> find(String column) {
            return line.getParser().getHeaderNames().stream()
                    .filter(name -> plain(name).equals(plain(column)))
                    .findFirst()
                    .map(line::get)
                    .map(String::strip)
                    .filter(text -> !text.isEmpty());
        }

        String needed(String column) {
            return find(column).orElseThrow(() -> new IllegalArgumentException("the " + column + " is missing"));
        }
    }

    private static String plain(String column) {
        return column.toLowerCase(Locale.ROOT).replaceAll("[ _-]", "");
    }

    private static ImportReport lines(
            HttpServletRequest request, boolean dryRun, List<String> needed, Consumer<Line> each) throws IOException {
        LineReport report = new LineReport();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .setAllowMissingColumnNames(true)
                .get();
        BoundedLines text = new BoundedLines(new InputStreamReader(request.getInputStream(), StandardCharsets.UTF_8));
        try (CSVParser parser =
                CSVParser.builder().setFormat(format).setReader(text).get()) {
            for (String column : needed) {
                if (parser.getHeaderNames().stream()
                        .noneMatch(name -> plain(name).equals(plain(column)))) {
                    throw Problem.invalid("the first line must name the columns; '" + column
                            + "' is missing. It names: " + String.join(", ", parser.getHeaderNames()));
                }
            }
            for (CSVRecord line : parser) {
                text.next();
                take(line, each)
                        .ifPresentOrElse(
                                reason -> report.refuse(parser.getCurrentLineNumber(), reason), report::accept);
            }
        } catch (UncheckedIOException | IOException | IllegalStateException e) {
            throw Problem.invalid(
                    "the text is no CSV from here on: " + Causes.innermost(e).getMessage());
        }
        return report.report(dryRun);
    }

    /** Takes a line, or says why not. */
    private static Optional<String> take(CSVRecord line, Consumer<Line> each) {
        try {
            if (!line.isConsistent()) {
                return Optional.of("the line has " + line.size() + " fields, the header names "
                        + line.getParser().getHeaderNames().size());
            }
            each.accept(new Line(line));
            return Optional.empty();
        } catch (IllegalArgumentException | Problem e) {
            return Optional.of(String.valueOf(e.getMessage()));
        }
    }
}
