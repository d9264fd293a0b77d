package org.openpasture.core.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bacnet.Datum;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.bacnet.Property;
import org.openpasture.core.bacnet.WriteProperty;
import org.openpasture.core.quantity.Decimals;

/** Which objects of a building controller are read, and what they say. What it decodes is an {@link ObjectImage}. */
public record ObjectLayout(List<ObjectField> fields) implements AskedLayout {
    private static final int MOST_FIELDS = 2_000;

    public ObjectLayout {
        fields = List.copyOf(fields);
        if (fields.size() > MOST_FIELDS) {
            throw new IllegalArgumentException("a list of objects has " + MOST_FIELDS + " fields at most");
        }
    }

    /** Objects that the image lacks are no value; if it has none of them it is refused. */
    @Override
    public Decoding decode(int port, byte[] payload) {
        Map<ObjectId, Double> image;
        try {
            image = ObjectImage.of(payload).values();
        } catch (IllegalArgumentException e) {
            return new Decoding.Refused(String.valueOf(e.getMessage()));
        }
        List<ChannelValue> values = new ArrayList<>();
        for (ObjectField field : fields) {
            Double raw = image.get(field.object());
            if (raw != null) {
                values.add(new ChannelValue(field.channel(), Decimals.scaled(raw, field.scale(), field.offset())));
            }
        }
        return values.isEmpty() && !fields.isEmpty()
                ? new Decoding.Refused("none of the objects of this model was read")
                : new Decoding.Decoded(values);
    }

    /**
     * How a channel is set.
     *
     * @param value NaN to give its priority free again
     * @throws IllegalArgumentException if it cannot be, in words
     */
    public WriteProperty write(String channel, double value) {
        ObjectField field = AskedLayout.settable(fields, channel);
        Datum datum = Double.isNaN(value)
                ? new Datum.Nothing()
                : WriteProperty.valueFor(field.object(), Decimals.unscaled(value, field.scale(), field.offset()));
        return new WriteProperty(field.object(), Property.PRESENT_VALUE, datum, field.effectivePriority());
    }

    @Override
    public ObjectLayout group(@Nullable Integer every) {
        return new ObjectLayout(fields.stream()
                .filter(field -> Objects.equals(field.every(), every))
                .toList());
    }

    @Override
    public List<Raw> raw(byte[] image) {
        Map<ObjectId, Double> read = ObjectImage.of(image).values();
        return fields.stream()
                .map(field -> new Raw(
                        field.channel(),
                        field.object().text(),
                        read.containsKey(field.object()) ? String.valueOf(read.get(field.object())) : ""))
                .toList();
    }

    @Override
    public List<Part> parts(int port, byte[] payload) {
        return List.of();
    }
}
