package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;

/**
 * Who is signed in.
 *
 * @param token given once to programs, null in a browser
 */
public record SessionView(PersonView person, @Nullable String token) {}
