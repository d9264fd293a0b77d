package org.openpasture.core.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TopicPatternTest {
    /** The examples of MQTT 5, 4.7.1, and ours with names. */
    @ParameterizedTest
    @CsvSource({
        "sport/tennis/#, sport/tennis/player1/ranking, true",
        "sport/tennis/#, sport/tennis, true",
        "#, anything/at/all, true",
        "sport/+, sport, false",
        "sport/+, sport/, true",
        "+/tennis/#, sport/tennis, true",
        "farm/{id}/state, farm/b7/state, true",
        "farm/{id}/state, farm/b7/state/more, false",
        "farm/{id}/state, farm/b7, false",
        "$share/pasture/farm/{id}/state, farm/b7/state, true",
        "/finance, /finance, true",
        "/finance, finance, false"
    })
    void fitsTopicsAsTheStandardSays(String pattern, String topic, boolean fits) {
        assertThat(new TopicPattern(pattern).match(topic).isPresent()).isEqualTo(fits);
    }

    @Test
    void tellsWhatStoodInPlaceOfItsNames() {
        TopicPattern pattern = new TopicPattern("farm/{site}/+/{serial}/#");
        assertThat(pattern.filter()).isEqualTo("farm/+/+/+/#");
        assertThat(pattern.match("farm/quern/x/b7/state/now")).contains(Map.of("site", "quern", "serial", "b7"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "farm/b{id}", "farm/#/state", "farm/+x", "farm/{}", "farm/{a b}/x"})
    void whatStandsForNoWholePartIsRefused(String pattern) {
        assertThatThrownBy(() -> new TopicPattern(pattern)).isInstanceOf(IllegalArgumentException.class);
    }
}
