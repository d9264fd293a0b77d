package org.openpasture.core.notice;

import java.net.URI;
import java.security.interfaces.ECPublicKey;
import java.time.Instant;
import java.util.Base64;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.push.PushKey;
import org.openpasture.core.push.PushSeal;

/**
 * A browser in which a person is notified, also while no page of ours is open: a push subscription (RFC 8030, 3).
 *
 * @param name by which the person knows it: "Chrome on Android"
 * @param endpoint where messages to it are posted, at a service of who makes the browser
 * @param key its public key, 65 bytes in base64url
 * @param secret what it handed out beside that, 16 bytes in base64url
 */
public record NotifiedBrowser(
        String id, String personId, String name, URI endpoint, String key, String secret, Instant addedAt)
        implements Entity {
    /** So many for each person. */
    public static final int MOST = 20;

    private static final int LONGEST_NAME = 80;
    private static final int LONGEST_ENDPOINT = 1_000;

    public NotifiedBrowser {
        name = name.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("the name of a browser has 1 to 80 characters");
        }
        if (endpoint.getHost() == null || endpoint.toString().length() > LONGEST_ENDPOINT) {
            throw new IllegalArgumentException("the endpoint of the browser is not a valid address");
        }
        PushKey.read(decoded(key));
        if (decoded(secret).length != PushSeal.SECRET) {
            throw new IllegalArgumentException("the secret of the browser must have 16 bytes");
        }
    }

    /** A message that this browser alone can read. */
    public byte[] seal(byte[] message) {
        ECPublicKey to = PushKey.read(decoded(key));
        return PushSeal.seal(message, to, decoded(secret));
    }

    private static byte[] decoded(String text) {
        try {
            return Base64.getUrlDecoder().decode(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("key and secret of the browser must be base64url", e);
        }
    }
}
