package org.openpasture.core.inlet;

import java.net.URI;
import org.jspecify.annotations.Nullable;

/** The address of a broker elsewhere: {@code mqtt://host:1883}, or {@code mqtts://host:8883} for TLS. */
public final class BrokerUrl {
    private BrokerUrl() {}

    /**
     * Refuses what is none, or holds a password that everybody would see.
     *
     * @throws IllegalArgumentException in words
     */
    public static void require(@Nullable URI url) {
        if (url == null
                || !"mqtt".equals(url.getScheme()) && !isEncrypted(url)
                || url.getHost() == null
                || url.getUserInfo() != null) {
            throw new IllegalArgumentException(
                    "a broker's address is mqtt://host:1883 or mqtts://host:8883, without a password in it, not '" + url
                            + "'");
        }
    }

    public static boolean isEncrypted(URI url) {
        return "mqtts".equals(url.getScheme());
    }

    /** The port that it names, or the usual one. */
    public static int port(URI url) {
        return url.getPort() > 0 ? url.getPort() : isEncrypted(url) ? 8883 : 1883;
    }
}
