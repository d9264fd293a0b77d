package org.openpasture.client;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.AssignmentRequest;
import org.openpasture.api.fleet.DeviceChange;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.KeyRequest;
import org.openpasture.api.record.DecodeAgainRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.lorawan.Eui64;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Devices. */
@Command(
        name = "devices",
        mixinStandardHelpOptions = true,
        description = "Devices with state, signal, counter and battery.")
final class DeviceCommands implements Runnable {
    @Mixin
    private Service service;

    @Override
    public void run() {
        JsonNode devices = service.api().get("api/v1/devices");
        if (service.printedJson(devices)) {
            return;
        }
        Instant now = Instant.now();
        TextTable table = new TextTable(
                "Device", "EUI or address", "Model", "State", "Heard", "RSSI", "SNR", "Counter", "Lost", "Battery");
        devices.forEach(device -> table.row(
                device.path("name").asString(),
                device.path("address").asString(),
                device.path("modelName").asString(),
                device.path("state").asString(),
                Words.age(device.path("lastHeard"), now),
                Words.amount(device.path("rssiDbm"), 0, "dBm"),
                Words.amount(device.path("snrDb"), 1, "dB"),
                Words.number(device.path("counter"), 0),
                device.path("inletId").isString() ? "" : device.path("lost").asString(),
                Words.amount(device.path("batteryVolts"), 2, "V")));
        service.out()
                .print(table.isEmpty() ? "No devices yet. Bring one in with 'pasture devices add'.\n" : table.text());
        devices.forEach(device -> {
            if (device.path("problem").isString()) {
                service.out()
                        .println("\n" + device.path("name").asString() + ": "
                                + device.path("problem").asString() + ".");
            }
        });
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description = "Bring a device in: a LoRaWAN one by its EUI, or one of an inlet by its address.")
    int add(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--model", paramLabel = "MODEL", required = true, description = "Id or name of its model.")
                    String model,
            @Option(
                            names = "--in",
                            paramLabel = "PLACE",
                            required = true,
                            description = "Its location: a site, area or asset.")
                    String in,
            @Option(names = "--eui", paramLabel = "EUI", description = "DevEUI of a LoRaWAN device, 16 hex digits.")
                    @Nullable
                    String eui,
            @Option(names = "--inlet", paramLabel = "INLET", description = "The inlet that it speaks by.") @Nullable
                    String inlet,
            @Option(
                            names = "--address",
                            paramLabel = "ADDRESS",
                            description = "As it stands in the messages of the inlet.")
                    @Nullable
                    String address,
            @Option(names = "--join-eui", paramLabel = "EUI", description = "JoinEUI, if it joins.") @Nullable
                    String joinEui,
            @Option(
                            names = "--app-key",
                            paramLabel = "KEY",
                            description = "Application key, for a device that joins; else that of the list of keys.")
                    @Nullable
                    String appKey,
            @Option(names = "--dev-addr", paramLabel = "ADDR", description = "Address, for a personalised device.")
                    @Nullable
                    String devAddr,
            @Option(names = "--nwk-s-key", paramLabel = "KEY") @Nullable String nwkSKey,
            @Option(names = "--app-s-key", paramLabel = "KEY") @Nullable String appSKey,
            @Option(names = "--make-points", description = "Make a point for each channel of the model.")
                    boolean makePoints) {
        JsonNode models = to.api().get("api/v1/models");
        if ((eui == null) == (inlet == null)) {
            throw new IllegalArgumentException("give either --eui, for a LoRaWAN device, or --inlet and --address");
        }
        return PlaceCommands.made(
                to,
                to.api()
                        .post(
                                "api/v1/devices",
                                new DeviceRequest(
                                        name,
                                        Service.pick(models, model, "device model")
                                                .path("id")
                                                .asString(),
                                        PlaceCommands.id(to, in),
                                        eui == null ? null : Eui64.of(eui),
                                        joinEui == null ? null : Eui64.of(joinEui),
                                        appKey,
                                        devAddr,
                                        nwkSKey,
                                        appSKey,
                                        inlet == null ? null : InletCommands.id(to, inlet),
                                        address,
                                        makePoints)));
    }

