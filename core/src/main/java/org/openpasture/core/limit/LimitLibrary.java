package org.openpasture.core.limit;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;

/** The limit sets that ship, one readable file each beside this class, and the questions that lead to them. */
public final class LimitLibrary {
    private LimitLibrary() {}

    /** All shipped sets, in the order of the index. */
    public static List<LimitSet> shipped() {
        JsonMapper mapper = JsonMapper.builder().build();
        return new String(resource("index.txt"), StandardCharsets.UTF_8)
                .lines()
                .map(id -> mapper.readValue(resource(id + ".json"), LimitSet.class))
                .toList();
    }

    /** The questions that lead to the shipped sets; the first is the first to be asked. */
    public static List<LimitQuestion> questions() {
        return List.of(JsonMapper.builder().build().readValue(resource("questions.json"), LimitQuestion[].class));
    }

    private static byte[] resource(String name) {
        try (InputStream in = LimitLibrary.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the limit library lacks " + name);
            }
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
