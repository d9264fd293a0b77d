package org.openpasture.core.entity;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/** Finds the constant of an enum by the id under which it is written in files, requests and answers. */
public final class Ids {
    private Ids() {}

    /**
     * The constant of an id.
     *
     * @param what the enum is called in the message, "severity"
     * @throws IllegalArgumentException naming the ids there are
     */
    public static <E extends Enum<E>> E of(E[] all, Function<E, String> ids, String what, String id) {
        return find(all, ids, id)
                .orElseThrow(() -> new IllegalArgumentException("no " + what + " '" + id + "'; there are "
                        + Arrays.stream(all).map(ids).collect(Collectors.joining(", "))));
    }

    /** The constant of an id or number, if there is one. */
    public static <E extends Enum<E>, I> Optional<E> find(E[] all, Function<E, I> ids, I id) {
        return Arrays.stream(all).filter(one -> ids.apply(one).equals(id)).findFirst();
    }
}
