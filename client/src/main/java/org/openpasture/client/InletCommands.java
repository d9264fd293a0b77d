package org.openpasture.client;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.PollingRequest;
import org.openpasture.api.inlet.SetRequest;
import org.openpasture.api.inlet.TrialRequest;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Locator;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.layout.JsonPath;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Inlets: the ways in for devices that are no LoRaWAN ones. */
@Command(name = "inlets", mixinStandardHelpOptions = true, description = "Ways in: ports, serial lines, inboxes; how each is and what it brought.")
final class InletCommands implements Runnable {
  private static final int REFUSALS_SHOWN = 3;
  @Mixin private Service service;

  @Override
  public void run() {
    JsonNode inlets = service.api().get("api/v1/inlets");
    if (service.printedJson(inlets)) {
      return;
    }
    Instant now = Instant.now();
    TextTable table = new TextTable("Inlet", "Where", "State", "Last", "Frames", "Refused", "Lost", "Thinned", "Devices", "Unknown");
    inlets.forEach(inlet -> table.row(inlet.path("name").asString(), inlet.path("address").asString(), inlet.path("state").asString(),
        inlet.path("id").isString() ? Words.age(inlet.path("lastAt"), now) : "", inlet.path("received").asString(), inlet.path("refused").asString(), inlet.path("lost").asString(),
        inlet.path("thinned").asString(), inlet.path("id").isString() ? inlet.path("devices").asString() : "", inlet.path("strangers").asString()));
    service.out().print(table.text());
    inlets.forEach(inlet -> {
      if (!inlet.path("state").asString().equals("up")) {
        service.out().println("\n" + inlet.path("name").asString() + ": " + inlet.path("reason").asString());
      }
      inlet.path("refusals").valueStream().limit(inlet.path("id").isString() ? REFUSALS_SHOWN : 0).forEach(one -> service.out().println("\n"
          + inlet.path("name").asString() + ", " + Words.age(one.path("time"), now) + ", " + one.path("sender").asString() + ": " + one.path("reason").asString()));
    });
  }

  static String id(Service service, String meant) {
    List<JsonNode> made = service.api().get("api/v1/inlets").valueStream().filter(inlet -> inlet.path("id").isString()).toList();
    return Service.pick(JsonMapper.shared().valueToTree(made), meant, "inlet").path("id").asString();
  }

  /** Where messages come from: one of these. */
  static final class From {
    @Option(names = "--tcp", paramLabel = "PORT", description = "A TCP port of the service that senders connect to.")
    private @Nullable Integer tcp;

    @Option(names = "--udp", paramLabel = "PORT", description = "A UDP port of the service.")
    private @Nullable Integer udp;

    @Option(names = "--serial", paramLabel = "DEVICE[,BAUD]", description = "A serial port, as in /dev/ttyUSB0,9600.")
    private @Nullable String serial;

    @Option(names = "--inbox", description = "An address of the service that senders post to by HTTP.")
    private boolean inbox;

    @Option(names = "--fetch", paramLabel = "URL[,SECONDS]", description = "An address that is fetched again and again; every 60 s if not told.")
    private @Nullable String fetch;

    @Option(names = "--mqtt", paramLabel = "URL,TOPIC[,TOPIC]", description = "Topics of a broker: mqtt://host:1883,farm/{serial}/state.")
    private @Nullable String mqtt;

    @Option(names = "--broker", paramLabel = "TOPIC[,TOPIC]", description = "Topics of the broker inside this service: farm/{serial}/state.")
    private @Nullable String broker;

    @Option(names = "--bacnet", paramLabel = "ADDRESS", arity = "0..1", fallbackValue = "",
        description = "Building controllers by BACnet/IP; asked at this address who is there, or everywhere. Each has the number of its device object as address.")
    private @Nullable String bacnet;

    @Option(names = "--modbus", description = "Modbus TCP devices; each has an address host:port/unit.")
    private boolean modbus;

    @Option(names = "--modbus-serial", paramLabel = "DEVICE[,BAUD]", description = "Modbus RTU devices on a serial line; each has a unit number.")
    private @Nullable String modbusSerial;

