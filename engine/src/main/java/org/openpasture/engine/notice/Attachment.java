package org.openpasture.engine.notice;

/**
 * A file that goes with a mail.
 *
 * @param type its media type
 */
public record Attachment(String name, String type, byte[] content) {}
