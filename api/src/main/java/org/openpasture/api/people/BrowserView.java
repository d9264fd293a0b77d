package org.openpasture.api.people;

import java.time.Instant;

/**
 * A browser in which the reader is notified.
 *
 * @param host of the service that hands messages to it
 */
public record BrowserView(String id, String name, String host, Instant addedAt) {}
