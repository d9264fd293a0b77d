package org.openpasture.engine.export;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.senml.SenmlUnit;

class AsciiWriterTest {
    private static String written(ThrowingUse use) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        AsciiWriter writer = new AsciiWriter(bytes);
        use.with(writer);
        writer.flush();
        return bytes.toString(StandardCharsets.UTF_8);
    }

    private interface ThrowingUse {
        void with(AsciiWriter writer) throws IOException;
    }

    /** Zones with whole hours, half hours, and clocks that change by an hour or half of one. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "UTC",
                "Europe/Paris",
                "Asia/Kolkata",
                "Asia/Kathmandu",
                "Australia/Lord_Howe",
                "America/St_Johns",
                "Pacific/Apia"
            })
    void everyTimeReadsBackAsTheSameMomentWithTheZonesOffset(String id) throws IOException {
        ZoneId zone = ZoneId.of(id);
        Random random = new Random(4);
        long time = Instant.parse("2026-01-01T00:00:00Z").toEpochMilli();
        AsciiWriter[] one = new AsciiWriter[1];
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        one[0] = new AsciiWriter(bytes);
        for (int i = 0; i < 20_000; i++) {
            bytes.reset();
            one[0].time(time, zone);
            one[0].flush();
            OffsetDateTime back = OffsetDateTime.parse(bytes.toString(StandardCharsets.US_ASCII));
            assertThat(back.toInstant().toEpochMilli()).isEqualTo(time);
            assertThat(back.getOffset()).isEqualTo(zone.getRules().getOffset(Instant.ofEpochMilli(time)));
            time += random.nextInt(4_000_000);
        }
    }

    @Test
    void secondsHaveNoFractionWhereThereIsNone() throws IOException {
        long time = Instant.parse("2026-03-01T08:05:09Z").toEpochMilli();
        assertThat(written(out -> out.time(time, ZoneId.of("Europe/Paris")))).isEqualTo("2026-03-01T09:05:09+01:00");
        assertThat(written(out -> out.time(time + 7, ZoneId.of("UTC")))).isEqualTo("2026-03-01T08:05:09.007Z");
    }

    @Test
    void numbersAreWrittenAsShortAsTheyAre() throws IOException {
        assertThat(written(out -> out.number(2))).isEqualTo("2");
        assertThat(written(out -> out.number(-0.25))).isEqualTo("-0.25");
        assertThat(written(out -> out.number(1e300))).isEqualTo("1.0E300");
        assertThat(written(out -> out.number(1e12))).isEqualTo("1.0E12");
    }

    @Test
    void longTextsPassTheBufferInOrder() throws IOException {
        String text = "é".repeat(60_000);
        assertThat(written(out -> out.put("a").put(text).put('b').put("c".repeat(70_000))))
                .isEqualTo("a" + text + "b" + "c".repeat(70_000));
    }

    @Test
    void unitsOfSenmlAreConvertedWithoutDust() {
        SenmlUnit speed = SenmlUnit.of("mm/s");
        assertThat(speed.senml()).isEqualTo("m/s");
        assertThat(speed.toSenml(2.07)).isEqualTo(0.00207);
        assertThat(speed.fromSenml(0.00207)).isEqualTo(2.07);
        assertThat(SenmlUnit.of("bar").toSenml(2.5)).isEqualTo(250_000);
        assertThat(SenmlUnit.of("THI").senml())
                .as("the registry has no such unit")
                .isEmpty();
        for (String unit : List.of("°C", "%", "m", "V", "ppm")) {
            assertThat(SenmlUnit.of(unit).toSenml(12.5)).isEqualTo(12.5);
        }
    }
}
