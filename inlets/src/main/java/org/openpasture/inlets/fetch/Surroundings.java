package org.openpasture.inlets.fetch;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;

/** Keeps requests that strangers could steer away from this machine and the networks around it. */
public final class Surroundings {
    private Surroundings() {}

    /**
     * Refuses an address that lies there. What its name stands for cannot change before the connection is made: the JDK
     * remembers it for half a minute ({@code networkaddress.cache.ttl}).
     *
     * @throws IOException in words
     */
    public static void refuse(URI at) throws IOException {
        try {
            for (InetAddress address : InetAddress.getAllByName(at.getHost())) {
                if (address.isLoopbackAddress()
                        || address.isSiteLocalAddress()
                        || address.isLinkLocalAddress()
                        || address.isAnyLocalAddress()
                        || isUniqueLocal(address)) {
                    throw new IOException(at.getHost()
                            + " lies in this machine or the networks around it, where it was not allowed to go");
                }
            }
        } catch (UnknownHostException e) {
            throw new IOException("there is no host " + at.getHost(), e);
        }
    }

    /** RFC 4193: fc00::/7. */
    private static boolean isUniqueLocal(InetAddress address) {
        return address.getAddress().length == 16 && (address.getAddress()[0] & 0xFE) == 0xFC;
    }
}
