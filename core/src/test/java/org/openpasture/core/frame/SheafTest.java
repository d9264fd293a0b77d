package org.openpasture.core.frame;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SheafTest {
    private static final Instant NOON = Instant.parse("2026-11-26T12:00:00Z");

    private static Frame message(@Nullable String device, int number, Frame.Outcome outcome) {
        byte[] bytes = ("{\"n\":" + number + "}").getBytes(StandardCharsets.UTF_8);
        return new Frame(
                0,
                NOON.plusSeconds(5_000),
                NOON.plusSeconds(number),
                Frame.MESSAGE,
                device,
                "inlet",
                "a1",
                bytes,
                bytes,
                -1,
                -1,
                outcome,
                null,
                null,
                "n=" + number,
                List.of());
    }

    private static List<Frame> messages(String device, int from, int until) {
        List<Frame> frames = new ArrayList<>();
        for (int i = from; i < until; i++) {
            frames.add(message(device, i, Frame.Outcome.ACCEPTED));
        }
        return frames;
    }

    @Test
    void aFewStayFramesOfTheirOwn() {
        List<Frame> frames = messages("d1", 0, 10);
        frames.addAll(messages("d2", 0, 10));
        assertThat(Sheaf.bind(frames)).containsExactlyElementsOf(frames);
    }

    @Test
    void manyOfOneDeviceAreBoundInTheOrderOfTheirTimes() {
        List<Frame> frames = messages("d1", 5, 20);
        frames.addAll(messages("d1", 0, 5));
        List<Frame> bound = Sheaf.bind(frames);
        assertThat(bound).singleElement().satisfies(frame -> {
            assertThat(frame.kind()).isEqualTo(Frame.MESSAGES);
            assertThat(frame.isData()).isTrue();
            assertThat(frame.time()).as("the newest stands for all").isEqualTo(NOON.plusSeconds(19));
            assertThat(frame.values()).isEqualTo("n=19");
            assertThat(frame.reason()).isEqualTo("20 at once");
            assertThat(frame.contents()).hasSize(20);
            assertThat(frame.contents().getFirst().time()).isEqualTo(NOON);
            assertThat(new String(frame.contents().get(7).payload(), StandardCharsets.UTF_8))
                    .isEqualTo("{\"n\":7}");
        });
    }

    @Test
    void othersAreLeftAndNoFrameHoldsMoreThanAThousand() {
        List<Frame> frames = messages("d1", 0, 2_300);
        frames.add(message("d1", 1, Frame.Outcome.REFUSED));
        frames.add(message(null, 2, Frame.Outcome.REFUSED));
        frames.addAll(messages("d2", 0, 3));
        assertThat(Sheaf.bind(frames))
                .hasSize(2 + 3 + 3)
                .extracting(frame -> frame.contents().size())
                .containsOnly(1, 1_000, 300);
    }

    @ParameterizedTest
    @CsvSource({
        "59, 20 at once",
        "60, '20 at once, over 1 min'",
        "3700, '20 at once, over 1 h 1 min'",
        "90000, '20 at once, over 25 h 0 min'",
        "180000, '20 at once, over 2 days'"
    })
    void howLongTheyTookIsSaid(int seconds, String words) {
        List<Frame> frames = messages("d1", 0, 19);
        frames.add(message("d1", seconds, Frame.Outcome.ACCEPTED));
        assertThat(Sheaf.bind(frames).getFirst().reason()).isEqualTo(words);
    }

    @Test
    void aMessageByItselfHoldsItself() {
        assertThat(message("d1", 4, Frame.Outcome.ACCEPTED).contents())
                .singleElement()
                .satisfies(part -> assertThat(part.time()).isEqualTo(NOON.plusSeconds(4)));
    }

    @Property(tries = 200)
    void whatIsBoundComesBack(@ForAll @Size(max = 30) List<byte[]> payloads) {
        List<Sheaf.Part> parts = new ArrayList<>();
        for (int i = 0; i < payloads.size(); i++) {
            parts.add(new Sheaf.Part(NOON.minusMillis(7L * i), payloads.get(i)));
        }
        assertThat(Sheaf.of(Sheaf.toBytes(parts))).usingRecursiveComparison().isEqualTo(parts);
    }

    @Property(tries = 300)
    void anyBytesAreReadOrRefused(@ForAll byte[] noise) {
        try {
            assertThat(Sheaf.toBytes(Sheaf.of(noise))).isEqualTo(noise);
        } catch (IllegalArgumentException e) {
            assertThat(e)
                    .hasMessageMatching("it ends in the middle of a message|a message is longer than what follows");
        }
        assertThatThrownBy(() -> Sheaf.of(new byte[] {1, 2, 3})).isInstanceOf(IllegalArgumentException.class);
    }
}
