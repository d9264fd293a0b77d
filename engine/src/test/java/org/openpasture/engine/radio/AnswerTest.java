package org.openpasture.engine.radio;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.MacCommand;
import org.openpasture.core.lorawan.MacLayer;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.Session;
import org.openpasture.inlets.gateway.Order;

/** What fits into one answer, and when it is sent. */
class AnswerTest {
    private static final Region EUROPE = Region.shipped("eu868");
    private static final Session SESSION =
            new Session(new DevAddr(5), AesKey.ofHex("00".repeat(16)), AesKey.ofHex("11".repeat(16)), 9, 3);
    private static final MacState MAC = MacState.fresh(EUROPE, List.of(), false);
    private static final MacLayer.Turn NOTHING = new MacLayer.Turn(MAC, List.of());

    private static MacLayer.Turn asking(MacCommand.ToDevice... commands) {
        return new MacLayer.Turn(MacState.fresh(EUROPE, List.of(867_100_000L), false), List.of(commands));
    }

    private static Optional<Command> command(int bytes) {
        return Optional.of(new Command(
                1,
                "d",
                Instant.EPOCH,
                "tech",
                "x",
                null,
                null,
                10,
                new byte[bytes],
                true,
                Command.State.WANTED,
                0,
                -1,
                Instant.EPOCH,
                ""));
    }

    private static Optional<Answer> answer(
            String dataRate, boolean confirmed, MacLayer.Turn answers, MacLayer.Turn asks, Optional<Command> command) {
        return Answer.to(
                SESSION,
                EUROPE,
                EUROPE.dataRate(dataRate).orElseThrow(),
                868_300_000,
                false,
                new Answer.Wishes(
                        confirmed,
                        false,
                        answers,
                        room -> MacCommand.toBytes(asks.commands()).length <= room
                                ? asks
                                : new MacLayer.Turn(answers.state(), List.of()),
                        false,
                        command,
                        false));
    }

    @Test
    void whereNothingHasToBeSaidNothingIsSent() {
        assertThat(answer("SF7BW125", false, NOTHING, NOTHING, Optional.empty()))
                .isEmpty();
    }

    @Test
    void anAcknowledgementAloneIsTwelveBytesInBothWindows() {
        assertThat(answer("SF9BW125", true, NOTHING, NOTHING, Optional.empty())).hasValueSatisfying(answer -> {
            assertThat(answer.downlink().bytes()).hasSize(12);
            assertThat(answer.downlink().counter()).isEqualTo(3);
            assertThat(answer.windows())
                    .extracting(
                            Order.Window::name,
                            Order.Window::delaySeconds,
                            Order.Window::frequencyHz,
                            window -> window.dataRate().code())
                    .containsExactly(
                            org.assertj.core.groups.Tuple.tuple("RX1", 1, 868_300_000L, "SF9BW125"),
                            org.assertj.core.groups.Tuple.tuple("RX2", 2, 869_525_000L, "SF12BW125"));
        });
    }

    /** 100 bytes fit at SF7 (222), not at the second window's SF12 (51). */
    @Test
    void whatIsTooLongForTheSecondWindowIsSentInTheFirstOnly() {
        assertThat(answer("SF7BW125", false, NOTHING, NOTHING, command(100))).hasValueSatisfying(answer -> {
            assertThat(answer.windows()).extracting(Order.Window::name).containsExactly("RX1");
            assertThat(answer.command()).isNotNull();
        });
    }

    @Test
    void aCommandThatDoesNotFitWaitsAndTheDeviceIsToldThatSomethingDoes() {
        assertThat(answer("SF12BW125", true, NOTHING, NOTHING, command(100))).hasValueSatisfying(answer -> {
            assertThat(answer.command()).isNull();
            assertThat(answer.downlink().bytes()[5] & 0x10).as("FPending").isNotZero();
        });
        assertThat(answer("SF12BW125", false, NOTHING, NOTHING, command(100)))
                .as("nothing else to say")
                .isEmpty();
    }

    @Test
    void questionsAreLeftForAnotherTimeWhereTheyDoNotFit() {
        MacLayer.Turn time = new MacLayer.Turn(
                MAC, List.of(new MacCommand.DeviceTimeAns(Instant.EPOCH), new MacCommand.LinkCheckAns(5, 1)));
        MacLayer.Turn asks = asking(
                new MacCommand.LinkAdrReq(5, 0, 7, 0, 1),
                new MacCommand.DevStatusReq(),
                new MacCommand.RxTimingSetupReq(2));
        assertThat(answer("SF7BW125", false, time, asks, Optional.empty()))
                .as("6 + 3 + 5 + 1 + 2 bytes are more than 15")
                .hasValueSatisfying(answer -> {
                    assertThat(answer.downlink().bytes()[5] & 0x0F).isEqualTo(9);
                    assertThat(answer.mac()).isEqualTo(MAC);
                });
        assertThat(answer("SF7BW125", false, NOTHING, asks, Optional.empty())).hasValueSatisfying(answer -> {
            assertThat(answer.downlink().bytes()[5] & 0x0F).isEqualTo(8);
            assertThat(answer.mac()).isEqualTo(asks.state());
        });
    }

    /** Three answers to a question for the time are 18 bytes, three more than the options hold. */
    @Test
    void answersThatAreTooManyForTheOptionsGoInThePayloadOnPortZero() {
        MacLayer.Turn times =
                new MacLayer.Turn(MAC, java.util.Collections.nCopies(3, new MacCommand.DeviceTimeAns(Instant.EPOCH)));
        assertThat(answer("SF7BW125", false, times, NOTHING, command(4))).hasValueSatisfying(answer -> {
            byte[] bytes = answer.downlink().bytes();
            assertThat(bytes).hasSize(8 + 1 + 18 + 4);
            assertThat(bytes[5] & 0x0F).as("options").isZero();
            assertThat(bytes[8]).as("port").isZero();
            assertThat(bytes[5] & 0x10).as("the command waits: FPending").isNotZero();
            assertThat(answer.command()).isNull();
        });
        MacLayer.Turn many =
                new MacLayer.Turn(MAC, java.util.Collections.nCopies(60, new MacCommand.DeviceTimeAns(Instant.EPOCH)));
        assertThat(answer("SF12BW125", false, many, NOTHING, Optional.empty()))
                .as("51 bytes are eight answers; the device asks again for the others")
                .hasValueSatisfying(
                        answer -> assertThat(answer.downlink().bytes()).hasSize(8 + 1 + 48 + 4));
    }
}