    Source source() {
      return Stream.of(source(tcp, port -> new Source.TcpPort(port, null)), source(udp, port -> new Source.UdpPort(port, null)),
          source(serial, line -> new Source.SerialPort(serial(line))), source(fetch, InletCommands::fetch), source(mqtt, InletCommands::broker), source(broker, topics -> new Source.OwnBroker(topics(List.of(topics.split(","))))),
          source(bacnet, at -> new Source.BacnetIp(null, null, at.isEmpty() ? List.of() : List.of(at.split(",")), null)),
          source(modbusSerial, line -> new Source.ModbusSerial(serial(line), null)), modbus ? new Source.ModbusTcp(null) : null).filter(Objects::nonNull).findFirst().orElseGet(Source.HttpInbox::new);
    }

    private static <T> @Nullable Source source(@Nullable T given, java.util.function.Function<T, Source> of) {
      return given == null ? null : of.apply(given);
    }
  }

  private static Source fetch(String text) {
    int comma = text.lastIndexOf(',');
    boolean told = comma > 0 && text.substring(comma + 1).matches("\\d{1,5}");
    return new Source.HttpFetch(URI.create(told ? text.substring(0, comma) : text), told ? Integer.parseInt(text.substring(comma + 1)) : 60, true);
  }

  private static Source broker(String text) {
    List<String> parts = List.of(text.split(","));
    return new Source.MqttBroker(URI.create(parts.getFirst()), topics(parts.subList(1, parts.size())), null, null);
  }

  private static List<TopicPattern> topics(List<String> texts) {
    return texts.stream().map(TopicPattern::new).toList();
  }

  private static SerialLine serial(String text) {
    String[] parts = text.split(",", 2);
    if (parts.length > 1 && !parts[1].strip().matches("\\d{2,7}")) {
      throw new IllegalArgumentException("'" + parts[1] + "' is no speed of a serial port, such as 9600");
    }
    return SerialLine.of(parts[0].strip(), parts.length > 1 ? Integer.parseInt(parts[1].strip()) : 9_600);
  }

  @Command(name = "add", mixinStandardHelpOptions = true, description = "Make an inlet. What its devices send is read by their models.")
  int add(@Mixin Service to, @Parameters(paramLabel = "NAME") String name,
      @Option(names = "--site", paramLabel = "SITE", required = true, description = "Whose inlet it is.") String site,
      @ArgGroup(multiplicity = "1") From from,
      @Option(names = "--form", paramLabel = "FORM", defaultValue = "text", description = "What a message is: text, csv, json, senml, bytes (${DEFAULT-VALUE}).") String form,
      @Option(names = "--address", paramLabel = "WHERE", description = "Where the sender's address stands: column:0, json:$.mac, bytes:1+4, header:x-device, sender, "
          + "fixed:mast.") @Nullable String address,
      @Option(names = "--separator", paramLabel = "TEXT", description = "Between the columns of text; ; if not given.") @Nullable String separator,
      @Option(names = "--each", paramLabel = "PATH", description = "Path to the parts of a JSON message that stand for one device each.") @Nullable String each,
      @Option(names = "--payload", paramLabel = "WHERE", description = "Where the part for the device's model stands; else all of it.") @Nullable String payload,
      @Option(names = "--encoding", paramLabel = "NAME", description = "How that part is written: plain, hex, base64.") @Nullable String encoding,
      @Option(names = "--time", paramLabel = "WHERE", description = "Where the time of sending stands.") @Nullable String time,
      @Option(names = "--signal", paramLabel = "WHERE", description = "Where the strength stands with which a relay heard it, in dBm.") @Nullable String signal,
      @Option(names = "--framing", paramLabel = "FILE", description = "How frames follow one another, as JSON (see docs/inlets.md); else lines for text.") @Nullable Path framing,
      @Option(names = "--secret", paramLabel = "NAME=VALUE", description = "A header of a fetched address, or password=… of a broker; encrypted, never shown again.")
      @Nullable Map<String, String> secrets,
      @Option(names = "--keep-every", paramLabel = "SECONDS", description = "Keep a frame of each device only so often.") @Nullable Integer keepEvery) throws IOException {
    Source source = from.source();
    Contents contents = source instanceof Source.Polled ? null : new Contents(Contents.Form.of(form), address == null ? null : Locator.of(address), separator, each == null ? null : JsonPath.of(each),
        payload == null ? null : Locator.of(payload), encoding == null ? null : Contents.Encoding.of(encoding), time == null ? null : Locator.of(time),
        signal == null ? null : Locator.of(signal));
    JsonNode made = to.api().post("api/v1/inlets", new InletRequest(name, PlaceCommands.id(to, site), source, framing == null ? null : framing(framing), contents,
        keepEvery, secrets));
    if (to.printedJson(made)) {
      return 0;
    }
    JsonNode inlet = made.path("inlet");
    to.out().println("Made " + inlet.path("name").asString() + ": " + inlet.path("address").asString() + ", " + inlet.path("state").asString() + ". "
        + inlet.path("reason").asString());
    if (made.path("token").isString()) {
      tellToken(to, inlet.path("kind").asString(), made.path("token").asString());
    }
    return 0;
  }

