package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Locator;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.JsonPath;
import org.openpasture.core.layout.JsonTrouble;
import picocli.CommandLine.Option;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * How the messages of an inlet are opened, and what else it is set to, as options. Where an inlet is changed, what is
 * not told stays; an empty text takes away.
 */
final class InletOptions {
    @Option(
            names = "--form",
            paramLabel = "FORM",
            description = "Message format: text (default), csv, json, cbor, senml, bytes.")
    private @Nullable String form;

    @Option(
            names = "--address",
            paramLabel = "WHERE",
            description =
                    "Where the sender's address stands: column:0, json:$.mac, bytes:1+4, header:x-device, topic:serial, sender, "
                            + "fixed:mast.")
    private @Nullable String address;

    @Option(names = "--separator", paramLabel = "TEXT", description = "Between the columns of text; ; if not given.")
    private @Nullable String separator;

    @Option(
            names = "--each",
            paramLabel = "PATH",
            description = "Path to the parts of a JSON message that stand for one device each.")
    private @Nullable String each;

    @Option(
            names = "--payload",
            paramLabel = "WHERE",
            description = "Where the part for the device's model stands; else all of it.")
    private @Nullable String payload;

    @Option(names = "--encoding", paramLabel = "NAME", description = "How that part is written: plain, hex, base64.")
    private @Nullable String encoding;

    @Option(names = "--time", paramLabel = "WHERE", description = "Where the time of sending stands.")
    private @Nullable String time;

    @Option(
            names = "--signal",
            paramLabel = "WHERE",
            description = "Where the strength stands with which a relay heard it, in dBm.")
    private @Nullable String signal;

    @Option(
            names = "--framing",
            paramLabel = "FILE",
            description = "How frames follow one another, as JSON (see docs/inlets.md); else lines for text.")
    private @Nullable Path framing;

    @Option(
            names = "--user",
            paramLabel = "NAME",
            description = "To sign in to a broker elsewhere; the password is a secret.")
    private @Nullable String user;

    @Option(
            names = "--allow-private",
            negatable = true,
            description = "A fetched address may lie in the service's machine or the networks around it.")
    private @Nullable Boolean allowPrivate;

    @Option(
            names = "--secret",
            paramLabel = "NAME=VALUE",
            description = "A header of a fetched address, or password=… of a broker; encrypted, never shown again.")
    private @Nullable Map<String, String> secrets;

    @Option(
            names = "--keep-every",
            paramLabel = "SECONDS",
            description = "Keep a frame of each device only so often; 0 for every frame.")
    private @Nullable Integer keepEvery;

    /** A source with what is told here of it. */
    Source over(Source was) {
        return switch (was) {
            case Source.HttpFetch fetch
            when allowPrivate != null -> new Source.HttpFetch(fetch.url(), fetch.everySeconds(), allowPrivate);
            case Source.MqttBroker broker
            when user != null ->
                new Source.MqttBroker(broker.url(), broker.topics(), user.isEmpty() ? null : user, broker.version());
            default -> was;
        };
    }

    @Nullable
    Map<String, String> secrets() {
        return secrets;
    }

    @Nullable
    Integer keepEvery(@Nullable Integer was) {
        return keepEvery == null ? was : keepEvery == 0 ? null : keepEvery;
    }

    @Nullable
    Framing framing(@Nullable Framing was) throws IOException {
        if (framing == null) {
            return was;
        }
        try {
            return JsonMapper.shared().readValue(Files.readString(framing), Framing.class);
        } catch (JacksonException e) {
            throw new IllegalArgumentException(framing + " describes no framing: " + JsonTrouble.words(e), e);
        }
    }

    /**
     * How messages from a source are opened; null where devices are asked.
     *
     * @throws IllegalArgumentException if something is told of messages that do not come
     */
    @Nullable
    Contents contents(Source source, @Nullable Contents was) {
        if (source instanceof Source.Polled) {
            if (Stream.of(form, address, separator, each, payload, encoding, time, signal)
                    .anyMatch(Objects::nonNull)) {
                throw new IllegalArgumentException(
                        "these devices are asked: there are no messages of theirs to be opened");
            }
            return null;
        }
        return new Contents(
                form != null ? Contents.Form.of(form) : was == null ? Contents.Form.TEXT : was.form(),
                part(address, was, Locator::of, Contents::address),
                part(separator, was, text -> text, Contents::separator),
                part(each, was, JsonPath::of, Contents::each),
                part(payload, was, Locator::of, Contents::payload),
                part(encoding, was, Contents.Encoding::of, Contents::encoding),
                part(time, was, Locator::of, Contents::time),
                part(signal, was, Locator::of, Contents::signal));
    }

    private static <T> @Nullable T part(
            @Nullable String told,
            @Nullable Contents was,
            Function<String, T> read,
            Function<Contents, @Nullable T> before) {
        if (told == null) {
            return was == null ? null : before.apply(was);
        }
        return told.isEmpty() ? null : read.apply(told);
    }
}
