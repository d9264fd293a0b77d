package org.openpasture.inlets.camera;

import java.io.IOException;
import java.io.InputStream;
import java.net.Authenticator;
import java.net.HttpURLConnection;
import java.net.PasswordAuthentication;
import java.net.URI;
import java.time.Duration;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.inlets.loop.Deadline;

/**
 * Fetches one picture over HTTP, with a password if the camera asks for one, by the basic or the digest scheme (RFC
 * 7617, RFC 7616), as the JDK's older client speaks both. It goes nowhere that the camera sends it on to. Any thread;
 * blocks until the picture is there or the time is over.
 */
public final class CameraReader {
    /** A picture of more bytes is none that a camera should give. */
    private static final int MOST_BYTES = 10_000_000;

    static {
        // The JDK does not speak the digest scheme with MD5 unless it is let; simple cameras speak nothing else.
        System.setProperty("http.auth.digest.reEnabledAlgorithms", "MD5");
    }

    private final Duration within;

    /** @param within how long a picture may take, from the first step to its last byte */
    public CameraReader(Duration within) {
        this.within = within;
    }

    /**
     * What the camera gives now.
     *
     * @param user null if it asks for none
     * @throws IOException in words, if it gives nothing
     */
    public byte[] read(URI address, @Nullable String user, String password) throws IOException, InterruptedException {
        HttpURLConnection connection = (HttpURLConnection) address.toURL().openConnection();
        try {
            return Deadline.within(
                    within,
                    "camera-" + address.getHost(),
                    address.getHost() + " gave no picture within " + within.toSeconds() + " s",
                    () -> content(connection, address.getHost(), user, password));
        } finally {
            connection.disconnect();
        }
    }

    private byte[] content(HttpURLConnection connection, String host, @Nullable String user, String password)
            throws IOException {
        int most = Math.toIntExact(within.toMillis());
        connection.setConnectTimeout(most);
        connection.setReadTimeout(most);
        connection.setInstanceFollowRedirects(false);
        connection.setUseCaches(false);
        connection.setRequestProperty("Accept", "image/jpeg, image/png");
        if (user != null) {
            connection.setAuthenticator(new Once(user, password));
        }
        int status = status(connection, host);
        if (status != HttpURLConnection.HTTP_OK) {
            throw new IOException(host + " answers " + status
                    + switch (status) {
                        case 401, 403 -> ": its user or password is wrong";
                        case 404 -> ": there is nothing at this address";
                        case 301, 302, 303, 307, 308 ->
                            ": it sends us on to "
                                    + Optional.ofNullable(connection.getHeaderField("Location"))
                                            .orElse("elsewhere");
                        default -> "";
                    });
        }
        try (InputStream in = connection.getInputStream()) {
            byte[] bytes = in.readNBytes(MOST_BYTES + 1);
            if (bytes.length > MOST_BYTES) {
                throw new IOException(host + " answers with more than " + MOST_BYTES + " bytes");
            }
            return bytes;
        }
    }

    private static int status(HttpURLConnection connection, String host) throws IOException {
        try {
            return connection.getResponseCode();
        } catch (IOException e) {
            throw new IOException(
                    host + " cannot be reached: "
                            + Optional.ofNullable(e.getMessage()).orElse("it refuses the connection"),
                    e);
        }
    }

    /** A password that is refused is not said again and again. */
    private static final class Once extends Authenticator {
        private final String user;
        private final String password;
        private boolean said;

        Once(String user, String password) {
            this.user = user;
            this.password = password;
        }

        @Override
        protected @Nullable PasswordAuthentication getPasswordAuthentication() {
            if (said) {
                return null;
            }
            said = true;
            return new PasswordAuthentication(user, password.toCharArray());
        }
    }
}
