package org.openpasture.service.dashboard;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.openpasture.core.dashboard.ShareLink;

/**
 * What a browser shows in place of a link's passcode once that was entered: until when, and HMAC-SHA-256 (RFC 2104) of
 * link and time under the hash of the passcode, which only the service knows. Nothing of it is kept here, and it opens
 * one link only.
 */
final class LinkPass {
    static final String COOKIE = "pasture-link";
    static final Duration LASTS = Duration.ofHours(12);

    private LinkPass() {}

    /** A pass for a link, from now on. A link without a passcode needs none; its pass opens nothing else. */
    static String of(ShareLink link, Instant now) {
        long until = now.plus(LASTS).getEpochSecond();
        return until + "." + sealOf(link, until);
    }

    /** Whether a pass opens a link now; a link without a passcode is open without one. */
    static boolean fits(ShareLink link, String pass, Instant now) {
        if (!link.hasPasscode()) {
            return true;
        }
        int dot = pass.indexOf('.');
        if (dot < 1 || dot > 11 || !pass.chars().limit(dot).allMatch(c -> c >= '0' && c <= '9')) {
            return false;
        }
        long until = Long.parseLong(pass, 0, dot, 10);
        return now.getEpochSecond() < until
                && MessageDigest.isEqual(bytes(pass.substring(dot + 1)), bytes(sealOf(link, until)));
    }

    private static String sealOf(ShareLink link, long untilSecond) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            String hash = link.passcodeHash();
            mac.init(new SecretKeySpec(bytes(hash == null ? link.tokenHash() : hash), "HmacSHA256"));
            return HexFormat.of().formatHex(mac.doFinal(bytes(link.id() + "\n" + untilSecond)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("HMAC-SHA-256 is part of every Java platform", e);
        }
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
