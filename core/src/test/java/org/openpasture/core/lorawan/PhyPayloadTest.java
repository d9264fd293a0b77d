package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PhyPayloadTest {
    @ParameterizedTest
    @CsvSource({
        "40f17dbe4900, too short for a LoRaWAN frame: 6 bytes",
        "41f17dbe490000000144f6e3c5bd, not LoRaWAN release 1 (major version 1)",
        "60f17dbe490000000144f6e3c5bd, 'a downlink of some network, not a device''s frame'",
        "e0f17dbe490000000144f6e3c5bd, 'a proprietary frame, not LoRaWAN'",
        "00f17dbe490000000144f6e3c5bd, 'a join request has 23 bytes, this has 14'",
        "40f17dbe490f00000144f6e3c5bd, options of 15 bytes do not fit into a frame of 14",
        "40f17dbe4901000002000102030405, 'MAC commands both in the options and on port 0, which the standard forbids'"
    })
    void whatIsNoFrameIsRefusedInWords(String hex, String reason) {
        assertThat(PhyPayload.parse(Vectors.hex(hex))).isEqualTo(new PhyPayload.Parsed.Refused(reason));
    }

    @Property(tries = 20_000)
    void noBytesMakeItThrow(@ForAll @Size(max = 300) byte[] bytes) {
        assertThatCode(() -> PhyPayload.parse(bytes)).doesNotThrowAnyException();
    }

    @Property(tries = 5_000)
    void rightHeadersWithAnyRestDoNotEither(@ForAll @Size(min = 11, max = 254) byte[] rest) {
        for (int header : new int[] {0x00, 0x40, 0x80}) {
            byte[] bytes = new byte[rest.length + 1];
            bytes[0] = (byte) header;
            System.arraycopy(rest, 0, bytes, 1, rest.length);
            assertThatCode(() -> PhyPayload.parse(bytes)).doesNotThrowAnyException();
        }
    }
}
