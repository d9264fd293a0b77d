package org.openpasture.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.api.alert.NoteRequest;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.dashboard.ShareRequest;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.people.SetupRequest;
import org.openpasture.api.problem.Require;
import org.openpasture.api.radio.CommandRequest;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Target;
import tools.jackson.databind.json.JsonMapper;

/** What a request lacks is said in the words of who filled in the form. */
class RequestsTest {
    @Test
    void aTextIsStrippedAndNeitherEmptyNorEndless() {
        assertThat(Require.text("  Creamery ", "the name", 10)).isEqualTo("Creamery");
        assertThatThrownBy(() -> Require.text(" ", "the name", 10)).hasMessage("the name is missing");
        assertThatThrownBy(() -> Require.text(null, "the name", 10)).hasMessage("the name is missing");
        assertThatThrownBy(() -> Require.text("Creamery of the North", "the name", 10))
                .hasMessage("the name is longer than 10 characters");
    }

    @Test
    void aPasswordIsLongEnoughAndNotLongerThanItsHashReads() {
        assertThatThrownBy(() -> new SetupRequest("code", "owner", null, "short"))
                .hasMessage("the password needs at least 10 characters");
        assertThatThrownBy(() -> new SetupRequest("code", "owner", null, "ä".repeat(37)))
                .hasMessage("the password is longer than 72 bytes");
        assertThatCode(() -> new SetupRequest("code", "owner", null, "äöüß".repeat(9)))
                .doesNotThrowAnyException();
    }

    @Test
    void aDeviceHasKeysOfOneOfTheTwoWays() {
        Eui64 eui = new Eui64(1);
        assertThatCode(() -> new DeviceRequest("d", "m", "p", eui, null, "key", null, null, null, null, null, null))
                .doesNotThrowAnyException();
        assertThatCode(() -> new DeviceRequest("d", "m", "p", eui, null, null, "addr", "nwk", "app", null, null, null))
                .doesNotThrowAnyException();
        assertThatThrownBy(
                        () -> new DeviceRequest("d", "m", "p", eui, null, null, "addr", "nwk", null, null, null, null))
                .hasMessage("a personalised device needs all of devAddr, nwkSKey and appSKey");
        assertThatCode(() -> new DeviceRequest("d", "m", "p", eui, null, null, null, null, null, null, null, null))
                .as("its key may be in the list")
                .doesNotThrowAnyException();
    }

    @Test
    void aCommandIsASettingWithItsValueOrBytesForAPort() {
        assertThat(new CommandRequest(null, null, 10, " 01 00 3C ", null).payload())
                .isEqualTo("01003C");
        assertThat(new CommandRequest(null, null, 10, "", null).isConfirmed()).isTrue();
        assertThatThrownBy(() -> new CommandRequest("interval", null, null, null, null))
                .hasMessage("the value of the setting is missing");
        assertThatThrownBy(() -> new CommandRequest(null, null, null, "01", null))
                .hasMessageContaining("the port, or a setting with its value");
        assertThatThrownBy(() -> new CommandRequest(null, null, 224, "01", null))
                .hasMessage("the port is 1 to 223, not 224");
        assertThatThrownBy(() -> new CommandRequest(null, null, 1, "012", null))
                .hasMessageContaining("two for each byte");
        assertThatThrownBy(() -> new CommandRequest(null, null, 1, "00".repeat(223), null))
                .hasMessageContaining("222 bytes at most");
    }

    @ParameterizedTest
    @CsvSource({"ann@x.example, true", "ann, false", "ann@x example, false", "'ann@x.example>', false"})
    void recipientsAreMailAddresses(String address, boolean taken) {
        Runnable make = () -> new RuleRequest(
                "r",
                new Target.OfPoint("p"),
                new Condition.Above(5),
                null,
                null,
                Severity.WARNING,
                null,
                List.of(address),
                null);
        if (taken) {
            assertThatCode(make::run).doesNotThrowAnyException();
        } else {
            assertThatThrownBy(make::run).hasMessageContaining("is no e-mail address");
        }
    }

    @Test
    void aRuleIsReadFromAFile() {
        RuleRequest rule = JsonMapper.shared().readValue("""
        {"name": "Too wet", "target": {"kind": "asset", "assetId": "a", "quantity": "humidity"}, "condition": {"kind": "outside", "low": 80, "high": 95},
         "hold": {"kind": "time", "seconds": 900}, "severity": "advisory"}""", RuleRequest.class);
        assertThat(rule.condition()).isEqualTo(new Condition.Outside(80, 95));
        assertThat(rule.recipients()).isNull();
        assertThatThrownBy(() -> JsonMapper.shared()
                        .readValue(
                                "{\"name\": \"x\", \"target\": {\"kind\": \"point\", \"pointId\": \"p\"}, \"severity\": \"warning\"}",
                                RuleRequest.class))
                .hasStackTraceContaining("the condition is missing");
    }

    @Test
    void spansPortsAndNotesHaveBounds() {
        assertThatThrownBy(() -> new ShareRequest(null, 0, null)).hasMessage("a link is open for 1 to 365 days");
        assertThatCode(() -> new ShareRequest(null, null, null)).doesNotThrowAnyException();
        assertThatThrownBy(() -> new MailSettings("mail", 70_000, "a@b", null, null, false))
                .hasMessage("the mail server's port lies between 1 and 65535");
        assertThatThrownBy(() -> new NoteRequest("x".repeat(2_001)))
                .hasMessage("the note is longer than 2000 characters");
    }
}
