package org.openpasture.core.baseline;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Optional;

/** What came of recording a baseline. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Outcome.Recording.class, name = "recording"),
    @JsonSubTypes.Type(value = Outcome.Known.class, name = "known"),
    @JsonSubTypes.Type(value = Outcome.Unusable.class, name = "unusable")
})
public sealed interface Outcome {
    /** Its time is not over yet, or its last readings may still come. */
    record Recording() implements Outcome {}

    /** The usual values are known. */
    record Known(Spread spread) implements Outcome {}

    /** There are no usual values; says why in a sentence. */
    record Unusable(String reason) implements Outcome {}

    /** The usual values, if they are known. */
    default Optional<Spread> values() {
        return this instanceof Known(Spread spread) ? Optional.of(spread) : Optional.empty();
    }
}
