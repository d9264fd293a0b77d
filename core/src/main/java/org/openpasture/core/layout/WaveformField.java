package org.openpasture.core.layout;

import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;
import org.openpasture.core.vibration.Band;
import org.openpasture.core.vibration.Figure;
import org.openpasture.core.vibration.Figures;
import org.openpasture.core.vibration.Measured;
import org.openpasture.core.vibration.Waveform;
import tools.jackson.databind.JsonNode;

/**
 * Where in a message the samples of one direction stand, and which channels are made of them. The waveform itself is
 * kept with the point of {@code channel}.
 *
 * @param channel gets the RMS velocity within the band, mm/s
 * @param at in JSON a path to an array of numbers, or to a text of Base64 where {@code type} is given; in bytes the
 *     first byte, counted from 0
 * @param rate samples per second: a number, or in JSON a path to it
 * @param unit of the samples: m/s², g, mm/s, µm or another of the same kinds
 * @param type how packed samples are written; null for plain numbers of JSON
 * @param order of the bytes of a packed sample, "big" or "little"; null for big
 * @param every bytes from one packed sample to the next, where directions take turns; null for the width of one
 * @param scale what a sample is multiplied by before it has its unit; null for 1
 * @param lowestHz where the band begins; null for 10, for machines below 600 per minute it is 2
 * @param figures other channels, and the figure that each gets
 */
