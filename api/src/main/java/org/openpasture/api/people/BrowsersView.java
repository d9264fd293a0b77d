package org.openpasture.api.people;

import java.util.List;

/**
 * Browsers in which the reader is notified.
 *
 * @param key the public key of this instance, 65 bytes in base64url, which a browser wants to know
 */
public record BrowsersView(String key, List<BrowserView> browsers) {}
