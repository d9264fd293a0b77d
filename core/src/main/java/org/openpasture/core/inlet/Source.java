package org.openpasture.core.inlet;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.net.URI;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.text.WebAddress;

/** Where an inlet gets its messages from. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Source.TcpPort.class, name = "tcp"),
    @JsonSubTypes.Type(value = Source.UdpPort.class, name = "udp"),
    @JsonSubTypes.Type(value = Source.SerialPort.class, name = "serial"),
    @JsonSubTypes.Type(value = Source.HttpInbox.class, name = "http-inbox"),
    @JsonSubTypes.Type(value = Source.HttpFetch.class, name = "http-fetch"),
    @JsonSubTypes.Type(value = Source.MqttBroker.class, name = "mqtt"),
    @JsonSubTypes.Type(value = Source.OwnBroker.class, name = "own-broker"),
    @JsonSubTypes.Type(value = Source.ModbusTcp.class, name = "modbus-tcp"),
    @JsonSubTypes.Type(value = Source.ModbusRtuOverTcp.class, name = "modbus-rtu-tcp"),
    @JsonSubTypes.Type(value = Source.ModbusSerial.class, name = "modbus-serial"),
    @JsonSubTypes.Type(value = Source.BacnetIp.class, name = "bacnet-ip")
})
public sealed interface Source {
    /** Where it is, for people. */
    String address();

    /** Where its secrets are said: host and port, and whether that is encrypted; empty where none are. */
    default String place() {
        return switch (this) {
            case HttpFetch fetch ->
                fetch.url().getScheme() + "://" + fetch.url().getRawAuthority();
            case MqttBroker broker ->
                broker.url().getScheme() + "://" + broker.url().getRawAuthority();
            default -> "";
        };
    }

    /**
     * Devices or bridges connect to a port of ours and send a stream.
     *
     * @param port 0 for any free one
     * @param bind address to listen at; null for all
     */
    record TcpPort(int port, @Nullable String bind) implements Source {
        public TcpPort {
            requirePort(port);
        }

        @Override
        public String address() {
            return "TCP port " + port;
        }
    }

    /** Devices or bridges send datagrams to a port of ours. */
    record UdpPort(int port, @Nullable String bind) implements Source {
        public UdpPort {
            requirePort(port);
        }

        @Override
        public String address() {
            return "UDP port " + port;
        }
    }

    /** A bridge at a serial port. */
    record SerialPort(SerialLine line) implements Source {
        public SerialPort {
            requireLine(line);
        }

        @Override
        public String address() {
            return line.address();
        }
    }

    /**
     * Devices or bridges post to an address of ours, with a token.
     *
     * @param tellsSensors whether each answer names the devices that are registered here, for hubs that are to report
     *     just these; null for no
     */
    record HttpInbox(@Nullable Boolean tellsSensors) implements Source {
        /** One that does not. */
        public HttpInbox() {
            this(null);
        }

        @Override
        public String address() {
            return "/in/";
        }
    }

    /**
     * An address elsewhere that is fetched again and again. In the address {@code $since} stands for the time of the
     * newest that came before (ISO 8601), {@code $sinceSeconds} and {@code $sinceMillis} for the same since 1970: so
     * that a log that is fetched gives just what is not here yet, also after a pause.
     *
     * @param url http or https
     * @param everySeconds 1 to 86,400
     * @param allowPrivate whether the address may lie in this machine or the networks around it; null for no
     */
    record HttpFetch(URI url, int everySeconds, @Nullable Boolean allowPrivate) implements Source {
        private static final int A_DAY = 86_400;

        public HttpFetch {
            if (url != null && url.getUserInfo() != null) {
                throw new IllegalArgumentException(
                        "a password in the address would be seen by everybody: give it as a secret header");
            }
            url = WebAddress.checked(url, "an address to fetch");
            if (everySeconds < 1 || everySeconds > A_DAY) {
                throw new IllegalArgumentException(
                        "it is fetched every 1 to " + A_DAY + " seconds, not " + everySeconds);
            }
        }

        @Override
        public String address() {
            return url + " every " + everySeconds + " s";
        }
    }

    /**
     * Topics of a broker elsewhere. The session is kept there, so that what is published with QoS 1 or 2 while we are
     * away is handed over later.
     *
     * @param url {@code mqtt://host:1883}, or {@code mqtts://host:8883} for TLS
     * @param username null for none; the password is a secret
     * @param version 3 for MQTT 3.1.1, 5 for MQTT 5; null for 5
     */
    record MqttBroker(
            URI url,
            List<TopicPattern> topics,
            @Nullable String username,
            @Nullable Integer version) implements Source {
        public MqttBroker {
            BrokerUrl.require(url);
            topics = TopicPattern.some(topics);
            if (version != null && version != 3 && version != 5) {
                throw new IllegalArgumentException("the version of MQTT is 3 (for 3.1.1) or 5, not " + version);
            }
        }

        @Override
        public String address() {
            return url.getHost() + ":" + BrokerUrl.port(url) + ", "
                    + String.join(", ", topics.stream().map(TopicPattern::text).toList());
        }
    }

    /** Topics of the broker inside this service; senders sign in with the inlet's token as password. */
    record OwnBroker(List<TopicPattern> topics) implements Source {
        public OwnBroker {
            topics = TopicPattern.some(topics);
        }

        @Override
        public String address() {
            return "the broker of this service, "
                    + String.join(", ", topics.stream().map(TopicPattern::text).toList());
        }
    }

    /** Whether whoever sends needs a token of the inlet. */
    default boolean hasToken() {
        return this instanceof HttpInbox || this instanceof OwnBroker;
    }

    /** A source whose devices are asked, one after the other or side by side, instead of speaking by themselves. */
    sealed interface Polled extends Source {}

    /** Devices with registers. */
    sealed interface Modbus extends Polled {}

    /**
     * Building controllers by BACnet/IP; each device's address is the instance of its device object, {@code 1234},
     * found by asking around, or {@code 1234@host:47808}.
     *
     * @param port ours; 0 for any free one, null for 47808, which some controllers want of whoever speaks to them
     * @param bind address to speak from; null for all
     * @param lookAt where it is asked who is there, such as {@code 192.0.2.255} or {@code 192.0.2.7:47809}; empty for
     *     everybody on the network
     */
    record BacnetIp(
            @Nullable Integer port,
            @Nullable String bind,
            List<String> lookAt,
            @Nullable Integer timeoutMillis) implements Polled {
        /** The port that the standard gives it (ASHRAE 135, annex J). */
        public static final int USUAL_PORT = 0xBAC0;

        private static final int MOST_PLACES = 50;

        public BacnetIp {
            requireTimeout(timeoutMillis);
            lookAt = lookAt == null || lookAt.isEmpty() ? List.of("255.255.255.255") : List.copyOf(lookAt);
            if (lookAt.size() > MOST_PLACES) {
                throw new IllegalArgumentException("it looks at " + MOST_PLACES + " addresses at most");
            }
            if (port != null) {
                requirePort(port);
            }
        }

        @Override
        public String address() {
            return "BACnet/IP, looks at " + String.join(", ", lookAt);
        }
    }

    /** Modbus TCP: each device's address is {@code host}, {@code host:port} or {@code host:port/unit}. */
    record ModbusTcp(@Nullable Integer timeoutMillis) implements Modbus {
        public ModbusTcp {
            requireTimeout(timeoutMillis);
        }

        @Override
        public String address() {
            return "Modbus TCP";
        }
    }

    /** Modbus RTU frames through a server of serial lines; each device's address is its unit number. */
    record ModbusRtuOverTcp(String host, int port, @Nullable Integer timeoutMillis) implements Modbus {
        public ModbusRtuOverTcp {
            if (host == null || host.isBlank()) {
                throw new IllegalArgumentException("the host of the serial server is missing");
            }
            requireTimeout(timeoutMillis);
            requirePort(port);
        }

        @Override
        public String address() {
            return "Modbus RTU at " + host + ":" + port;
        }
    }

    /** A serial line with Modbus RTU devices; each device's address is its unit number. */
    record ModbusSerial(SerialLine line, @Nullable Integer timeoutMillis) implements Modbus {
        public ModbusSerial {
            requireLine(line);
            requireTimeout(timeoutMillis);
        }

        @Override
        public String address() {
            return "Modbus RTU at " + line.address();
        }
    }

    private static void requireLine(@Nullable SerialLine line) {
        if (line == null) {
            throw new IllegalArgumentException("the serial line is missing (line), with its device and baud");
        }
    }

    private static void requireTimeout(@Nullable Integer millis) {
        if (millis != null && (millis < 20 || millis > 60_000)) {
            throw new IllegalArgumentException("a device is waited for 20 to 60000 ms, not " + millis);
        }
    }

    private static void requirePort(int port) {
        if (port < 0 || port > 65_535) {
            throw new IllegalArgumentException("a port is 1 to 65535, not " + port);
        }
    }
}
