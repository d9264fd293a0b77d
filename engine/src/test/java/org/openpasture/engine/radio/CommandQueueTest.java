package org.openpasture.engine.radio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.fleet.Command;
import org.openpasture.engine.TestClock;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/** What waits for devices, in order, with a real store behind it. */
class CommandQueueTest {
    @TempDir
    private Path folder;

    private final TestClock clock = new TestClock();
    private TelemetryStore store;
    private CommandQueue queue;

    @BeforeEach
    void open() {
        store = TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), clock);
        queue = new CommandQueue(store, store.radioMemory(), clock);
    }

    @AfterEach
    void close() {
        store.close();
    }

    private Command draft(String setting, double value, boolean confirmed) {
        return new Command(
                0,
                "d",
                clock.instant(),
                "tech",
                setting + " = " + value,
                setting,
                value,
                10,
                new byte[] {(byte) value},
                confirmed,
                Command.State.WANTED,
                0,
                -1,
                clock.instant(),
                "waits");
    }

    private Command kept(long id) {
        store.submit(Deposit.of()).join();
        return store.commands().find(id).orElseThrow();
    }

    @Test
    void theyGoInOrderOneAtATime() {
        Command first = queue.want(draft("interval", 30, true));
        Command second = queue.want(draft("range", 4, false));
        assertThat(queue.next("d")).contains(first);
        assertThat(queue.count("d")).isEqualTo(2);
        queue.sent(first.id(), "d", 7, "sent in RX1");
        assertThat(queue.awaited("d"))
                .hasValueSatisfying(one -> assertThat(one.counter()).isEqualTo(7));
        assertThat(queue.next("d")).contains(second);
        queue.acknowledged(queue.awaited("d").orElseThrow());
        assertThat(kept(first.id()).state()).isEqualTo(Command.State.ACKNOWLEDGED);
        queue.sent(second.id(), "d", 8, "sent in RX1");
        assertThat(kept(second.id())).satisfies(one -> {
            assertThat(one.state()).isEqualTo(Command.State.SENT);
            assertThat(one.reason()).isEqualTo("sent in RX1");
        });
        assertThat(queue.next("d")).isEmpty();
    }

    @Test
    void aNewerWishForTheSameSettingTakesThePlaceOfTheOlder() {
        Command old = queue.want(draft("interval", 30, true));
        Command fresh = queue.want(draft("interval", 60, true));
        assertThat(queue.next("d")).contains(fresh);
        assertThat(kept(old.id()).reason()).isEqualTo("another value was wanted");
    }

    @Test
    void threeSilencesFailIt() {
        Command command = queue.want(draft("interval", 30, true));
        for (int i = 1; i <= 3; i++) {
            assertThat(queue.next("d")).as("try %d", i).isPresent();
            queue.sent(command.id(), "d", i, "sent");
            queue.missed(queue.awaited("d").orElseThrow());
        }
        assertThat(queue.next("d")).isEmpty();
        assertThat(kept(command.id())).satisfies(one -> {
            assertThat(one.state()).isEqualTo(Command.State.FAILED);
            assertThat(one.tries()).isEqualTo(3);
        });
    }

    @Test
    void whatNoGatewayCanSendWaitsAndFailsAfterTenTimes() {
        Command command = queue.want(draft("interval", 30, true));
        for (int i = 0; i < 9; i++) {
            queue.notSent(command.id(), "d", "too late");
            assertThat(queue.next("d")).isPresent();
        }
        assertThat(kept(command.id()).reason()).isEqualTo("could not be sent: too late. It is tried again");
        queue.notSent(command.id(), "d", "too late");
        assertThat(kept(command.id()).state()).isEqualTo(Command.State.FAILED);
    }

    @Test
    void whatWasSentCannotBeTakenBack() {
        Command command = queue.want(draft("interval", 30, true));
        assertThat(queue.cancel(command.id(), "d", "owner")).isTrue();
        assertThat(queue.cancel(command.id(), "d", "owner")).isFalse();
        Command other = queue.want(draft("range", 2, true));
        queue.sent(other.id(), "d", 1, "sent");
        assertThat(queue.cancel(other.id(), "d", "owner")).isFalse();
    }

    @Test
    void aNewSessionSendsAgainWhatWasOnItsWay() {
        Command command = queue.want(draft("interval", 30, true));
        queue.sent(command.id(), "d", 900, "sent");
        queue.sessionBegan("d");
        assertThat(queue.next("d"))
                .hasValueSatisfying(one -> assertThat(one.reason()).contains("joined anew"));
    }

    @Test
    void whatIsNotDoneWithOutlivesARestartAndNumbersGoOn() {
        Command waiting = queue.want(draft("interval", 30, true));
        Command sent = queue.want(draft("range", 2, true));
        queue.sent(sent.id(), "d", 5, "sent");
        Command done = queue.want(draft("gain", 3, false));
        queue.sent(done.id(), "d", 6, "sent");
        kept(done.id());
        close();
        open();
        assertThat(queue.next("d"))
                .hasValueSatisfying(one -> assertThat(one.id()).isEqualTo(waiting.id()));
        assertThat(queue.awaited("d"))
                .hasValueSatisfying(one -> assertThat(one.id()).isEqualTo(sent.id()));
        assertThat(queue.want(draft("x", 1, true)).id()).isEqualTo(done.id() + 1);
    }

    @Test
    void thereIsAnEndToWhatWaits() {
        for (int i = 0; i < 50; i++) {
            queue.want(draft("s" + i, 1, true));
        }
        assertThatThrownBy(() -> queue.want(draft("one more", 1, true))).hasMessageContaining("50 commands wait");
    }
}
