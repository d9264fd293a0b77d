package org.openpasture.inlets.reach;

import java.io.IOException;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;

/**
 * Where a connection may lead, so that who may enter an address cannot let this machine call what only it can reach.
 * Asked right before each connection; what a name stands for cannot change in between, since the JDK remembers it for
 * half a minute ({@code networkaddress.cache.ttl}).
 */
public enum Reach {
    /** Who manages the instance has let it. */
    ANYWHERE,
    /** Devices of the networks around, but nothing of this machine, and no addresses that clouds keep for machines. */
    NOT_THIS_MACHINE,
    /** Neither this machine nor the networks around it. */
    OUTSIDE;

    /** Anywhere, if who manages the instance has let it; else what lies outside. */
    public static Reach inside(boolean may) {
        return may ? ANYWHERE : OUTSIDE;
    }

    /**
     * Refuses a host, by name or address, that lies where it must not.
     *
     * @throws IOException in words, also if there is no such host
     */
    public void check(String host) throws IOException {
        if (this == ANYWHERE) {
            return;
        }
        try {
            for (InetAddress address : InetAddress.getAllByName(host)) {
                if (isThisMachine(address)) {
                    throw new IOException(
                            host + " lies in this machine, where it was not allowed to go; an owner may allow it");
                }
                if (this == OUTSIDE && isAround(address)) {
                    throw new IOException(host
                            + " lies in the networks around this machine, where it was not allowed to go; an owner "
                            + "may allow it");
                }
            }
        } catch (UnknownHostException e) {
            throw new IOException("there is no host " + host, e);
        }
    }

    private static boolean isThisMachine(InetAddress address) throws SocketException {
        byte[] bytes = embedded(address.getAddress());
        return address.isLoopbackAddress()
                || address.isAnyLocalAddress()
                || address.isLinkLocalAddress()
                || bytes.length == 4
                        && ((bytes[0] & 0xff) == 127
                                || bytes[0] == 0
                                || (bytes[0] & 0xff) == 169 && (bytes[1] & 0xff) == 254)
                || NetworkInterface.getByInetAddress(address) != null;
    }

    /** RFC 1918, RFC 6598 (100.64/10), RFC 4193 (fc00::/7), and what stands for all or many (RFC 6890). */
    private static boolean isAround(InetAddress address) {
        byte[] bytes = embedded(address.getAddress());
        if (bytes.length == 16) {
            return (bytes[0] & 0xfe) == 0xfc || address.isSiteLocalAddress() || address.isMulticastAddress();
        }
        int first = bytes[0] & 0xff;
        int second = bytes[1] & 0xff;
        return first == 10
                || first == 172 && second >= 16 && second < 32
                || first == 192 && second == 168
                || first == 100 && second >= 64 && second < 128
                || first == 192 && second == 0 && bytes[2] == 0
                || first == 198 && (second == 18 || second == 19)
                || first >= 224;
    }

    /**
     * The IPv4 address that an IPv6 address stands for, where it does: compatible (RFC 4291, 2.5.5.1), translated (RFC
     * 6052, 64:ff9b::/96), 6to4 (RFC 3056, 2002::/16). Mapped ones are IPv4 addresses in Java already.
     */
    private static byte[] embedded(byte[] bytes) {
        if (bytes.length != 16) {
            return bytes;
        }
        if ((bytes[0] & 0xff) == 0x20 && bytes[1] == 0x02) {
            return new byte[] {bytes[2], bytes[3], bytes[4], bytes[5]};
        }
        boolean translated = bytes[0] == 0x00
                && (bytes[1] & 0xff) == 0x64
                && (bytes[2] & 0xff) == 0xff
                && (bytes[3] & 0xff) == 0x9b
                && zeros(bytes, 4, 12);
        boolean compatible = zeros(bytes, 0, 12) && !(zeros(bytes, 12, 15) && (bytes[15] & 0xff) <= 1);
        return translated || compatible ? new byte[] {bytes[12], bytes[13], bytes[14], bytes[15]} : bytes;
    }

    private static boolean zeros(byte[] bytes, int from, int until) {
        for (int i = from; i < until; i++) {
            if (bytes[i] != 0) {
                return false;
            }
        }
        return true;
    }
}
