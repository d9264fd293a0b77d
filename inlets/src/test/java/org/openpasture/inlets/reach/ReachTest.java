package org.openpasture.inlets.reach;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ReachTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "localhost",
                "127.0.0.1",
                "127.8.9.10",
                "0.0.0.0",
                "169.254.169.254",
                "[::1]",
                "[::]",
                "[::ffff:127.0.0.1]",
                "[::7f00:1]",
                "[64:ff9b::7f00:1]",
                "[2002:7f00:1::]",
                "[fe80::1]"
            })
    void thisMachineIsReachedOnlyWhereAnOwnerLetsIt(String host) {
        assertThatThrownBy(() -> Reach.OUTSIDE.check(host)).hasMessageContaining("lies in this machine");
        assertThatThrownBy(() -> Reach.NOT_THIS_MACHINE.check(host)).hasMessageContaining("lies in this machine");
        assertThatCode(() -> Reach.ANYWHERE.check(host)).doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "10.1.2.3",
                "172.16.0.1",
                "172.31.255.255",
                "192.168.1.7",
                "100.64.0.1",
                "100.127.1.1",
                "[fd00::1]",
                "[fec0::1]",
                "[64:ff9b::c0a8:107]",
                "[2002:a00:1::]",
                "224.0.0.1",
                "255.255.255.255"
            })
    void theNetworksAroundAreForFieldbusesAndOwners(String host) {
        assertThatThrownBy(() -> Reach.OUTSIDE.check(host)).hasMessageContaining("networks around this machine");
        assertThatCode(() -> Reach.NOT_THIS_MACHINE.check(host)).doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(strings = {"192.0.2.7", "172.32.0.1", "100.128.0.1", "[2001:db8::1]"})
    void everythingElseIsOutside(String host) {
        assertThatCode(() -> Reach.OUTSIDE.check(host)).doesNotThrowAnyException();
    }

    @Test
    void aHostThatThereIsNotIsSaid() {
        assertThatThrownBy(() -> Reach.OUTSIDE.check("no-such-host.invalid"))
                .hasMessage("there is no host no-such-host.invalid");
    }
}