public record WaveformField(
        String channel,
        String at,
        String rate,
        String unit,
        @Nullable FieldType type,
        @Nullable String order,
        @Nullable Integer every,
        @Nullable Double scale,
        @Nullable Double lowestHz,
        Map<String, Figure> figures) {
    private static final Pattern WHITE = Pattern.compile("\\s+");
    private static final double HIGHEST_HZ = 1_000;
    /** Figures are kept to four decimals, which is far below what a sensor tells. */
    private static final double FINE = 10_000;

    /**
     * Checks.
     *
     * @throws IllegalArgumentException in words for who wrote the layout
     */
    public WaveformField {
        figures = figures == null ? Map.of() : Map.copyOf(figures);
        if (channel == null || channel.isBlank() || at == null || at.isBlank()) {
            throw new IllegalArgumentException("a waveform needs a channel and the place where it stands");
        }
        if (rate == null || rate.isBlank()) {
            throw new IllegalArgumentException("the waveform '" + channel
                    + "' needs its samples per second: a number, or the path to it as in $.rate");
        }
        if (!rate.startsWith("$") && number(rate).isEmpty()) {
            throw new IllegalArgumentException("the samples per second of the waveform '" + channel
                    + "' are a number from 1 on or a path as in $.rate, not '" + rate + "'");
        }
        if (unit == null || Measured.inUnit(unit).isEmpty()) {
            throw new IllegalArgumentException("the unit of the waveform '" + channel
                    + "' must be one of acceleration, velocity or displacement, such as m/s², g, mm/s or µm, not '"
                    + unit + "'");
        }
        Bytes.requireOrder("waveform '" + channel + "'", order);
        if (every != null && (type == null || every < type.bytes())) {
            throw new IllegalArgumentException("the samples of the waveform '" + channel + "' are " + every
                    + " bytes apart, but each takes more, or they are not packed");
        }
        if (scale != null && (!Double.isFinite(scale) || scale == 0)) {
            throw new IllegalArgumentException("the scale of the waveform '" + channel + "' cannot be " + scale);
        }
        if (lowestHz != null && !(lowestHz > 0 && lowestHz < HIGHEST_HZ)) {
            throw new IllegalArgumentException("the band of the waveform '" + channel + "' begins above 0 Hz and below "
                    + (int) HIGHEST_HZ + " Hz, not at " + lowestHz + " Hz");
        }
        if (figures.containsKey(channel)) {
            throw new IllegalArgumentException(
                    "channel '" + channel + "' gets the RMS velocity of its waveform and no other figure");
        }
    }

    /** All channels that are made of it. */
    List<String> channels() {
        List<String> all = new ArrayList<>(List.of(channel));
        figures.keySet().stream().sorted().forEach(all::add);
        return all;
    }

    /** What is made of a waveform. */
    record Taken(List<ChannelValue> values, ChannelWaveform waveform, List<String> remarks) {}

    /**
     * Reads it out of a document; empty if it holds none.
     *
     * @throws IllegalArgumentException if the samples cannot be used, in words
     */
    Optional<Taken> read(JsonNode document, JsonPath path, Optional<JsonPath> ratePath) {
        List<JsonNode> found =
                path.find(document).stream().filter(node -> !node.isNull()).toList();
        if (found.isEmpty()) {
            return Optional.empty();
        }
        if (found.size() > 1) {
            throw new IllegalArgumentException("the waveform '" + channel + "' stands in a list: its path leads to the"
                    + " list itself, without [*] at its end");
        }
        OptionalDouble said = ratePath.map(way -> way.value(document)
                        .filter(JsonNode::isNumber)
                        .map(node -> OptionalDouble.of(node.doubleValue()))
                        .orElseGet(OptionalDouble::empty))
                .orElseGet(() -> OptionalDouble.of(number(rate).orElseThrow()));
        if (said.isEmpty()) {
            throw new IllegalArgumentException("the waveform '" + channel
                    + "' comes without its samples per second, which should stand at " + rate);
        }
        return Optional.of(
                taken(type == null ? plain(found.getFirst()) : packed(found.getFirst()), said.getAsDouble()));
    }

    /**
     * Reads it out of bytes, from its first to the last that is a whole sample.
     *
     * @throws IllegalArgumentException if the samples cannot be used, in words
     */
    Taken read(byte[] payload) {
        return taken(unpack(payload, Integer.parseInt(at)), number(rate).orElseThrow());
    }

    /** Refuses what cannot be read out of bytes. */
    void requireBytes() {
        if (type == null || !at.matches("\\d{1,6}") || rate.startsWith("$")) {
            throw new IllegalArgumentException("the waveform '" + channel
                    + "' is read from bytes: it needs 'type', the first byte as 'at', and a number as 'rate'");
        }
    }

    private double[] plain(JsonNode array) {
        if (!array.isArray()) {
            throw new IllegalArgumentException("the waveform '" + channel + "' is not a list of numbers");
        }
        double[] samples = new double[Math.min(array.size(), Waveform.MOST + 1)];
        for (int i = 0; i < samples.length; i++) {
            JsonNode sample = array.get(i);
            samples[i] = sample.isNumber() ? sample.doubleValue() : Double.NaN;
        }
        return samples;
    }

    private double[] packed(JsonNode text) {
        try {
            return unpack(
                    Base64.getDecoder().decode(WHITE.matcher(text.asString()).replaceAll("")), 0);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("the waveform '" + channel + "' is not written in Base64", e);
        }
    }

    private double[] unpack(byte[] bytes, int from) {
        FieldType of = Objects.requireNonNull(type);
        int step = every == null ? of.bytes() : every;
        ByteOrder byteOrder = Bytes.order(order);
        int count = bytes.length - from < of.bytes() ? 0 : (bytes.length - from - of.bytes()) / step + 1;
        double[] samples = new double[Math.min(count, Waveform.MOST + 1)];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = of.read(Bytes.number(bytes, from + i * step, of.bytes(), byteOrder));
        }
        return samples;
    }

    private Taken taken(double[] samples, double samplesPerSecond) {
        Measured.InUnit in = Measured.inUnit(unit).orElseThrow();
        double factor = in.factor() * (scale == null ? 1 : scale);
        for (int i = 0; i < samples.length; i++) {
            samples[i] *= factor;
        }
        Waveform waveform;
        try {
            waveform = new Waveform(in.measured(), samplesPerSecond, samples);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("'" + channel + "': " + e.getMessage(), e);
        }
        Band band = new Band(lowestHz == null ? Band.MACHINES.lowHz() : lowestHz, HIGHEST_HZ);
        Figures all = Figures.of(waveform, band);
        List<String> remarks = Figures.shows(waveform, band)
                ? List.of()
                : List.of(String.format(
                        Locale.ROOT,
                        "'%s': %.3g s at %.6g samples per second are too few to show vibration from %.3g Hz on",
                        channel,
                        waveform.seconds(),
                        samplesPerSecond,
                        band.lowHz()));
        List<ChannelValue> values = new ArrayList<>();
        for (String one : channels()) {
            Double value = all.values().get(figures.getOrDefault(one, Figure.VELOCITY_RMS));
            if (value != null) {
                values.add(new ChannelValue(one, Math.rint(value * FINE) / FINE));
            }
        }
        return new Taken(values, new ChannelWaveform(channel, waveform), remarks);
    }

    private static Optional<Double> number(String text) {
        try {
            double number = Double.parseDouble(text.strip());
            return number >= 1 && number <= Waveform.FASTEST ? Optional.of(number) : Optional.empty();
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }
}
