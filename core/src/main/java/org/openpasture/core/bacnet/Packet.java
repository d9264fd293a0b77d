package org.openpasture.core.bacnet;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Optional;
import java.util.StringJoiner;

/**
 * What is sent by UDP: the link's header (ASHRAE 135, annex J: type 0x81, function, length), the network's (6.2:
 * version 1, control, addresses of networks behind a router), and the application's part.
 *
 * @param broadcast whether everybody is spoken to
 * @param network where the sender (of what was received) or the receiver (of what is sent) is behind a router; empty if
 *     it is spoken to directly
 * @param origin who sent it first, where it was forwarded from another part of the network: he is answered there; empty
 *     for whoever the datagram came from
 * @param expectsReply whether an answer is waited for
 * @param apdu see {@link Apdu}
 */
public record Packet(
        boolean broadcast, Optional<Network> network, Optional<Origin> origin, boolean expectsReply, byte[] apdu) {
    /** The longest that a packet can be by Ethernet (annex J). */
    public static final int LONGEST = 1_497;

    private static final int BVLC = 0x81;
    private static final int FORWARDED = 0x04;
    private static final int UNICAST = 0x0A;
    private static final int BROADCAST = 0x0B;
    private static final int VERSION = 1;
    private static final int NETWORK_MESSAGE = 0x80;
    private static final int HAS_DESTINATION = 0x20;
    private static final int HAS_SOURCE = 0x08;
    private static final int EXPECTS_REPLY = 0x04;
    private static final int HOPS = 255;

    /**
     * A station of a network behind a router.
     *
     * @param number 1 to 65,534
     * @param station its address there
     */
    public record Network(int number, byte[] station) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Network that && number == that.number && Arrays.equals(station, that.station);
        }

        @Override
        public int hashCode() {
            return 31 * number + Arrays.hashCode(station);
        }
    }

    /**
     * Where a packet began that was forwarded.
     *
     * @param host four numbers with points between them
     */
    public record Origin(String host, int port) {}

    /** To one station, or as an answer to it. */
    public static Packet to(Optional<Network> network, boolean expectsReply, byte[] apdu) {
        return new Packet(false, network, Optional.empty(), expectsReply, apdu);
    }

    /** To everybody on the link. */
    public static Packet toAll(byte[] apdu) {
        return new Packet(true, Optional.empty(), Optional.empty(), false, apdu);
    }

    public byte[] toBytes() {
        int length = 4 + 2 + network.map(one -> 4 + one.station().length).orElse(0) + apdu.length;
        ByteBuffer out = ByteBuffer.allocate(length)
                .put((byte) BVLC)
                .put((byte) (broadcast ? BROADCAST : UNICAST))
                .putShort((short) length)
                .put((byte) VERSION)
                .put((byte) ((network.isPresent() ? HAS_DESTINATION : 0) | (expectsReply ? EXPECTS_REPLY : 0)));
        network.ifPresent(one -> out.putShort((short) one.number())
                .put((byte) one.station().length)
                .put(one.station())
                .put((byte) HOPS));
        return out.put(apdu).array();
    }

    /**
     * Reads what was received.
     *
     * @return empty for messages between routers, which are none of ours
     * @throws IllegalArgumentException if it is malformed
     */
    public static Optional<Packet> of(byte[] bytes) {
        try {
            ByteBuffer in = ByteBuffer.wrap(bytes);
            if ((in.get() & 0xFF) != BVLC) {
                throw new IllegalArgumentException("it is no packet of BACnet/IP");
            }
            int function = in.get() & 0xFF;
            if ((in.getShort() & 0xFFFF) != bytes.length) {
                throw new IllegalArgumentException("it says another length than it has");
            }
            Optional<Origin> origin = Optional.empty();
            if (function == FORWARDED) {
                origin = Optional.of(origin(in));
            } else if (function != UNICAST && function != BROADCAST) {
                return Optional.empty();
            }
            if (in.get() != VERSION) {
                throw new IllegalArgumentException("it is of another version of the network layer than 1");
            }
            int control = in.get() & 0xFF;
            if ((control & NETWORK_MESSAGE) != 0) {
                return Optional.empty();
            }
            if ((control & HAS_DESTINATION) != 0) {
                station(in);
            }
            Optional<Network> source = (control & HAS_SOURCE) != 0 ? Optional.of(station(in)) : Optional.empty();
            if ((control & HAS_DESTINATION) != 0) {
                in.get();
            }
            byte[] apdu = new byte[in.remaining()];
            in.get(apdu);
            return Optional.of(new Packet(function != UNICAST, source, origin, (control & EXPECTS_REPLY) != 0, apdu));
        } catch (BufferUnderflowException e) {
            throw new IllegalArgumentException("it ends in the middle of a header", e);
        }
    }

    /** Four bytes of an IPv4 address and two of a port (J.2.5). */
    private static Origin origin(ByteBuffer in) {
        StringJoiner host = new StringJoiner(".");
        for (int i = 0; i < 4; i++) {
            host.add(Integer.toString(in.get() & 0xFF));
        }
        return new Origin(host.toString(), in.getShort() & 0xFFFF);
    }

    private static Network station(ByteBuffer in) {
        int number = in.getShort() & 0xFFFF;
        byte[] station = new byte[in.get() & 0xFF];
        in.get(station);
        return new Network(number, station);
    }
}
