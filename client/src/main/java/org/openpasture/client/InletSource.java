package org.openpasture.client;

import java.net.URI;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.inlet.SerialLine;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import picocli.CommandLine.Option;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Where the messages of an inlet come from: one of these options. */
final class InletSource {
    private static final int USUAL_SECONDS = 60;
    private static final int USUAL_BAUD = 9_600;

    @Option(names = "--tcp", paramLabel = "PORT", description = "A TCP port of the service that senders connect to.")
    private @Nullable Integer tcp;

    @Option(names = "--udp", paramLabel = "PORT", description = "A UDP port of the service.")
    private @Nullable Integer udp;

    @Option(names = "--serial", paramLabel = "DEVICE[,BAUD]", description = "A serial port, as in /dev/ttyUSB0,9600.")
    private @Nullable String serial;

    @Option(names = "--inbox", description = "An address of the service that senders post to by HTTP.")
    private boolean inbox;

    @Option(
            names = "--fetch",
            paramLabel = "URL[,SECONDS]",
            description = "An address that is fetched again and again; default every 60 s.")
    private @Nullable String fetch;

    @Option(
            names = "--mqtt",
            paramLabel = "URL,TOPIC[,TOPIC]",
            description = "Topics of a broker: mqtt://host:1883,farm/{serial}/state.")
    private @Nullable String mqtt;

    @Option(
            names = "--broker",
            paramLabel = "TOPIC[,TOPIC]",
            description = "Topics of the broker inside this service: farm/{serial}/state.")
    private @Nullable String broker;

    @Option(
            names = "--bacnet",
            paramLabel = "ADDRESS",
            arity = "0..1",
            fallbackValue = "",
            description =
                    "Building controllers by BACnet/IP; asked at this address who is there, or everywhere. Each has the number of its device object as address.")
    private @Nullable String bacnet;

    @Option(names = "--modbus", description = "Modbus TCP devices; each has an address host:port/unit.")
    private boolean modbus;

    @Option(
            names = "--modbus-serial",
            paramLabel = "DEVICE[,BAUD]",
            description = "Modbus RTU devices on a serial line; each has a unit number.")
    private @Nullable String modbusSerial;

    @Option(
            names = "--modbus-rtu",
            paramLabel = "HOST:PORT",
            description = "Modbus RTU devices behind a server of serial lines; each has a unit number.")
    private @Nullable String modbusRtu;

    /**
     * The source that is meant.
     *
     * @param was the one before; what no option tells stays as it is there, where it is of the same kind
     */
    Source source(@Nullable Source was) {
        Source given = Stream.of(
                        made(tcp, port -> new Source.TcpPort(port, null)),
                        made(udp, port -> new Source.UdpPort(port, null)),
                        made(
                                serial,
                                text -> new Source.SerialPort(
                                        line(text, was instanceof Source.SerialPort old ? old.line() : null))),
                        made(
                                fetch,
                                text -> fetch(
                                        text,
                                        was instanceof Source.HttpFetch old ? old.everySeconds() : USUAL_SECONDS)),
                        made(mqtt, InletSource::mqtt),
                        made(broker, text -> new Source.OwnBroker(topics(List.of(text.split(","))))),
                        made(
                                bacnet,
                                at -> new Source.BacnetIp(
                                        null, null, at.isEmpty() ? List.of() : List.of(at.split(",")), null)),
                        modbus ? new Source.ModbusTcp(null) : null,
                        made(
                                modbusSerial,
                                text -> new Source.ModbusSerial(
                                        line(text, was instanceof Source.ModbusSerial old ? old.line() : null), null)),
                        made(modbusRtu, InletSource::rtu))
                .filter(Objects::nonNull)
                .findFirst()
                .orElseGet(Source.HttpInbox::new);
        return was == null ? given : over(was, given, Source.class);
    }

    private static <T> @Nullable Source made(@Nullable T told, Function<T, Source> of) {
        return told == null ? null : of.apply(told);
    }

    /** What is told of the one, and what it leaves open from the other, if both are of a kind. */
    static <T> T over(T was, T given, Class<T> type) {
        ObjectNode merged = JsonMapper.shared().valueToTree(was);
        ObjectNode told = JsonMapper.shared().valueToTree(given);
        if (!merged.path("kind").equals(told.path("kind"))) {
            return given;
        }
        told.properties().stream()
                .filter(one -> !one.getValue().isNull())
                .forEach(one -> merged.set(one.getKey(), one.getValue()));
        return JsonMapper.shared().treeToValue(merged, type);
    }

    /** The part behind the last comma, if it is a number. */
    private static @Nullable Integer lastNumber(String text) {
        String last = text.substring(text.lastIndexOf(',') + 1).strip();
        return text.contains(",") && last.matches("\\d{1,7}") ? Integer.valueOf(last) : null;
    }

    private static Source fetch(String text, int otherwise) {
        Integer told = lastNumber(text);
        return new Source.HttpFetch(
                URI.create(told == null ? text : text.substring(0, text.lastIndexOf(','))),
                told == null ? otherwise : told,
                null);
    }

    private static Source mqtt(String text) {
        List<String> parts = List.of(text.split(","));
        return new Source.MqttBroker(URI.create(parts.getFirst()), topics(parts.subList(1, parts.size())), null, null);
    }

    private static List<TopicPattern> topics(List<String> texts) {
        return texts.stream().map(TopicPattern::new).toList();
    }

    private static Source rtu(String text) {
        int colon = text.lastIndexOf(':');
        if (colon < 1 || !text.substring(colon + 1).matches("\\d{1,5}")) {
            throw new IllegalArgumentException("'" + text + "' is no host and port, such as 192.0.2.7:502");
        }
        return new Source.ModbusRtuOverTcp(text.substring(0, colon), Integer.parseInt(text.substring(colon + 1)), null);
    }

    private static SerialLine line(String text, @Nullable SerialLine was) {
        Integer baud = lastNumber(text);
        if (baud == null && text.contains(",")) {
            throw new IllegalArgumentException(
                    "'" + text.substring(text.lastIndexOf(',') + 1) + "' is no speed of a serial port, such as 9600");
        }
        String device = baud == null
                ? text.strip()
                : text.substring(0, text.lastIndexOf(',')).strip();
        return was == null
                ? SerialLine.of(device, baud == null ? USUAL_BAUD : baud)
                : new SerialLine(
                        device, baud == null ? was.baud() : baud, was.dataBits(), was.parity(), was.stopBits());
    }
}
