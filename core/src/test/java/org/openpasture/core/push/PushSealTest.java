package org.openpasture.core.push;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigInteger;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.Signature;
import java.security.interfaces.ECPublicKey;
import java.security.spec.ECPrivateKeySpec;
import java.time.Instant;
import java.util.Base64;
import org.junit.jupiter.api.Test;

class PushSealTest {
    private static byte[] bytes(String base64url) {
        return Base64.getUrlDecoder().decode(base64url);
    }

    /** RFC 8291, 5 and appendix A. */
    @Test
    void sealsTheExampleOfTheStandard() throws Exception {
        ECPublicKey browser = PushKey.read(
                bytes("BCVxsr7N_eNgVRqvHtD0zTZsEc6-VV-JvLexhqUzORcxaOzi6-AYWXvTBHm4bjyPjs7Vd8pZGH6SRpkNtoIAiw4"));
        ECPublicKey ours = PushKey.read(
                bytes("BP4z9KsN6nGRTbVYI_c7VJSPQTBtkgcy27mlmlMoZIIgDll6e3vCYLocInmYWAmS6TlzAC8wEqKK6PBru3jl7A8"));
        KeyPair own = new KeyPair(
                ours,
                KeyFactory.getInstance("EC")
                        .generatePrivate(new ECPrivateKeySpec(
                                new BigInteger(1, bytes("yfWPiYE-n46HLnH0KqZOF1fJJU3MYrct3AELtAQ-oRw")),
                                ours.getParams())));
        assertThat(PushSeal.seal(
                        "When I grow up, I want to be a watermelon".getBytes(StandardCharsets.US_ASCII),
                        browser,
                        bytes("BTBZMqHH6r4Tts7J_aSIgg"),
                        own,
                        bytes("DGv6ra1nlYgDCS1FRnbzlw")))
                .isEqualTo(
                        bytes("DGv6ra1nlYgDCS1FRnbzlwAAEABBBP4z9KsN6nGRTbVYI_c7VJSPQTBtkgcy27mlmlMoZIIgDll6e3vCYLocIn"
                                + "mYWAmS6TlzAC8wEqKK6PBru3jl7A_yl95bQpu6cVPTpK4Mqgkf1CXztLVBSt2Ks3oZwbuwXPXLWyouBWLVWGNWQexS"
                                + "gSxsj_Qulcy4a-fN"));
    }

    @Test
    void aMessageOfTheLongestKindFillsOneRecord() {
        ECPublicKey browser = (ECPublicKey) PushKey.fresh().getPublic();
        assertThat(PushSeal.seal(new byte[PushSeal.LONGEST], browser, new byte[16]))
                .hasSize(4_096);
        assertThatThrownBy(() -> PushSeal.seal(new byte[PushSeal.LONGEST + 1], browser, new byte[16]))
                .hasMessageContaining("3,993");
    }

    @Test
    void whatIsNoPointOfTheCurveIsRefused() {
        byte[] point = PushKey.write((ECPublicKey) PushKey.fresh().getPublic());
        assertThat(PushKey.write(PushKey.read(point))).isEqualTo(point);
        byte[] beside = point.clone();
        beside[64] ^= 1;
        for (byte[] bad : new byte[][] {beside, new byte[65], new byte[0], new byte[64], new byte[100_000]}) {
            assertThatThrownBy(() -> PushKey.read(bad)).hasMessageContaining("P-256");
        }
        byte[] zero = new byte[65];
        zero[0] = 4;
        assertThatThrownBy(() -> PushKey.read(zero)).hasMessageContaining("P-256");
    }

    /** RFC 8292, 2 and 3: whom it is for, until when, from whom, and signed by the key that stands beside it. */
    @Test
    void theVoucherIsSignedByTheKeyThatItNames() throws Exception {
        KeyPair own = PushKey.fresh();
        String voucher = PushVoucher.of(
                URI.create("https://push.example:8443/p/secret"),
                "https://farm.example",
                own,
                Instant.ofEpochSecond(1_000_000));
        assertThat(voucher).startsWith("vapid t=").doesNotContain("=\"");
        String[] parts = voucher.substring("vapid t=".length()).split(", k=", -1);
        assertThat(bytes(parts[1])).isEqualTo(PushKey.write((ECPublicKey) own.getPublic()));
        String[] token = parts[0].split("\\.", -1);
        assertThat(new String(bytes(token[0]), StandardCharsets.UTF_8))
                .isEqualTo("{\"typ\":\"JWT\",\"alg\":\"ES256\"}");
        assertThat(new String(bytes(token[1]), StandardCharsets.UTF_8))
                .isEqualTo("{\"aud\":\"https://push.example:8443\",\"exp\":1043200,\"sub\":\"https://farm.example\"}");
        Signature signature = Signature.getInstance("SHA256withECDSAinP1363Format");
        signature.initVerify(own.getPublic());
        signature.update((token[0] + "." + token[1]).getBytes(StandardCharsets.US_ASCII));
        assertThat(signature.verify(bytes(token[2]))).isTrue();
    }
}