  private static Framing framing(Path file) throws IOException {
    try {
      return JsonMapper.shared().readValue(Files.readString(file), Framing.class);
    } catch (JacksonException e) {
      throw new IllegalArgumentException(file + " describes no framing: " + e.getOriginalMessage(), e);
    }
  }

  private static void tellToken(Service to, String kind, String token) {
    if (kind.equals("own-broker")) {
      to.out().println("Senders sign in to the broker with any name and the password " + token);
      to.out().println("It is shown only now.");
      return;
    }
    to.out().println("Senders post to " + to.address() + "in/" + token);
    to.out().println("or to " + to.address() + "in with the header 'Authorization: Bearer " + token + "'.");
    to.out().println("The token is shown only now.");
  }

  @Command(name = "pause", mixinStandardHelpOptions = true, description = "Take nothing by an inlet until it is resumed.")
  int pause(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    return told(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/pause", Map.of()));
  }

  @Command(name = "resume", mixinStandardHelpOptions = true, description = "Go on with a paused inlet.")
  int resume(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    return told(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/resume", Map.of()));
  }

  private static int told(Service to, JsonNode inlet) {
    if (!to.printedJson(inlet)) {
      String state = inlet.path("state").asString();
      to.out().println(inlet.path("name").asString() + " is " + state + "." + (state.equals("paused") ? "" : " " + inlet.path("reason").asString()));
    }
    return 0;
  }

  @Command(name = "remove", mixinStandardHelpOptions = true, description = "Remove an inlet that no device speaks by.")
  int remove(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    to.api().delete("api/v1/inlets/" + id(to, inlet));
    to.out().println("Removed.");
    return 0;
  }

  @Command(name = "token", mixinStandardHelpOptions = true, description = "Make another token for an inbox, or password for our broker; the one before works for a week more.")
  int token(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    JsonNode made = to.api().post("api/v1/inlets/" + id(to, inlet) + "/token", Map.of());
    if (!to.printedJson(made)) {
      tellToken(to, to.api().get("api/v1/inlets/" + id(to, inlet)).path("kind").asString(), made.path("token").asString());
      if (made.path("oldWorksUntil").isString()) {
        to.out().println("The one before works until " + Words.moment(made.path("oldWorksUntil")) + ".");
      }
    }
    return 0;
  }

  @Command(name = "polls", mixinStandardHelpOptions = true, description = "Devices that an inlet asks: how often, how long a round takes, what went wrong.")
  int polls(@Mixin Service from, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    JsonNode polls = from.api().get("api/v1/inlets/" + id(from, inlet) + "/polls");
    if (from.printedJson(polls)) {
      return 0;
    }
    Instant now = Instant.now();
    TextTable table = new TextTable("Device", "Address", "Every", "Asked", "Took", "Late", "Read");
    polls.forEach(one -> table.row(one.path("deviceName").asString(), one.path("address").asString(), one.path("everySeconds").asString() + " s",
        one.path("paused").asBoolean() ? "paused" : Words.age(one.path("at"), now), one.path("tookMillis").asString() + " ms",
        one.path("late").asString() + " of " + one.path("rounds").asString(), one.path("values").asString()));
    from.out().print(table.isEmpty() ? "No device is asked by this inlet. Bring one in with 'pasture devices add --inlet'.\n" : table.text());
    polls.forEach(one -> {
      if (!one.path("problem").asString("").isEmpty()) {
        from.out().println("\n" + one.path("deviceName").asString() + ": " + one.path("problem").asString() + ".");
      }
    });
    return 0;
  }

  @Command(name = "poll", mixinStandardHelpOptions = true, description = "Change how often a device is asked, or stop and go on asking it.")
  int poll(@Mixin Service to, @Parameters(paramLabel = "DEVICE", description = "Name, address or id.") String device,
      @Option(names = "--every", paramLabel = "SECONDS", description = "Else as its model says.") @Nullable Integer every,
      @Option(names = "--stop", description = "Do not ask it for now.") boolean stop) {
    JsonNode found = Service.pick(to.api().get("api/v1/devices"), device, "device");
    JsonNode poll = to.api().put("api/v1/devices/" + found.path("id").asString() + "/polling", new PollingRequest(stop, every));
    if (!to.printedJson(poll)) {
      to.out().println(poll.path("deviceName").asString() + (stop ? " is not asked for now." : " is asked every " + poll.path("everySeconds").asString() + " s."));
    }
    return 0;
  }

  @Command(name = "set", mixinStandardHelpOptions = true, description = "Set a channel of a device that is asked, such as a fan or a set point.")
  int set(@Mixin Service to, @Parameters(paramLabel = "DEVICE", description = "Name, address or id.") String device,
      @Parameters(paramLabel = "CHANNEL") String channel,
      @Parameters(paramLabel = "VALUE", arity = "0..1", description = "Without it the channel is let go, where the controller knows who else wants what.") @Nullable Double value) {
    JsonNode found = Service.pick(to.api().get("api/v1/devices"), device, "device");
    JsonNode after = to.api().put("api/v1/devices/" + found.path("id").asString() + "/channels/" + channel, new SetRequest(value));
    if (!to.printedJson(after)) {
      to.out().println(found.path("name").asString() + " did it, and holds " + after.path("values").asString() + " now.");
    }
    return 0;
  }

  @Command(name = "look", mixinStandardHelpOptions = true, description = "Ask building controllers who is there; lists who is not registered.")
  int look(@Mixin Service to, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    return list(to, to.api().post("api/v1/inlets/" + id(to, inlet) + "/look", Map.of()));
  }

  @Command(name = "strangers", mixinStandardHelpOptions = true, description = "Addresses that were heard at an inlet and belong to no device.")
  int strangers(@Mixin Service from, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet) {
    return list(from, from.api().get("api/v1/inlets/" + id(from, inlet) + "/strangers"));
  }

  private static int list(Service from, JsonNode strangers) {
    if (from.printedJson(strangers)) {
      return 0;
    }
    Instant now = Instant.now();
    TextTable table = new TextTable("Address", "Heard", "Messages", "The newest");
    strangers.forEach(one -> table.row(one.path("address").asString(), Words.age(one.path("lastHeard"), now), one.path("count").asString(),
        one.path("newest").asString()));
    from.out().print(table.isEmpty() ? "Everybody who was heard there is known.\n" : table.text());
    return 0;
  }

  @Command(name = "try", mixinStandardHelpOptions = true, description = "Say what an inlet makes of a message, or of the newest that came; nothing is kept of it.")
  int tryOut(@Mixin Service from, @Parameters(paramLabel = "INLET", description = "Name or id.") String inlet,
      @Option(names = "--text", paramLabel = "MESSAGE") @Nullable String text, @Option(names = "--hex", paramLabel = "DIGITS") @Nullable String hex) {
    JsonNode trial = from.api().post("api/v1/inlets/" + id(from, inlet) + "/try", new TrialRequest(text, hex, null));
    if (from.printedJson(trial)) {
      return 0;
    }
    from.out().println(trial.path("message").asString());
    trial.path("parts").forEach(part -> {
      Map<String, String> lines = new LinkedHashMap<>();
      lines.put("address", part.path("address").asString("") + (part.path("deviceName").isString() ? " (" + part.path("deviceName").asString() + ")" : ""));
      lines.put("payload", part.path("payload").asString(""));
      lines.put("values", part.path("values").asString(""));
      lines.put("problem", part.path("problem").asString(""));
      lines.put("could be", part.path("proposal").path("example").asString(""));
      lines.forEach((name, value) -> {
        if (!value.isBlank()) {
          from.out().println("  " + name + "  " + value);
        }
      });
    });
    return 0;
  }
}
