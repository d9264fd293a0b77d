package org.openpasture.core.bacnet;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Reads several properties of several objects at once (ReadPropertyMultiple, ASHRAE 135, 15.7). */
public record ReadProperties(List<Wanted> wanted) {
    public ReadProperties {
        wanted = List.copyOf(wanted);
    }

    /** One property of one object. */
    public record Wanted(ObjectId object, int property) {}

    /**
     * What a property holds.
     *
     * @param data empty if it could not be read
     * @param problem why it could not, in words; null if it could
     */
    public record Found(
            ObjectId object,
            int property,
            List<Datum> data,
            @Nullable String problem) {
        public Found {
            data = List.copyOf(data);
        }

        /** The number that it holds; empty if none. */
        public Optional<Double> number() {
            return data.isEmpty()
                    ? Optional.empty()
                    : data.getFirst().number().stream().boxed().findFirst();
        }

        /** The text that it holds; empty if none. */
        public String text() {
            return !data.isEmpty() && data.getFirst() instanceof Datum.Text(String value) ? value : "";
        }
    }

    public Apdu apdu(int invokeId) {
        TagWriter out = new TagWriter();
        for (int i = 0; i < wanted.size(); ) {
            ObjectId object = wanted.get(i).object();
            out.object(0, object).open(1);
            for (; i < wanted.size() && wanted.get(i).object().equals(object); i++) {
                out.unsigned(0, wanted.get(i).property());
            }
            out.close(1);
        }
        return new Apdu.Confirmed(invokeId, Apdu.Service.READ_PROPERTY_MULTIPLE, out.bytes());
    }

    /**
     * Reads the content of the answer.
     *
     * @throws IllegalArgumentException if it is malformed
     */
    public static List<Found> answer(byte[] content) {
        TagReader in = new TagReader(content, 0);
        List<Found> all = new ArrayList<>();
        while (in.hasMore()) {
            ObjectId object = in.object(0);
            in.open(1);
            while (!in.isClosing(1)) {
                int property = (int) in.unsigned(2);
                in.skip(3);
                if (in.isOpening(4)) {
                    in.open(4);
                    all.add(new Found(object, property, in.dataUntilClosing(4), null));
                } else {
                    in.open(5);
                    all.add(new Found(object, property, List.of(), Refusal.error(in)));
                    in.close(5);
                }
            }
            in.close(1);
        }
        return all;
    }
}
