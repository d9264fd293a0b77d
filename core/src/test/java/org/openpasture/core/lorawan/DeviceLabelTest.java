package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The example of TR005, with its checksum, and what people scan instead. */
class DeviceLabelTest {
    private static final String EXAMPLE =
            "LW:D0:1122334455667788:AABBCCDDEEFF0011:AABB1122:OAABBCCDDEEFF:SYYWWNNNNNN:PFOOBAR:CAF2C";

    @Test
    void readsTheExampleOfTheRecommendation() {
        assertThat(DeviceLabel.parse(EXAMPLE))
                .isEqualTo(new DeviceLabel(
                        Eui64.of("1122334455667788"), Eui64.of("aabbccddeeff0011"), "AABB", "1122", "YYWWNNNNNN"));
    }

    @Test
    void theOptionalFieldsMayBeMissing() {
        assertThat(DeviceLabel.parse(" LW:D0:1122334455667788:AABBCCDDEEFF0011:AABB1122 ")
                        .serialNumber())
                .isNull();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "LW:D0:1122334455667788:AABBCCDDEEFF0012:AABB1122:OAABBCCDDEEFF:SYYWWNNNNNN:PFOOBAR:CAF2C | checksum does not fit",
                "LW:D0:1122334455667788:AABBCCDDEEFF0011 | not the code of a LoRaWAN device",
                "https://pasture.example/x | not the code of a LoRaWAN device",
                "LW:D0:112233445566778:AABBCCDDEEFF0011:AABB1122 | the JoinEUI in the code is wrong: an EUI has 16 hex digits",
                "LW:D0:1122334455667788:AABBCCDDEEFF00XX:AABB1122 | the DevEUI in the code is wrong",
                "LW:D0:1122334455667788:AABBCCDDEEFF0011:AABB112 | the profile in the code has eight hex digits"
            })
    void whatIsWrongIsSaid(String scanned, String reason) {
        assertThatThrownBy(() -> DeviceLabel.parse(scanned))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(reason);
    }
}
