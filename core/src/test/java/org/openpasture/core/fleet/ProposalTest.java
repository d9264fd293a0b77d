package org.openpasture.core.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.openpasture.core.layout.AdvertLayout;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.quantity.Quantity;

class ProposalTest {
    private static Proposal of(String text) {
        return Proposal.of(text.getBytes(StandardCharsets.UTF_8)).orElseThrow();
    }

    @Test
    void everyNumberOfAJsonMessageBecomesAChannel() {
        Proposal proposal = of(
                "{\"id\":\"A7\",\"air\":{\"temp\":8.4,\"humidity\":61},\"probes\":[{\"temp\":5},{\"temp\":6}],\"door\":false}");
        assertThat(proposal.values())
                .containsExactly(
                        new ChannelValue("temp", 8.4),
                        new ChannelValue("humidity", 61),
                        new ChannelValue("temp_2", 5),
                        new ChannelValue("temp_3", 6),
                        new ChannelValue("door", 0));
        assertThat(proposal.channels().getFirst()).isEqualTo(Channel.of("temp", "Temp", Quantity.TEMPERATURE, "°C"));
    }

    @Test
    void namesWithBlanksAndQuotesAreReachedAndImpossibleOnesLeftOut() {
        assertThat(of("{\"rel hum\":1,\"it's\":2,\"a\\\"b\":3,\"'\\\"\":4,\"\":5}")
                        .values())
                .extracting(ChannelValue::value)
                .containsExactly(1.0, 2.0, 3.0, 5.0);
    }

    @Test
    void theSeparatorThatGivesTheMostNumbersIsTaken() {
        assertThat(of("WS2;8,4;1013;0,2").values())
                .containsExactly(
                        new ChannelValue("value_1", 8.4),
                        new ChannelValue("value_2", 1013),
                        new ChannelValue("value_3", 0.2));
        assertThat(of("N7,T=8.4,RH=61").values())
                .containsExactly(new ChannelValue("t", 8.4), new ChannelValue("rh", 61));
        assertThat(Proposal.of("hello world".getBytes(StandardCharsets.UTF_8))).isEmpty();
    }

    @Test
    void theBytesOfAnAdvertAreShownOneByOne() {
        assertThat(Proposal.of(HexFormat.of().parseHex("02010605161a18a2fe")))
                .get()
                .satisfies(proposal -> {
                    assertThat(proposal.layout()).isInstanceOf(AdvertLayout.class);
                    assertThat(proposal.values())
                            .containsExactly(new ChannelValue("byte_0", 0xa2), new ChannelValue("byte_1", 0xfe));
                });
    }
}
