package org.openpasture.api.people;

import java.util.List;
import org.openpasture.api.problem.Require;
import org.openpasture.core.text.PersonName;

/**
 * A group of people.
 *
 * @param memberIds ids of people
 */
public record GroupRequest(String name, List<String> memberIds) {
    private static final int MOST = 1000;

    public GroupRequest {
        name = PersonName.chosen(Require.text(name, "the name of the group", 80));
        memberIds = List.copyOf(Require.present(memberIds, "who is in the group (memberIds)"));
        if (memberIds.size() > MOST) {
            throw new IllegalArgumentException("a group has at most " + MOST + " people");
        }
    }
}
