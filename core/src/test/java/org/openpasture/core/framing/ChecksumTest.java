package org.openpasture.core.framing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChecksumTest {
    /** The check values of the usual catalogue of CRCs: the sum of the nine characters 123456789. */
    @ParameterizedTest
    @CsvSource({
        "crc-8, F4",
        "crc-8-polynomial-31, A1",
        "crc-16-modbus, 4B37",
        "crc-16-arc, BB3D",
        "crc-16-ccitt-false, 29B1",
        "crc-16-xmodem, 31C3",
        "crc-16-x25, 906E",
        "crc-32, CBF43926",
        "sum-8, DD",
        "xor-8, 31",
        "sum-8-inverted, 22",
        "sum-8-negated, 23"
    })
    void givesTheCheckValueOfTheCatalogue(String id, String hex) {
        byte[] digits = "123456789".getBytes(StandardCharsets.US_ASCII);
        assertThat(Checksum.of(id).over(digits, 0, 9)).isEqualTo(Long.parseLong(hex, 16));
        assertThat(Checksum.of(id).bytes()).isEqualTo(hex.length() / 2);
    }

    @Test
    void anUnknownOneIsToldWhichThereAre() {
        assertThatThrownBy(() -> Checksum.of("md5")).hasMessageStartingWith("no checksum 'md5'; there are none, sum-8");
    }
}
