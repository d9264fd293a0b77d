package org.openpasture.core.push;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.Signature;
import java.security.interfaces.ECPublicKey;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;

/**
 * Says to the service that hands messages to browsers who sends one: Voluntary Application Server Identification (RFC
 * 8292), a JSON Web Token (RFC 7519) signed with ES256 (RFC 7518, 3.4). Any thread.
 */
public final class PushVoucher {
    /** At most a day (RFC 8292, 2). */
    private static final Duration LASTS = Duration.ofHours(12);

    private static final Base64.Encoder BASE64 = Base64.getUrlEncoder().withoutPadding();
    private static final String HEADER =
            encoded("{\"typ\":\"JWT\",\"alg\":\"ES256\"}".getBytes(StandardCharsets.UTF_8));

    private PushVoucher() {}

    /**
     * The value of the header Authorization.
     *
     * @param endpoint where the message goes
     * @param contact how who runs this instance is reached, a mailto: or https: address; empty for not said
     * @param own the keys of this instance
     */
    public static String of(URI endpoint, String contact, KeyPair own, Instant now) {
        String origin = endpoint.getScheme() + "://" + endpoint.getRawAuthority();
        String claims = "{\"aud\":" + quoted(origin) + ",\"exp\":"
                + now.plus(LASTS).getEpochSecond() + (contact.isEmpty() ? "" : ",\"sub\":" + quoted(contact)) + "}";
        String signed = HEADER + "." + encoded(claims.getBytes(StandardCharsets.UTF_8));
        try {
            Signature signature = Signature.getInstance("SHA256withECDSAinP1363Format");
            signature.initSign(own.getPrivate());
            signature.update(signed.getBytes(StandardCharsets.US_ASCII));
            return "vapid t=" + signed + "." + encoded(signature.sign()) + ", k="
                    + encoded(PushKey.write((ECPublicKey) own.getPublic()));
        } catch (GeneralSecurityException e) {
            throw PushKey.missing(e);
        }
    }

    /** A string as JSON has it (RFC 8259, 7); addresses hold no signs below the space. */
    private static String quoted(String text) {
        return '"' + text.replace("\\", "\\\\").replace("\"", "\\\"") + '"';
    }

    private static String encoded(byte[] bytes) {
        return BASE64.encodeToString(bytes);
    }
}
