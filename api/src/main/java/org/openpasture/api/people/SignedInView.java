package org.openpasture.api.people;

import java.time.Instant;

/**
 * A sign-in of a person.
 *
 * @param id by which it can be ended; it is not its token
 * @param purpose "console" or "client"
 * @param note the program that asked, where it said so
 * @param current whether it is the one that asks
 */
public record SignedInView(
        String id, String purpose, String note, Instant createdAt, Instant expiresAt, boolean current) {}
