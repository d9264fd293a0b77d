package org.openpasture.core.decoding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.layout.ChannelValue;

class ChannelTextTest {
    @ParameterizedTest
    @CsvSource({
        "8.4, 8.4",
        "8, 8",
        "100, 100",
        "0.00004, 0",
        "0.00005, 0.0001",
        "-0.1, -0.1",
        "-0.00001, 0",
        "1234567.25, 1234567.25",
        "1e15, 1000000000000000",
        "0.1234567, 0.1235",
        "NaN, NaN",
        "Infinity, Infinity"
    })
    void numbersArePlainWithFourDecimalsAtMost(double number, String text) {
        assertThat(ChannelText.of(List.of(new ChannelValue("x", number)))).isEqualTo("x=" + text);
    }

    @Test
    void channelsAreSeparatedByBlanks() {
        assertThat(ChannelText.of(List.of(new ChannelValue("a", 1), new ChannelValue("b", 2.5))))
                .isEqualTo("a=1 b=2.5");
        assertThat(ChannelText.of(List.of())).isEmpty();
    }
}
