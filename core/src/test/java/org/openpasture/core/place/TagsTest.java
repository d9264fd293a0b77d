package org.openpasture.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TagsTest {
    @Test
    void eachIsThereOnceInTheOrderOfTheAlphabet() {
        assertThat(Tags.of(List.of("winter watch", " Cold chain ", "cold chain")))
                .containsExactly("Cold chain", "winter watch");
        assertThat(Tags.contains(List.of("Cold chain"), "COLD CHAIN")).isTrue();
        assertThat(Tags.of(null)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "  ", "a,b", "xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx", "two\nlines", "\u0000"})
    void whatCannotBeATagIsRefused(String bad) {
        assertThatThrownBy(() -> Tags.of(List.of(bad))).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void tooManyAreRefused() {
        List<String> many = IntStream.range(0, 13).mapToObj(i -> "t" + i).toList();
        assertThatThrownBy(() -> Tags.of(many)).hasMessageContaining("at most 12 tags");
    }
}
