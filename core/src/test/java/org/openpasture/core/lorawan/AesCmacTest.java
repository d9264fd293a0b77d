package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AesCmacTest {
    private static final String MESSAGE = "6bc1bee22e409f96e93d7e117393172aae2d8a571e03ac9c9eb76fac45af8e51"
            + "30c81c46a35ce411e5fbc1191a0a52eff69f2445df4f9b17ad2b417be66c3710";

    /** The examples of RFC 4493, section 4. */
    @ParameterizedTest
    @CsvSource({
        "0, bb1d6929e95937287fa37d129b756746",
        "16, 070a16b46b4d4144f79bdd9dd04a287c",
        "40, dfa66747de9ae63030ca32611497c827",
        "64, 51f0bebf7e3b9d92fc49741779363cfe"
    })
    void followsTheRfc(int length, String code) {
        AesKey key = AesKey.ofHex("2b7e1516 28aed2a6 abf71588 09cf4f3c");
        byte[] message = HexFormat.of().parseHex(MESSAGE.substring(0, length * 2));
        assertThat(HexFormat.of().formatHex(key.cmac(message))).isEqualTo(code);
    }

    @Test
    void aKeyNeverShowsItself() {
        assertThat(AesKey.ofHex("2b7e151628aed2a6abf7158809cf4f3c")).hasToString("AesKey(hidden)");
    }

    @Test
    void wrongKeysAreExplained() {
        assertThatThrownBy(() -> AesKey.ofHex("2b7e")).hasMessage("a key has 32 hex digits, this one has 4");
        assertThatThrownBy(() -> AesKey.ofHex("zz".repeat(16))).hasMessageContaining("0-9 and a-f");
    }
}
