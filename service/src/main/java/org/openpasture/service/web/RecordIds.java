package org.openpasture.service.web;

import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** By which id something in an answer is known. */
final class RecordIds {
    private RecordIds() {}

    /** The id of a record, or of the record that it holds first. */
    static Optional<String> of(Object body) {
        if (!body.getClass().isRecord()) {
            return Optional.empty();
        }
        RecordComponent[] parts = body.getClass().getRecordComponents();
        return Arrays.stream(parts)
                .filter(part -> part.getName().equals("id"))
                .findFirst()
                .map(part -> String.valueOf(value(part, body)))
                .or(() -> parts.length == 0 || !parts[0].getType().isRecord()
                        ? Optional.empty()
                        : Optional.ofNullable(value(parts[0], body)).flatMap(RecordIds::of));
    }

    private static @Nullable Object value(RecordComponent part, Object of) {
        try {
            part.getAccessor().setAccessible(true);
            return part.getAccessor().invoke(of);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("a record's component can always be read", e);
        }
    }
}
