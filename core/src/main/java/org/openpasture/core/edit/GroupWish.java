package org.openpasture.core.edit;

import org.openpasture.core.people.Group;

/** What a person wishes to do with a group of people. */
public sealed interface GroupWish {
    /** Makes one, or names one anew and says who is in it. */
    record Put(Group group) implements GroupWish {}

    /** Removes one, and the rights that its members had by it. */
    record Remove(String id) implements GroupWish {}
}
