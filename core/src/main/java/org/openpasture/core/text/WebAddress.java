package org.openpasture.core.text;

import java.net.URI;
import org.jspecify.annotations.Nullable;

/** Addresses that are called by HTTP. */
public final class WebAddress {
    private WebAddress() {}

    /**
     * The same address, if it begins with http:// or https://, names a host, and has no password in it, which everybody
     * would see.
     *
     * @param what whose address it is, as the beginning of the refusal: "the address of the gateway"
     * @throws IllegalArgumentException if it is none, in words
     */
    public static URI checked(@Nullable URI address, String what) {
        if (address == null
                || !"http".equals(address.getScheme()) && !"https".equals(address.getScheme())
                || address.getHost() == null
                || address.getUserInfo() != null) {
            throw new IllegalArgumentException(
                    what + " begins with http:// or https:// and names a host, without a password in it");
        }
        return address;
    }
}
