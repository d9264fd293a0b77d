package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Values at paths of a JSON document. What is not in a message is no value; true and false are 1 and 0. A class and no
 * record, so that paths are read once and not with each message, which was half of the work of decoding one.
 */
public final class JsonLayout implements Layout {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final Map<String, String> TRUTH = Map.of("true", "1", "false", "0");

    private final List<TextField> fields;
    private final List<JsonPath> paths;
    private final List<Sampled> sampled;

    /**
     * A waveform with its paths.
     *
     * @param rate to its samples per second; empty where they are a number
     */
    private record Sampled(WaveformField field, JsonPath at, Optional<JsonPath> rate) {
        static Sampled of(WaveformField field) {
            return new Sampled(
                    field,
                    JsonPath.of(field.at()),
                    Optional.of(field.rate())
                            .filter(rate -> rate.startsWith("$"))
                            .map(JsonPath::of));
        }
    }

    /**
     * A layout of these fields; what stands at each is a path.
     *
     * @param waveforms null for none
     */
    @JsonCreator
    public JsonLayout(
            @JsonProperty("fields") @Nullable List<TextField> fields,
            @JsonProperty("waveforms") @Nullable List<WaveformField> waveforms) {
        this.fields = fields == null ? List.of() : List.copyOf(fields);
        this.paths = this.fields.stream().map(field -> JsonPath.of(field.at())).toList();
        this.sampled = waveforms == null
                ? List.of()
                : waveforms.stream().map(Sampled::of).toList();
    }

    /** A layout without waveforms. */
    public JsonLayout(List<TextField> fields) {
        this(fields, List.of());
    }

    @JsonProperty
    public List<TextField> fields() {
        return fields;
    }

    @JsonProperty
    public List<WaveformField> waveforms() {
        return sampled.stream().map(Sampled::field).toList();
    }

    /**
     * Refused if it is no JSON, if none of the paths leads to a value, or if one leads to something that is no number.
     */
    @Override
    public Decoding decode(int port, byte[] payload) {
        try {
            return decode(MAPPER.readTree(payload));
        } catch (JacksonException e) {
            return new Decoding.Refused("it is no JSON: " + JsonTrouble.words(e));
        }
    }

    /** The same, of a document that was read already. */
    public Decoding decode(JsonNode document) {
        List<ChannelValue> values = new ArrayList<>();
        boolean met = false;
        for (int i = 0; i < fields.size(); i++) {
            TextField field = fields.get(i);
            Fold fold = field.fold();
            if (fold != null) {
                double[] numbers = paths.get(i).find(document).stream()
                        .filter(JsonNode::isNumber)
                        .mapToDouble(JsonNode::doubleValue)
                        .toArray();
                if (numbers.length > 0) {
                    met = true;
                    values.add(new ChannelValue(field.channel(), field.scaled(fold.apply(numbers))));
                }
                continue;
            }
            Optional<JsonNode> found = paths.get(i).value(document);
            met |= found.isPresent();
            if (found.isEmpty() || found.get().isNull()) {
                continue;
            }
            if (found.get().isNumber() && field.isPlainNumber()) {
                values.add(new ChannelValue(
                        field.channel(), field.scaled(found.get().doubleValue())));
                continue;
            }
            String text = found.get().asString();
            boolean known = field.words() != null && field.words().containsKey(text);
            switch (field.read(found.get().isBoolean() && !known ? TRUTH.getOrDefault(text, text) : text, false)) {
                case TextField.Read.Value(double number) -> values.add(new ChannelValue(field.channel(), number));
                case TextField.Read.Nothing nothing -> {}
                case TextField.Read.Unreadable(String reason) -> {
                    return new Decoding.Refused(reason);
                }
            }
        }
        Gathering gathered = new Gathering(values);
        for (Sampled one : sampled) {
            met |= gathered.take(() -> one.field().read(document, one.at(), one.rate()));
        }
        if (met || fields.isEmpty() && sampled.isEmpty()) {
            return gathered.decoded();
        }
        return new Decoding.Refused(
                gathered.complaint().isEmpty()
                        ? "nothing in it lies at "
                                + Stream.concat(
                                                fields.stream().map(TextField::at),
                                                waveforms().stream().map(WaveformField::at))
                                        .limit(5)
                                        .collect(Collectors.joining(", "))
                        : gathered.complaint());
    }

    /** The channel that is read from a member of the document's outermost object; empty if none is. */
    public Optional<String> channelOf(String member) {
        return fields.stream()
                .filter(field -> field.at().equals("$." + member)
                        || field.at().equals("$['" + member + "']")
                        || field.at().equals("$[\"" + member + "\"]"))
                .map(TextField::channel)
                .findFirst();
    }

    /** Values of JSON have no fixed place. */
    @Override
    public List<Part> parts(int port, byte[] payload) {
        return List.of();
    }

    @Override
    public Set<String> channels() {
        Set<String> names =
                fields.stream().map(TextField::channel).collect(Collectors.toCollection(LinkedHashSet::new));
        waveforms().forEach(field -> names.addAll(field.channels()));
        return names;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof JsonLayout layout
                && layout.fields.equals(fields)
                && layout.waveforms().equals(waveforms());
    }

    @Override
    public int hashCode() {
        return Objects.hash(fields, waveforms());
    }

    @Override
    public String toString() {
        return "JsonLayout" + fields + waveforms();
    }
}
