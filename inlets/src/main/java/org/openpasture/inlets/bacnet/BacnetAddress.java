package org.openpasture.inlets.bacnet;

import java.net.InetSocketAddress;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.inlet.Source;

/**
 * Which controller a device is.
 *
 * @param device the instance of its device object
 * @param place where it is, if that is not to be found out by asking around; host, or host:port
 */
public record BacnetAddress(int device, Optional<String> place) {
    private static final Pattern FORM = Pattern.compile("(\\d{1,7})(?:@([^@\\s]+))?");
    private static final Pattern PLACE = Pattern.compile("(\\[[0-9a-fA-F:.]+]|[^:/\\s]+)(?::(\\d{1,5}))?");

    /**
     * Reads "1234" or "1234@host:47808".
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    public static BacnetAddress of(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches() || Integer.parseInt(matcher.group(1)) > ObjectId.HIGHEST) {
            throw new IllegalArgumentException(
                    "'" + text
                            + "' is no address of a BACnet device: give the number of its device object, such as 1234, or 1234@192.0.2.7");
        }
        Optional<String> place = Optional.ofNullable(matcher.group(2));
        // Not looked up yet: an address that is only written down waits for no name server.
        place.ifPresent(BacnetAddress::unresolved);
        return new BacnetAddress(Integer.parseInt(matcher.group(1)), place);
    }

    /**
     * Reads "host" or "host:port", and looks the host up, which may take as long as a name server does.
     *
     * @throws IllegalArgumentException if it is none, in words
     */
    static InetSocketAddress socket(String place) {
        InetSocketAddress written = unresolved(place);
        return new InetSocketAddress(written.getHostString(), written.getPort());
    }

    private static InetSocketAddress unresolved(String place) {
        Matcher matcher = PLACE.matcher(place.strip());
        int port = matcher.matches() && matcher.group(2) != null
                ? Integer.parseInt(matcher.group(2))
                : Source.BacnetIp.USUAL_PORT;
        if (!matcher.matches() || port < 1 || port > 65_535) {
            throw new IllegalArgumentException("'" + place + "' is no host or host:port");
        }
        return InetSocketAddress.createUnresolved(matcher.group(1).replaceAll("[\\[\\]]", ""), port);
    }
}
