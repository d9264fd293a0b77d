package org.openpasture.api.people;

import java.net.URI;
import org.jspecify.annotations.Nullable;

/**
 * A browser that asks to notify whoever sits before it, with what it handed out (Web Push, RFC 8291).
 *
 * @param name by which its person knows it
 * @param endpoint where messages to it are posted
 * @param key its public key, 65 bytes in base64url
 * @param secret its secret for these messages, 16 bytes in base64url
 */
public record BrowserRequest(
        @Nullable String name,
        @Nullable URI endpoint,
        @Nullable String key,
        @Nullable String secret) {
    public BrowserRequest {
        if (name == null || endpoint == null || key == null || secret == null) {
            throw new IllegalArgumentException("name, endpoint, key and secret of the browser are needed");
        }
    }
}
