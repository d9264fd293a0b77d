package org.openpasture.api.people;

import java.util.List;

/**
 * A group of people and what it was given rights on.
 *
 * @param grants its rights; to who is not in it and owns nothing, those on what they manage
 */
public record GroupView(String id, String name, List<Member> members, List<PersonView.GrantView> grants) {
    /** Somebody in a group. */
    public record Member(String id, String name) {}
}
