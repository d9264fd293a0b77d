package org.openpasture.acceptance.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.client.Pasture;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The command line, from an empty instance to an exported reading; as a process of its own where that matters. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ClientTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    @TempDir
    static Path folder;

    private record Outcome(int status, String out, String err) {
        JsonNode json() {
            return JsonMapper.shared().readTree(out);
        }
    }

    private static ProcessBuilder command(String... arguments) {
        List<String> words = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-cp",
                System.getProperty("java.class.path"),
                "org.openpasture.client.Pasture"));
        words.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(words);
        builder.environment()
                .put("PASTURE_SIGN_IN", folder.resolve("sign-in.json").toString());
        builder.environment().put("PASTURE_PASSWORD", RunningService.PASSWORD);
        return builder;
    }

    /** As a process, which every way of running it comes down to. */
    private static Outcome process(String... arguments) {
        try {
            Process process = command(arguments)
                    .redirectError(folder.resolve("err").toFile())
                    .start();
            process.getOutputStream().close();
            String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            int status = process.waitFor();
            return new Outcome(status, out, Files.readString(folder.resolve("err")));
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The same commands without a start of Java for each of a hundred. */
    private static Outcome run(String... arguments) {
        System.setProperty("PASTURE_SIGN_IN", folder.resolve("sign-in.json").toString());
        System.setProperty("PASTURE_PASSWORD", RunningService.PASSWORD);
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        int status = Pasture.commandLine(arguments)
                .setOut(new PrintWriter(out, true))
                .setErr(new PrintWriter(err, true))
                .execute(arguments);
        return new Outcome(status, out.toString(), err.toString());
    }

    private static Outcome ok(String... arguments) {
        Outcome outcome = run(arguments);
        assertThat(outcome.err()).as("of %s", String.join(" ", arguments)).isEmpty();
        assertThat(outcome.status()).isZero();
        return outcome;
    }

    @BeforeAll
    static void signIn() {
        assertThat(process("places", "--at", SERVICE.address().toString()))
                .isEqualTo(new Outcome(4, "", "pasture: you are not signed in; use 'pasture sign-in'\n"));
        assertThat(process("sign-in", "owner", "--at", SERVICE.address().toString())
                        .out())
                .isEqualTo("Signed in at " + SERVICE.address() + " as owner.\n");
    }

    @Test
    @Order(1)
    void helpReadsWellAndNamesEveryCommand() {
        Outcome help = ok("--help");
        assertThat(help.out())
                .contains(
                        "Asking a service:",
                        "On the machine itself:",
                        "Exit status: 0 done, 1 refused, 2 wrong options");
        for (String name : List.of(
                "sign-in",
                "sign-out",
                "places",
                "points",
                "readings",
                "gateways",
                "inlets",
                "outlets",
                "models",
                "devices",
                "frames",
                "alerts",
                "rules",
                "limits",
                "dashboards",
                "people",
                "groups",
                "find",
                "records")) {
            assertThat(help.out()).contains("  " + name + " ");
            assertThat(Pasture.commandLine().getSubcommands().get(name).getUsageMessage())
                    .contains("Usage")
                    .contains("--json");
        }
        assertThat(help.out()).contains("  radio ");
        assertThat(ok("radio", "steps", "--help").out()).contains("where it stops");
        assertThat(ok("generate-completion").out()).contains("complete -F");
    }

    @Test
    @Order(2)
    void aPlantIsRegisteredFromTheCommandLine() throws IOException {
        assertThat(ok("places").out()).isEqualTo("No places yet. Make one with 'pasture places add-site NAME'.\n");
        ok("places", "add-site", "Creamery", "--zone", "Europe/London");
        ok("places", "add-area", "Whey room", "--in", "Creamery");
        ok("places", "add-asset", "Whey pump", "--in", "whey room", "--kind", "pump", "--limits", Plant.PUMP_LIMITS);
        ok("gateways", "add", "Mast", "--eui", Plant.MAST, "--site", "Creamery");
        Path model = folder.resolve("model.json");
        Files.writeString(model, """
        {"name": "Sender", "description": "", "intervalSeconds": 10, "batteryChannel": null,
         "layout": {"messages": [{"port": 5, "fields": [{"channel": "v", "at": 0, "type": "u16", "scale": 0.01}]}]},
         "channels": [{"name": "v", "title": "Vibration", "quantity": "vibration-velocity", "unit": "mm/s"}]}""");
        ok("models", "add", model.toString());
        ok(
                "devices",
                "add",
                "Pump sender",
                "--model",
                "Sender",
                "--in",
                "Whey pump",
                "--eui",
                Plant.TANK_EUI,
                "--dev-addr",
                Plant.TANK_ADDR,
                "--nwk-s-key",
                Plant.TANK_NWK,
                "--app-s-key",
                Plant.TANK_APP,
                "--make-points");
        ok("points", "release", "Vibration");
        assertThat(ok("places").out()).contains("    Whey pump (pump)").contains("1 point");
        assertThat(ok("points", "--in", "Creamery").out()).contains("Whey pump", "Vibration", "never");
        assertThat(ok("devices").out()).contains("never-heard");
    }

    @Test
    @Order(3)
    void framesAndReadingsAreFollowedAsTheyCome() throws Exception {
        // Two, since the first that is seen may be the answer to an uplink that came before it looked.
        Process frames = command("frames", "tail", "--count", "2").start();
        Process readings = command("readings", "tail", "--count", "1", "--json").start();
        SimulatedGateway mast = SERVICE.gateway(Plant.MAST);
        SimulatedDevice radio = Plant.floatRadio();
        await().atMost(30, TimeUnit.SECONDS)
                .pollInterval(500, TimeUnit.MILLISECONDS)
                .until(() -> {
                    mast.hear(radio.uplink(5, new byte[] {0x02, 0x1c}, false), -77, 8, "SF7BW125", 868.1);
                    return !frames.isAlive() && !readings.isAlive();
                });
        String frame = new String(frames.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(frame).contains("ok", "Pump sender", "uplink", "Mast -77 dBm", "021c  v=5.4");
        JsonNode reading = JsonMapper.shared().readTree(readings.getInputStream());
        assertThat(reading.at("/latest/value").asDouble()).isEqualTo(5.4);
        assertThat(ok("points").out()).contains("5.40 mm/s", "|=| warning", "C");
        assertThat(ok("gateways").out()).contains("online");
    }

    @Test
    @Order(4)
    void anAlertIsListedAndAcknowledged() throws IOException {
        Path rule = folder.resolve("rule.json");
        String point = ok("points", "--json").json().path(0).path("id").asString();
        Files.writeString(
                rule,
                "{\"name\": \"Too high\", \"target\": {\"kind\": \"point\", \"pointId\": \"" + point
                        + "\"}, \"condition\": {\"kind\": \"above\", \"limit\": 5.45}, \"severity\": \"warning\"}");
        ok("rules", "add", rule.toString());
        assertThat(ok("rules").out()).contains("Too high", "above 5");
        SimulatedGateway mast = SERVICE.gateway(Plant.MAST);
        SimulatedDevice radio = Plant.floatRadio();
        for (int i = 0; i < 200; i++) {
            radio.uplink(5, new byte[2], false);
        }
        mast.hear(radio.uplink(5, new byte[] {0x02, 0x26}, false), -77, 8, "SF7BW125", 868.1);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> !SERVICE.owner().get("api/v1/alerts").isEmpty());
        String id = ok("alerts", "--json").json().path(0).path("id").asString();
        assertThat(ok("alerts").out()).contains("unacknowledged", "Whey pump: Vibration 5.5 mm/s, above 5.45 mm/s");
        assertThat(ok("alerts", "ack", id.substring(10), "-m", "tightened").out())
                .startsWith("Acknowledged: Whey pump");
        assertThat(ok("alerts").out()).contains("acknowledged", "owner");
        assertThat(run("alerts", "ack", id)).satisfies(again -> {
            assertThat(again.status()).isEqualTo(1);
            assertThat(again.err())
                    .isEqualTo("pasture: owner has acknowledged this alert already. You can still add a note.\n");
        });
    }

    @Test
    @Order(5)
    void readingsAreExportedAndImported() throws IOException {
        Path file = folder.resolve("out.csv");
        Outcome export = run("readings", "export", "Vibration", "--from", "1h", "-o", file.toString());
        assertThat(export.status()).isZero();
        assertThat(Files.readString(file))
                .startsWith("time (Europe/London),point,Whey pump: Vibration (mm/s),quality\r\n")
                .contains(",5.4,good");
        Path in = folder.resolve("in.csv");
        Files.writeString(in, "time,point,value\n2026-01-01T00:00:00Z,1,2.5\nnonsense,1,2\n");
        Outcome imported = run("readings", "import", in.toString());
        assertThat(imported.status()).as("something was refused").isEqualTo(1);
        assertThat(imported.out())
                .contains("Took 1 readings, refused 1 lines.", "line 3: Cannot read 'nonsense' as a time");
    }

    @Test
    @Order(6)
    void whatGoesWrongIsOneLineAndAnExitStatus() {
        assertThat(run("places", "--at", "http://127.0.0.1:1")).satisfies(unreachable -> {
            assertThat(unreachable.status()).isEqualTo(3);
            assertThat(unreachable.err())
                    .startsWith("pasture: nothing answers at http://127.0.0.1:1/")
                    .hasLineCount(1);
        });
        assertThat(run("points", "--nonsense")).satisfies(wrong -> {
            assertThat(wrong.status()).isEqualTo(2);
            assertThat(wrong.err()).contains("Unknown option: '--nonsense'", "Try 'pasture points --help'.");
        });
        assertThat(run("gateways", "add", "x", "--eui", "12", "--site", "Creamery"))
                .satisfies(bad -> {
                    assertThat(bad.status()).isEqualTo(2);
                    assertThat(bad.err()).isEqualTo("pasture: an EUI has 16 hex digits, '12' has 2\n");
                });
        assertThat(run("places", "add-area", "x", "--in", "nowhere").err())
                .isEqualTo("pasture: there is no place 'nowhere'\n");
        assertThat(run("sign-in", "owner", "--password", "wrong password").status())
                .isEqualTo(4);
    }

    @Test
    @Order(7)
    void signingOutIsForgottenEverywhere() {
        assertThat(ok("sign-out").out()).isEqualTo("Signed out.\n");
        assertThat(run("places").status()).isEqualTo(4);
    }

    @Test
    @Order(6)
    void recordsAreSummarizedKeptCheckedChangedAndBackedUp() {
        assertThat(ok("readings", "summary", "Vibration", "--from", "2d").out())
                .startsWith("Vibration, mm/s\nFrom")
                .contains("Time in zones", "C ");
        assertThat(ok("records").out()).contains(" readings in ", "free on the disk");
        assertThat(ok("records", "keep", "--detail", "365", "--quantity", "vibration-velocity")
                        .out())
                .containsPattern("vibration-velocity +365 days")
                .contains("Files of the day: off");
        assertThat(run("records", "keep", "--hours", "10").err()).contains("hours are kept at least as long");
        assertThat(ok("records", "check").out()).startsWith("All is well: ");

        String[] erase = {
            "readings",
            "erase",
            "Vibration",
            "--from",
            "2025-12-31T00:00:00Z",
            "--until",
            "2026-01-02T00:00:00Z",
            "--because",
            "typed in wrong"
        };
        assertThat(ok(Stream.concat(Stream.of(erase), Stream.of("--dry-run")).toArray(String[]::new))
                        .out())
                .isEqualTo("Would erase 1 reading.\n");
        assertThat(ok(erase).out()).isEqualTo("Erased 1 reading. Undo with 'pasture records undo 1'.\n");
        assertThat(ok("records", "changes").out()).contains("typed in wrong", "1 -> 0");
        assertThat(ok("records", "undo", "1").out()).isEqualTo("Undone: typed in wrong.\n");
        assertThat(run("records", "undo", "1").status()).isEqualTo(1);

        assertThat(ok("devices", "decode-again", "Sender", "--dry-run").out()).contains("0 readings would change");
        assertThat(ok("backup", "list").out()).startsWith("No backups yet.");
        String name = ok("backup", "now", "--json").json().path("name").asString();
        assertThat(ok("backup", "list").out()).contains(name);
        assertThat(ok("backup", "check", name).out()).startsWith("It is sound: ");
        ok("backup", "remove", name);
        assertThat(run("places", "track", "Whey pump").err()).contains("Whey pump has no latitude");
    }

    @Test
    @Order(6)
    void theRadioIsFollowedSentToAndSetFromTheCommandLine() throws IOException {
        assertThat(ok("radio", "steps", "Pump sender").out())
                .contains("First data")
                .contains("ok    A gateway is online");
        Path model = folder.resolve("valve.json");
        Files.writeString(model, """
        {"name": "Valve", "description": "", "intervalSeconds": 10, "batteryChannel": null, "listensAlways": true,
         "layout": {"messages": [{"port": 3, "fields": [{"channel": "open", "at": 0, "type": "u8"}]}]},
         "channels": [{"name": "open", "title": "Opening", "quantity": "opening", "unit": "%"}],
         "settings": [{"name": "opening", "title": "Opening", "unit": "%", "min": 0, "max": 100, "port": 20, "prefix": "0a", "type": "u8"}]}""");
        ok("models", "add", model.toString());
        Path keys = folder.resolve("keys.csv");
        Files.writeString(keys, "dev eui,app key\n02ab540000000909,00112233445566778899aabbccddeeff\n");
        assertThat(ok("radio", "keys", keys.toString()).out()).isEqualTo("Took 1 keys, refused 0 lines.\n");
        Path devices = folder.resolve("devices.csv");
        Files.writeString(
                devices,
                "name,dev eui,model,place\nDrain,02ab540000000909,Valve,Whey pump\nOther,02ab540000000910,Valve,Whey pump\n");
        Outcome dry = run("devices", "import", "--dry-run", devices.toString());
        assertThat(dry.status()).isEqualTo(1);
        assertThat(dry.out())
                .contains("Would take 1 devices, refused 1 lines.")
                .contains("line 3: ")
                .contains("the list of keys has none for 02ab540000000910");
        run("devices", "import", devices.toString());
        assertThat(ok("radio", "set", "opening=40", "Drain").out())
                .isEqualTo("Drain: Opening = 40 % is wanted (command 1).\n");
        assertThat(run("radio", "set", "opening=140", "Drain").err()).contains("Opening is 0 to 100 %, not 140");
        assertThat(ok("radio", "sent", "Drain").out()).contains("wanted").contains("waits until the device listens");
        assertThat(ok("radio", "sent", "Drain", "--take-back", "1").out()).contains("cancelled");
        ok("radio", "send", "Drain", "0a 05", "--port", "20", "--unconfirmed");
        assertThat(ok("radio", "signal", "Drain").out()).isEqualTo("No data was heard from it yet.\n");
        assertThat(ok("devices", "key", "Drain", "ff".repeat(16)).out()).contains("its next join request is awaited");
        assertThat(ok("gateways", "show", "Mast").out()).contains("Mast, ").contains("ration of air");
        assertThat(ok("gateways", "token", "Mast").out()).containsPattern("shown only now: [0-9a-f]{48}");
        assertThat(ok("radio", "try", "Sender").out()).contains("as before, 0 otherwise");
        assertThat(ok("radio", "band", "us915", "--sub-band", "2").out()).isEqualTo("The band is us915, sub-band 2.\n");
        assertThat(ok("radio", "band", "eu868").out()).isEqualTo("The band is eu868.\n");
    }

    private static String json(String command) {
        return ok(command, "--json").out().replaceAll("\\s", "");
    }

    @Test
    @Order(6)
    void anInletIsMadeTriedPausedAndRemovedFromTheCommandLine() throws Exception {
        assertThat(ok(
                                "inlets",
                                "add",
                                "Loft relay",
                                "--site",
                                "Creamery",
                                "--inbox",
                                "--form",
                                "json",
                                "--address",
                                "json:$.mac")
                        .out())
                .startsWith("Made Loft relay: /in/…, up. Senders can post to it.\n")
                .contains("/in/", "Authorization: Bearer", "shown only now");
        assertThat(ok("inlets", "add", "Bridge", "--site", "Creamery", "--tcp", "0", "--address", "column:0")
                        .out())
                .contains("up. Nobody is connected.");
        assertThat(ok("inlets").out()).contains("Loft relay", "TCP port");
        assertThat(ok("inlets", "try", "Bridge", "--text", "WS2;8.4").out())
                .contains("address  WS2", "No device at this inlet has this address.", "could be  value_1=8.4");
        assertThat(ok("inlets", "strangers", "Bridge").out()).isEqualTo("Everybody who was heard there is known.\n");
        assertThat(ok("inlets", "polls", "Bridge").out()).startsWith("No device is asked by this inlet.");
        assertThat(ok("inlets", "pause", "Bridge").out()).isEqualTo("Bridge is paused.\n");
        ok("devices", "add", "Mast", "--model", "Sender", "--in", "Creamery", "--inlet", "Bridge", "--address", "WS2");
        assertThat(ok("devices").out()).contains("WS2");
        assertThat(run("inlets", "remove", "Bridge")).satisfies(refused -> {
            assertThat(refused.status()).isEqualTo(1);
            assertThat(refused.err()).contains("1 device speaks by 'Bridge': Mast.");
        });
        assertThat(run("devices", "add", "x", "--model", "Sender", "--in", "Creamery")
                        .err())
                .contains("give either --eui");
        assertThat(run("inlets", "add", "x", "--site", "Creamery", "--inbox", "--address", "pillar:3")
                        .err())
                .contains("tells no place in a message");
        assertThat(ok("inlets", "change", "Bridge", "--name", "Yard bridge", "--udp", "0", "--keep-every", "30")
                        .out())
                .startsWith("Changed Yard bridge: UDP port ");
        assertThat(ok("inlets", "change", "Loft relay", "--each", "$.adverts[*]", "--signal", "json:$.rssi")
                        .out())
                .startsWith("Changed Loft relay: /in/…, up.");
        assertThat(json("inlets"))
                .as("what was not told stays")
                .contains(
                        "\"address\":\"json:$.mac\"",
                        "\"each\":\"$.adverts[*]\"",
                        "\"signal\":\"json:$.rssi\"",
                        "\"kind\":\"udp\"",
                        "\"keepEverySeconds\":30");
        assertThat(ok("inlets", "change", "Loft relay", "--each", "").out()).startsWith("Changed Loft relay");
        assertThat(json("inlets")).doesNotContain("$.adverts");
        assertThat(run("inlets", "change", "Loft relay", "--modbus", "--form", "json")
                        .err())
                .contains("these devices are asked");
        ok("inlets", "remove", "Loft relay");
    }

    @Test
    @Order(6)
    void anOutletIsMadeAndChangedFromTheCommandLine() throws Exception {
        assertThat(ok(
                                "outlets",
                                "add",
                                "Office",
                                "--site",
                                "Creamery",
                                "--post",
                                "https://office.example/take",
                                "--quantity",
                                "temperature",
                                "--secret",
                                "signing-key=hush")
                        .out())
                .startsWith("Made Office: https://office.example/take.");
        assertThat(ok("outlets", "pause", "Office").out()).startsWith("Office is paused");
        assertThat(ok("outlets", "change", "Office", "--name", "Dairy office", "--no-alerts", "--senml")
                        .out())
                .startsWith("Changed Dairy office: https://office.example/take.");
        assertThat(json("outlets"))
                .contains(
                        "\"readings\":true",
                        "\"alerts\":false",
                        "\"form\":\"senml\"",
                        "\"quantities\":[\"temperature\"]",
                        "\"signing-key\"",
                        "\"state\":\"paused\"");
        assertThat(ok(
                                "outlets",
                                "change",
                                "Dairy office",
                                "--mqtt",
                                "mqtts://broker.example:8883,harrow/{point}",
                                "--retained",
                                "--user",
                                "dairy")
                        .out())
                .startsWith("Changed Dairy office: broker.example:8883, harrow/{point}.");
        assertThat(ok("outlets", "change", "Dairy office", "--alerts").out()).startsWith("Changed");
        assertThat(ok("outlets").out()).contains("Dairy office", "readings, alerts", "paused");
        assertThat(json("outlets")).contains("\"username\":\"dairy\"", "\"retained\":true");
        ok("outlets", "remove", "Dairy office");
    }

    @Test
    @Order(6)
    void theSameVerbsStandUnderEveryNoun() throws IOException {
        ok("places", "add-site", "Verb farm");
        ok("places", "add-asset", "Verb barn", "--in", "Verb farm", "--kind", "barn");
        ok("points", "add", "Verb air", "--in", "Verb barn", "--quantity", "temperature", "--tag", "Winter watch");
        assertThat(ok("points", "--tag", "winter watch").out()).contains("Verb air");
        assertThat(ok("points", "--tag", "summer").out()).isEqualTo("No points here.\n");
        String board = ok("dashboards", "add", "Verb board", "--for", "cold-chain", "--in", "Verb barn")
                .out();
        assertThat(board).startsWith("Made with 6 panels: http").contains("/dashboards/");
        assertThat(run("dashboards", "add", "Odd", "--for", "fun", "--in", "Verb barn")
                        .err())
                .contains("no purpose 'fun'; there are commissioning, machine, cold-chain, barn, remote-site");
        assertThat(run("places", "remove", "Verb barn").err()).contains("1 point", "1 dashboard");
        ok("dashboards", "remove", "Verb board");
        Path file = folder.resolve("verb-rule.json");
        Files.writeString(file, """
                {"name": "Verb barns too warm", "severity": "warning",
                 "target": {"kind": "selection", "placeId": "%s", "quantity": "temperature", "tag": "winter watch"},
                 "measure": {"kind": "mean", "seconds": 3600}, "condition": {"kind": "above", "limit": 25}}
                """.formatted(
                        ok("places", "show", "Verb farm").json().path("id").asString()));
        assertThat(ok("rules", "try", file.toString(), "--days", "2").out()).startsWith("0 alerts in 0 readings.");
        ok("rules", "add", file.toString());
        assertThat(ok("rules").out()).contains("mean over 1 h 0 min above 25");
        assertThat(ok("rules", "show", "Verb barns").json().path("deadBand").asDouble())
                .isZero();
        Files.writeString(file, Files.readString(file).replace("\"limit\": 25", "\"limit\": 27"));
        assertThat(ok("rules", "change", "Verb barns", file.toString()).out())
                .isEqualTo("Changed Verb barns too warm.\n");
        assertThat(ok("rules", "try", "Verb barns too warm").out()).startsWith("0 alerts");
        assertThat(run("rules", "remove", "Verb barns").err()).contains("enter its full name: 'Verb barns too warm'");
        assertThat(ok("rules", "remove", "Verb barns too warm").out())
                .isEqualTo("The rule 'Verb barns too warm' is removed.\n");
        assertThat(run("places", "remove", "Verb barn").err()).contains("still in use: 1 point");
        ok("points", "remove", "Verb air");
        ok("places", "remove", "Verb barn");
        assertThat(run("limits", "remove", "nothing such").err()).contains("there is no limit set");
        String token = ok("tokens", "add", "Wall", "--on", "Verb farm").out().strip();
        assertThat(token).matches("[\\w-]{20,}");
        assertThat(ok("tokens").out()).contains("Wall", "look", "Verb farm", "never");
        assertThat(ok("tokens", "remove", "Wall").out()).isEqualTo("The token 'Wall' is withdrawn.\n");
        assertThat(ok("trail", "--limit", "5").out()).contains("owner", "withdrawn: Wall");
        ok("people", "invite", "Vera", "--on", "Verb farm");
        assertThat(ok("people", "invitations").out()).contains("Vera", "look", "Verb farm");
        ok("people", "uninvite", "Vera");
        assertThat(ok("people", "invitations").out()).isEqualTo("No open invitations.\n");
        assertThat(ok("groups").out()).isEqualTo("No groups.\n");
        assertThat(ok("groups", "add", "Night shift", "--with", "owner").out()).contains("has 1 member");
        ok("groups", "grant", "Night shift", "--on", "Verb farm", "--right", "operate");
        assertThat(ok("groups").out()).contains("Night shift", "owner", "operate on Verb farm");
        assertThat(ok("groups", "change", "Night shift", "--without", "owner").out())
                .contains("has 0 members");
        ok("groups", "revoke", "Night shift", "--on", "Verb farm");
        ok("groups", "remove", "Night shift");
        assertThat(ok("find", "verb").out()).contains("Verb farm", "site");
    }

    @Test
    @Order(5)
    void manyPointsAreChangedInASpreadsheet() throws IOException {
        ok("places", "add-site", "Table farm");
        for (String name : List.of("Table one", "Table two", "Table three")) {
            ok("points", "add", name, "--in", "Table farm", "--quantity", "temperature");
        }
        Path file = folder.resolve("points.csv");
        assertThat(run("points", "table", "--in", "Table farm", "-o", file.toString())
                        .err())
                .contains("points apply");
        String text = Files.readString(file);
        assertThat(text.lines().findFirst().orElseThrow())
                .isEqualTo("\"id\",\"name\",\"place\",\"limits\",\"direction\",\"tags\",\"decimals\",\"note\","
                        + "\"released\",\"number\",\"quantity\",\"unit\"");
        // As a spreadsheet writes it: with a byte order mark, and some other line ends.
        String changed = "\uFEFF"
                + text.replace("Table one", "=Table 1")
                        .replace("\"no\"", "\"yes\"")
                        .replace("\r\n", "\n");
        Files.writeString(file, changed);
        Outcome dry = ok("points", "apply", file.toString(), "--dry-run");
        assertThat(dry.out())
                .contains("Table one", "=Table 1")
                .containsPattern("Table two +released +no +yes")
                .contains("3 of 3 points would change.");
        assertThat(ok("points", "--in", "Table farm").out()).contains("not released");
        assertThat(ok("points", "apply", file.toString()).out()).contains("3 of 3 points are changed.");
        assertThat(ok("points", "--in", "Table farm").out())
                .contains("=Table 1")
                .doesNotContain("not released");
        run("points", "table", "--in", "Table farm", "-o", file.toString());
        assertThat(file)
                .as("no cell begins a formula, and it is read back as it was")
                .content()
                .contains("\"'=Table 1\"");
        assertThat(ok("points", "apply", file.toString()).out()).contains("Nothing changes.");

        // As a spreadsheet in Germany writes it: semicolons, and a code page of its own.
        Files.write(
                file,
                Files.readString(file)
                        .replace("\",\"", "\";\"")
                        .replace("Table three", "Kühlung")
                        .getBytes(Charset.forName("windows-1252")));
        assertThat(ok("points", "apply", file.toString()).out()).contains("Kühlung", "1 of 3 points are changed.");

        run("points", "table", "--in", "Table farm", "-o", file.toString());
        Files.writeString(
                file, Files.readString(file).replace("Table two", "Second").replace("\"Table farm\"", "\"Moon\""));
        Outcome refused = run("points", "apply", file.toString(), "--dry-run");
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.err()).contains("There is no place 'Moon'");
        assertThat(run("points", "apply", file.toString()).err())
                .contains("3 rows of 3 cannot be changed, so nothing was");
        assertThat(ok("points", "--in", "Table farm").out()).contains("Table two");
    }
}
