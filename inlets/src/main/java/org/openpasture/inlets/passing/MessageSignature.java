package org.openpasture.inlets.passing;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.Map;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Signs the parts of an HTTP message with a shared key: HTTP Message Signatures (RFC 9421) with the algorithm
 * hmac-sha256 (3.3.3), and the digest of the content (RFC 9530) that such a signature covers.
 *
 * @param input the value of the field Signature-Input, without its label
 * @param signature the value of the field Signature, without its label
 */
record MessageSignature(String input, String signature) {

    /**
     * Signs.
     *
     * @param components names and values of what is covered, in their order; derived components begin with @
     * @param keyId by which the receiver finds the key
     */
    static MessageSignature of(SequencedMap<String, String> components, Instant created, String keyId, byte[] key) {
        String input =
                components.keySet().stream().map(name -> '"' + name + '"').collect(Collectors.joining(" ", "(", ")"))
                        + ";created=" + created.getEpochSecond() + ";keyid=\"" + keyId + "\"";
        return new MessageSignature(
                input, ":" + base64(hmac(key, base(components, input).getBytes(StandardCharsets.US_ASCII))) + ":");
    }

    /** The lines that are signed (RFC 9421, 2.5). */
    private static String base(Map<String, String> components, String input) {
        return components.entrySet().stream()
                        .map(one -> '"' + one.getKey() + "\": " + one.getValue() + "\n")
                        .collect(Collectors.joining())
                + "\"@signature-params\": " + input;
    }

    /** The value of the field Content-Digest (RFC 9530, 2). */
    static String digest(byte[] content) {
        try {
            return "sha-256=:" + base64(MessageDigest.getInstance("SHA-256").digest(content)) + ":";
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    /** HMAC-SHA-256 (RFC 2104) over parts that follow one another. */
    static byte[] hmac(byte[] key, byte[]... parts) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            for (byte[] part : parts) {
                mac.update(part);
            }
            return mac.doFinal();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String base64(byte[] bytes) {
        return Base64.getEncoder().encodeToString(bytes);
    }
}
