package org.openpasture.core.bacnet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Consumer;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** What is malformed is refused in words, whatever it is: nothing else may come out of reading it. */
class HostilePacketsTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 8_000);
    private static final List<String> GOOD = List.of(
            "810a001501001000c4020010922205ca91032203e7",
            "810a0042010030010e0c020010921e294d4e750a0043616c66206261726e4f29794e75"
                    + "11004578616d706c6520436f6e74726f6c734f29464e75050045432d344f1f",
            "810a00280100100209121c020000042c0000000a39004e09552e444282000" + "02f096f2e8204002f4f",
            "810a003c010030011a0c0500000119833a05a049025e0ea462031701b41336" + "1b000f1e2c419000001f2a04005f6b0135"
                    + "61");
    private static final List<Consumer<byte[]>> READERS =
            List.of(IAm::of, ReadProperty::answer, ReadProperties::answer, CovNotification::of, TrendLog::answer);

    @Test
    void damagedPacketsAreRefused() {
        Random random = new Random(7);
        int read = 0;
        for (int round = 0; round < ROUNDS; round++) {
            byte[] bytes = HexFormat.of().parseHex(GOOD.get(round % GOOD.size()));
            for (int i = random.nextInt(4); i > 0; i--) {
                bytes[4 + random.nextInt(bytes.length - 4)] = (byte) random.nextInt();
            }
            read += reads(bytes) ? 1 : 0;
        }
        assertThat(read).as("some of them are still good").isPositive();
    }

    @Property(tries = 2_000)
    void anyBytesAreReadOrRefused(@ForAll byte[] bytes) {
        READERS.forEach(reader -> attempt(() -> reader.accept(bytes)));
        attempt(() -> Packet.of(bytes));
        attempt(() -> Apdu.of(bytes));
    }

    private static boolean reads(byte[] bytes) {
        boolean[] read = {false};
        attempt(() -> {
            Optional<Packet> packet = Packet.of(bytes);
            if (packet.isPresent()) {
                byte[] content =
                        switch (Apdu.of(packet.get().apdu())) {
                            case Apdu.Answer answer -> answer.content();
                            case Apdu.Unconfirmed said -> said.content();
                            case Apdu.Confirmed asked -> asked.content();
                            case Apdu.Done done -> new byte[0];
                            case Apdu.Failed failed -> new byte[0];
                        };
                READERS.forEach(reader -> attempt(() -> reader.accept(content)));
                read[0] = true;
            }
        });
        return read[0];
    }

    private static void attempt(Runnable reading) {
        try {
            reading.run();
        } catch (IllegalArgumentException refused) {
            assertThat(refused.getMessage()).isNotBlank();
        }
    }
}
