package org.openpasture.core.people;

import java.util.List;
import java.util.stream.Stream;
import org.openpasture.core.entity.Entity;

/**
 * People who have rights together. Who is in it has every right that the group was given; who leaves it loses them.
 *
 * @param memberIds ids of people, each once
 */
public record Group(String id, String name, List<String> memberIds) implements Entity {
    public Group {
        memberIds = memberIds.stream().distinct().toList();
    }

    /** The same group without a person. */
    public Group without(String personId) {
        return new Group(
                id,
                name,
                memberIds.stream().filter(one -> !one.equals(personId)).toList());
    }

    /** The same group with a person. */
    public Group with(String personId) {
        return new Group(
                id, name, Stream.concat(memberIds.stream(), Stream.of(personId)).toList());
    }
}