    @Command(
            name = "import",
            mixinStandardHelpOptions = true,
            description =
                    "Bring many devices in from CSV: name, model, place, and dev eui with keys, or inlet and address.")
    int bringIn(
            @Mixin Service to,
            @Parameters(paramLabel = "FILE") java.nio.file.Path file,
            @Option(names = "--dry-run", description = "Only say what would be taken.") boolean dryRun)
            throws java.io.IOException {
        return RadioCommands.taken(to, "api/v1/devices/import?dryRun=" + dryRun, file, dryRun, "devices");
    }

    @Command(
            name = "key",
            mixinStandardHelpOptions = true,
            description = "Give a device that joins another application key.")
    int key(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "DEVICE") String device,
            @Parameters(index = "1", paramLabel = "KEY", description = "32 hex digits.") String key) {
        JsonNode found = Service.pick(to.api().get("api/v1/devices"), device, "device");
        to.api().put("api/v1/devices/" + found.path("id").asString() + "/key", new KeyRequest(key));
        to.out()
                .println("The key of " + found.path("name").asString()
                        + " is changed; its next join request is awaited.");
        return 0;
    }

    @Command(
            name = "assign",
            mixinStandardHelpOptions = true,
            description = {
                "Let a device's channel feed a point, or calibrate it.",
                "Without a calibration the model's applies. Earlier readings keep the calibration of their time with --from."
            })
    int assign(
            @Mixin Service to,
            @Parameters(index = "0", paramLabel = "DEVICE") String device,
            @Parameters(index = "1", paramLabel = "CHANNEL") String channel,
            @Parameters(index = "2", paramLabel = "POINT") String point,
            @Option(
                            names = "--two-point",
                            paramLabel = "RAW=VALUE",
                            arity = "2",
                            description = "Two raw numbers with their true values, such as 3120=0 1410=100.")
                    @Nullable
                    List<String> pairs,
            @Option(
                            names = "--linear",
                            paramLabel = "NUMBER",
                            arity = "2",
                            description = "Factor and offset: value = raw x factor + offset.")
                    @Nullable
                    List<Double> linear,
            @Option(
                            names = "--from",
                            paramLabel = "WHEN",
                            description = "When it begins: now, 2026-03-01T08:00Z, or how far back: 2h. Left out, it"
                                    + " applies to all readings of this device from now on and, where the channel feeds"
                                    + " the point already, to frames that are decoded again.")
                    @Nullable
                    String from,
            @Option(names = "--note", paramLabel = "TEXT", description = "Reason, kept with the calibration.") @Nullable
                    String note) {
        String id = Service.pick(to.api().get("api/v1/devices"), device, "device")
                .path("id")
                .asString();
        JsonNode answer = to.api()
                .post(
                        "api/v1/devices/" + id + "/assignments",
                        new AssignmentRequest(
                                channel,
                                PointCommands.id(to, point),
                                calibration(pairs, linear),
                                from == null ? null : from.equals("now") ? Instant.now() : Times.read(from),
                                note));
        if (!to.printedJson(answer)) {
            to.out().println(channel + " of " + answer.path("name").asString() + " feeds the point now.");
        }
        return 0;
    }

    private static @Nullable Calibration calibration(@Nullable List<String> pairs, @Nullable List<Double> linear) {
        if (pairs != null) {
            double[] first = pair(pairs.getFirst());
            double[] second = pair(pairs.getLast());
            return new Calibration.TwoPoint(first[0], first[1], second[0], second[1]);
        }
        return linear == null ? null : new Calibration.Linear(linear.getFirst(), linear.getLast());
    }

    private static double[] pair(String text) {
        String[] parts = text.split("=", -1);
        try {
            if (parts.length == 2) {
                return new double[] {Double.parseDouble(parts[0]), Double.parseDouble(parts[1])};
            }
        } catch (NumberFormatException e) {
            // said below, with what is expected
        }
        throw new IllegalArgumentException("'" + text + "' is not a raw number and its value, such as 3120=0.");
    }

    @Command(
            name = "decode-again",
            mixinStandardHelpOptions = true,
            description =
                    "Read stored frames of a device again, after its layout, calibration or assignment was put right. Can be undone.")
    int decodeAgain(
            @Mixin Service to,
            @Parameters(paramLabel = "DEVICE", description = "EUI, id or name.") String device,
            @Option(
                            names = "--from",
                            paramLabel = "WHEN",
                            defaultValue = "30d",
                            description = "2026-03-01, 2026-03-01T08:00Z, yesterday, or how far back: 24h, 7d.")
                    String begin,
            @Option(names = "--until", paramLabel = "WHEN") @Nullable String until,
            @Option(
                            names = "--because",
                            paramLabel = "REASON",
                            defaultValue = "",
                            description = "Is kept with the change.")
                    String reason,
            @Option(names = "--dry-run", description = "Only show the differences.") boolean dryRun) {
        String id = Service.pick(to.api().get("api/v1/devices"), device, "device")
                .path("id")
                .asString();
        JsonNode report = to.api()
                .post(
                        "api/v1/devices/" + org.openpasture.client.http.ApiClient.escape(id) + "/decode-again",
                        new DecodeAgainRequest(
                                Times.read(begin), until == null ? Instant.now() : Times.read(until), reason, dryRun));
        if (to.printedJson(report)) {
            return 0;
        }
        to.out()
                .println(Words.count(report.path("frames").asLong(), "frame") + " read again: "
                        + report.path("changed").asLong() + " readings "
                        + (dryRun ? "would change" : "changed") + ", "
                        + report.path("added").asLong() + " new, "
                        + report.path("same").asLong() + " as before"
                        + (report.path("undecodable").asLong() > 0
                                ? "; " + Words.count(report.path("undecodable").asLong(), "frame")
                                        + " cannot be decoded"
                                : "")
                        + ".");
        TextTable table = new TextTable("Time", "Point", "Before", "After");
        report.path("differences")
                .forEach(one -> table.row(
                        Words.moment(one.path("time")),
                        one.path("point").asString(),
                        one.path("before").isNumber() ? Words.number(one.path("before"), 3) : "-",
                        Words.number(one.path("after"), 3)));
        to.out().print(table.isEmpty() ? "" : table.text());
        if (report.path("correctionId").isNumber()) {
            to.out()
                    .println("Undo with 'pasture records undo "
                            + report.path("correctionId").asString() + "'.");
        }
        return 0;
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "Everything about one device, as JSON.")
    int show(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.shown("api/v1/devices", name, "device");
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a device; its points and their readings stay.")
    int remove(@Mixin Service to, @Parameters(paramLabel = "NAME") String name) {
        return to.removed("api/v1/devices", name, "device");
    }

    @Command(name = "change", mixinStandardHelpOptions = true, description = "Rename a device, or change its location.")
    int change(
            @Mixin Service to,
            @Parameters(paramLabel = "NAME") String name,
            @Option(names = "--name", paramLabel = "NAME", description = "New name.") @Nullable String otherName,
            @Option(names = "--place", paramLabel = "PLACE", description = "New location: site, area or asset.")
                    @Nullable
                    String place) {
        JsonNode device = Service.pick(to.api().get("api/v1/devices"), name, "device");
        JsonNode changed = to.api()
                .put(
                        "api/v1/devices/" + device.path("id").asString(),
                        new DeviceChange(
                                otherName == null ? device.path("name").asString() : otherName,
                                place == null ? device.path("placeId").asString() : PlaceCommands.id(to, place)));
        if (!to.printedJson(changed)) {
            to.out().println("Changed " + changed.path("name").asString() + ".");
        }
        return 0;
    }
}
