package org.openpasture.store.telemetry;

import java.time.Instant;

/**
 * The answer to a post that carried an Idempotency-Key, kept in the same step as what the post brought.
 *
 * @param inletId the inlet that it came by
 * @param key as the sender gave it
 * @param bodyHash SHA-256 of the post's body: another body under the same key is another message
 * @param answer as JSON
 */
public record KeptAnswer(String inletId, String key, byte[] bodyHash, String answer, Instant at) {}
