package org.openpasture.core.bacnet;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Reads one property (ASHRAE 135, 15.5).
 *
 * @param index of one entry of a list, counted from 1; 0 for how many there are; null for all of it
 */
public record ReadProperty(
        ObjectId object, int property, @Nullable Integer index) {
    public Apdu apdu(int invokeId) {
        TagWriter out = new TagWriter().object(0, object).unsigned(1, property);
        if (index != null) {
            out.unsigned(2, index);
        }
        return new Apdu.Confirmed(invokeId, Apdu.Service.READ_PROPERTY, out.bytes());
    }

    /**
     * Reads the content of the answer.
     *
     * @throws IllegalArgumentException if it is malformed
     */
    public static List<Datum> answer(byte[] content) {
        TagReader in = new TagReader(content, 0);
        in.skipReference();
        in.open(3);
        return in.dataUntilClosing(3);
    }
}
