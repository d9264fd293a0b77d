package org.openpasture.engine.picture;

/**
 * A picture that is safe to show.
 *
 * @param type image/png, image/jpeg or image/svg+xml
 * @param width in pixels
 * @param height in pixels
 */
public record Cleaned(String type, int width, int height, byte[] content) {}
