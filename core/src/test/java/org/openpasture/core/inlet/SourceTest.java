package org.openpasture.core.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.framing.Framing;
import tools.jackson.databind.json.JsonMapper;

class SourceTest {
    private static final JsonMapper MAPPER = JsonMapper.shared();

    @Test
    void everyKindIsWrittenAndReadAgain() {
        SerialLine line = new SerialLine("/dev/ttyUSB0", 19_200, 8, "even", 1);
        for (Source source : List.of(
                new Source.TcpPort(4_001, null),
                new Source.UdpPort(4_002, "127.0.0.1"),
                new Source.SerialPort(line),
                new Source.HttpInbox(),
                new Source.HttpFetch(URI.create("https://weather.example/now"), 300, null),
                new Source.ModbusTcp(500),
                new Source.ModbusRtuOverTcp("192.0.2.9", 4_196, null),
                new Source.ModbusSerial(line, null))) {
            assertThat(MAPPER.readValue(MAPPER.writerFor(Source.class).writeValueAsString(source), Source.class))
                    .isEqualTo(source);
        }
        assertThat(MAPPER.readValue(
                                "{\"kind\": \"modbus-serial\", \"line\": {\"device\": \"/dev/ttyUSB0\", \"baud\": 9600}}",
                                Source.class)
                        .address())
                .isEqualTo("Modbus RTU at /dev/ttyUSB0, 9600 bit/s");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '\0',
            value = {
                "{\"kind\":\"tcp\",\"port\":70000} | a port is 1 to 65535, not 70000",
                "{\"kind\":\"serial\",\"line\":{\"device\":\"/dev/ttyS0\",\"baud\":7}} | the speed of a serial port is 50 to 4000000",
                "{\"kind\":\"http-fetch\",\"url\":\"ftp://a/b\",\"everySeconds\":5} | begins with http:// or https://",
                "{\"kind\":\"http-fetch\",\"url\":\"http://me:secret@a/b\",\"everySeconds\":5} | give it as a secret header",
                "{\"kind\":\"http-fetch\",\"url\":\"http://a/b\",\"everySeconds\":0} | every 1 to 86400 seconds",
                "{\"kind\":\"modbus-tcp\",\"timeoutMillis\":5} | waited for 20 to 60000 ms"
            })
    void whatCannotBeIsSaidInWords(String json, String words) {
        assertThatThrownBy(() -> MAPPER.readValue(json, Source.class)).hasMessageContaining(words);
    }

    @Test
    void anInletThatIsSpokenToHasToKnowHowMessagesAreOpened() {
        assertThat(new Inlet(
                                "i",
                                "Meters",
                                "s",
                                false,
                                new Source.ModbusTcp(null),
                                new Framing.Whole(),
                                null,
                                null,
                                null)
                        .paused(true)
                        .paused())
                .isTrue();
        assertThatThrownBy(() -> new Inlet(
                        "i", "Bridge", "s", false, new Source.TcpPort(1, null), new Framing.Whole(), null, null, null))
                .hasMessageContaining("contents");
        assertThatThrownBy(() -> new Inlet(
                        "i", "Meters", "s", false, new Source.ModbusTcp(null), new Framing.Whole(), null, 0, null))
                .hasMessageContaining("1 to 86400 seconds");
    }
}
