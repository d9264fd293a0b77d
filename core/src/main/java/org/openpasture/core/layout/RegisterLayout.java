package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A register map: which registers and bits of a fieldbus device are read, and what they say. What it decodes is a
 * {@link RegisterImage}.
 *
 * @param hole so many registers that nobody wants may lie between two that are read together; null for 8. 0 where a
 *     device refuses to read what it does not have
 */
public record RegisterLayout(
        List<RegisterField> fields, @Nullable Integer hole) implements AskedLayout {
    private static final int USUAL_HOLE = 8;
    private static final int MOST_FIELDS = 2_000;

    public RegisterLayout {
        fields = List.copyOf(fields);
        if (fields.size() > MOST_FIELDS) {
            throw new IllegalArgumentException("a register map has " + MOST_FIELDS + " fields at most");
        }
        if (hole != null && (hole < 0 || hole > 100)) {
            throw new IllegalArgumentException("a hole has 0 to 100 registers, not " + hole);
        }
    }

    /**
     * What is read by one request.
     *
     * @param count bits or registers
     */
    public record Request(RegisterTable table, int from, int count) {}

    /** What is written to set a channel. */
    public sealed interface Write {
        RegisterTable table();

        int at();

        /**
         * Bits or registers get these.
         *
         * @param data two bytes for each register, one for a bit
         */
        record All(RegisterTable table, int at, byte[] data) implements Write {}

        /**
         * Of a holding register only some bits get others: it becomes {@code register & keep | set & ~keep}
         * (application protocol 1.1b3, 6.16).
         *
         * @param keep 1 where a bit stays as it is
         * @param set the others
         */
        record Part(int at, int keep, int set) implements Write {
            @Override
            public RegisterTable table() {
                return RegisterTable.HOLDING;
            }

            /** The register as a whole. */
            public All of(int register) {
                int all = register & keep | set & ~keep;
                return new All(RegisterTable.HOLDING, at, new byte[] {(byte) (all >>> 8), (byte) all});
            }
        }
    }

    /**
     * How a channel is set.
     *
     * @throws IllegalArgumentException if it cannot be, or not to this value, in words
     */
    public Write write(String channel, double value) {
        return AskedLayout.settable(fields, channel).write(value);
    }

    @Override
    public RegisterLayout group(@Nullable Integer every) {
        return new RegisterLayout(
                fields.stream()
                        .filter(field -> Objects.equals(field.every(), every))
                        .toList(),
                hole);
    }

    @Override
    public List<Raw> raw(byte[] image) {
        RegisterImage read = RegisterImage.of(image);
        return fields.stream()
                .map(field -> new Raw(
                        field.channel(),
                        field.where(),
                        read.find(field.tableOrHolding(), field.at(), field.count())
                                .map(found ->
                                        HexFormat.of().formatHex(found.data()).replaceAll("(.{4})(?=.)", "$1 "))
                                .orElse("")))
                .toList();
    }

    /** The requests of a round: fields next to each other are read together, as far as one request reaches. */
    public List<Request> requests() {
        List<Request> requests = new ArrayList<>();
        for (RegisterTable table : RegisterTable.values()) {
            List<RegisterField> of = fields.stream()
                    .filter(field -> field.tableOrHolding() == table)
                    .sorted(Comparator.comparingInt(RegisterField::at))
                    .toList();
            Request open = null;
            for (RegisterField field : of) {
                int end = field.at() + field.count();
                int gap = hole == null ? USUAL_HOLE : hole;
                if (open != null
                        && field.at() - (open.from() + open.count()) <= gap
                        && end - open.from() <= table.most()) {
                    open = new Request(table, open.from(), Math.max(open.count(), end - open.from()));
                } else {
                    if (open != null) {
                        requests.add(open);
                    }
                    open = new Request(table, field.at(), field.count());
                }
            }
            if (open != null) {
                requests.add(open);
            }
        }
        return requests;
    }

    /**
     * Registers that the image lacks, since their request failed, are no value; if it has none at all it is refused.
     */
    @Override
    public Decoding decode(int port, byte[] payload) {
        RegisterImage image;
        try {
            image = RegisterImage.of(payload);
        } catch (IllegalArgumentException e) {
            return new Decoding.Refused(String.valueOf(e.getMessage()));
        }
        List<ChannelValue> values = new ArrayList<>();
        boolean met = false;
        for (RegisterField field : fields) {
            Optional<RegisterImage.Found> found = image.find(field.tableOrHolding(), field.at(), field.count());
            if (found.isPresent()) {
                met = true;
                read(field, found.get().data())
                        .ifPresent(value -> values.add(new ChannelValue(field.channel(), value)));
            }
        }
        return met || fields.isEmpty()
                ? new Decoding.Decoded(values)
                : new Decoding.Refused("none of the registers of this model was read");
    }

    private static Optional<Double> read(RegisterField field, byte[] data) {
        return field.tableOrHolding().isBits()
                ? Optional.of((double) (data[0] & 1))
                : field.overBytes().read(field.inOrder(data));
    }

    @Override
    public List<Part> parts(int port, byte[] payload) {
        try {
            RegisterImage image = RegisterImage.of(payload);
            return fields.stream()
                    .flatMap(field -> image.find(field.tableOrHolding(), field.at(), field.count()).stream()
                            .map(found -> new Part(field.channel(), found.at(), found.at() + found.data().length)))
                    .toList();
        } catch (IllegalArgumentException e) {
            return List.of();
        }
    }
}
