package org.openpasture.core.people;

import org.openpasture.core.entity.Entity;

/**
 * Somebody with an account.
 *
 * @param name what they sign in with
 * @param email for notices; may be empty
 * @param owner may do everything everywhere
 */
public record Person(String id, String name, String email, boolean owner) implements Entity {}
