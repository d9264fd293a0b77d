package org.openpasture.engine.secret;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TotpTest {
    private static final byte[] SECRET = "12345678901234567890".getBytes(StandardCharsets.US_ASCII);

    /** RFC 6238, appendix B (the last six of its eight digits), and three that oathtool of OATH Toolkit gives. */
    @ParameterizedTest
    @CsvSource({
        "1970-01-01T00:00:59Z, 287082",
        "2005-03-18T01:58:29Z, 081804",
        "2005-03-18T01:58:31Z, 050471",
        "2009-02-13T23:31:30Z, 005924",
        "2033-05-18T03:33:20Z, 279037",
        "2603-10-11T11:33:20Z, 353130"
    })
    void givesTheCodesOfTheStandard(Instant time, String code) {
        assertThat(Totp.code(SECRET, time.getEpochSecond() / Totp.STEP_SECONDS)).isEqualTo(code);
    }

    @Test
    void aNeighbouringStepIsTakenAndOneFurtherAwayIsNot() {
        Instant now = Instant.parse("2026-11-28T12:00:15Z");
        long step = now.getEpochSecond() / Totp.STEP_SECONDS;
        assertThat(Totp.stepOf(SECRET, Totp.code(SECRET, step - 1), now)).hasValue(step - 1);
        assertThat(Totp.stepOf(SECRET, Totp.code(SECRET, step + 1).replaceAll("(...)", "$1 "), now))
                .hasValue(step + 1);
        assertThat(Totp.stepOf(SECRET, Totp.code(SECRET, step - 2), now)).isEmpty();
        assertThat(Totp.stepOf(SECRET, "", now)).isEmpty();
    }
}
