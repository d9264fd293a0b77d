package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Set;

/**
 * Our declarative description of how to read channels out of a frame. It is data: it can be shared and tried, and
 * cannot run away.
 *
 * <p>In JSON its kind is told by {@code format}; without one it is about bytes.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "format", defaultImpl = ByteLayout.class)
@JsonSubTypes({
    @JsonSubTypes.Type(value = ByteLayout.class, name = "bytes"),
    @JsonSubTypes.Type(value = LineLayout.class, name = "line"),
    @JsonSubTypes.Type(value = JsonLayout.class, name = "json"),
    @JsonSubTypes.Type(value = AdvertLayout.class, name = "advert"),
    @JsonSubTypes.Type(value = RegisterLayout.class, name = "registers"),
    @JsonSubTypes.Type(value = ObjectLayout.class, name = "objects")
})
public sealed interface Layout permits ByteLayout, LineLayout, JsonLayout, AdvertLayout, AskedLayout {
    /**
     * Reads a payload.
     *
     * @param port the radio port it came on, 0 where there is none
     */
    Decoding decode(int port, byte[] payload);

    /** Where the channels of a payload lie; those that lie outside of it are left out. */
    List<Part> parts(int port, byte[] payload);

    /** All channels that it can read. */
    Set<String> channels();

    /**
     * Where a channel's value lies in a payload.
     *
     * @param from first byte
     * @param until the byte after the last
     */
    record Part(String channel, int from, int until) {}

    /** A layout that reads nothing, for models that are read by a script. */
    static Layout none() {
        return new ByteLayout(List.of());
    }
}
