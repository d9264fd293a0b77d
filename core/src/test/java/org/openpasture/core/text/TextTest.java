package org.openpasture.core.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TextTest {
    @Test
    void whatLooksTheSameIsTheSame() {
        assertThat(Text.line("Ku\u0308hlhaus")).isEqualTo("K\u00fchlhaus");
        assertThat(Text.lines("a\nb\tc")).isEqualTo("a\nb\tc");
        assertThat(Text.line("Whey pump 2 – Nord 🐄")).isEqualTo("Whey pump 2 – Nord 🐄");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"a\u0000b", "a\u0007b", "a\u009bb", "a\ud800b", "a\udc00", "a\ufffeb", "a\u202eb", "a\u2066b"})
    void whatCannotBeShownIsRefused(String text) {
        assertThatThrownBy(() -> Text.lines(text)).hasMessageContaining("cannot be shown, U+");
        assertThatThrownBy(() -> Text.line(text)).hasMessageContaining("cannot be shown, U+");
    }

    @ParameterizedTest
    @ValueSource(strings = {"a\nb", "a\rb", "a\tb", "a\u2028b", "a\u0085b"})
    void aNameIsOneLine(String text) {
        assertThatThrownBy(() -> Text.line(text)).hasMessageContaining("cannot be shown");
    }

    @Test
    void aLabelMayHoldTheSeparatorsOfItsCode() {
        assertThat(Text.raw("[)>\u001e06\u001d1P")).isEqualTo("[)>\u001e06\u001d1P");
        assertThatThrownBy(() -> Text.raw("a\u0000")).isInstanceOf(IllegalArgumentException.class);
    }

    /** Long s, the Kelvin sign, full width, ligature, dotted capital I. */
    @ParameterizedTest
    @CsvSource({
        "Ann, ann",
        "hanſ, Hans",
        "\u212Aarl, karl",
        "\uFF41\uFF4E\uFF4E, ann",
        "\uFB01n, FIN",
        "'Jo  Hill', jo hill",
        "'straße', STRASSE",
        "Ku\u0308hn, k\u00fchn"
    })
    void namesAreComparedInOneForm(String one, String other) {
        assertThat(PersonName.key(one)).isEqualTo(PersonName.key(other));
        assertThat(PersonName.key(PersonName.key(one))).isEqualTo(PersonName.key(one));
    }

    @ParameterizedTest
    @ValueSource(strings = {"ann\u200b", "a\u00adnn", "\ufeffann", "a\u2060nn", "ann\u00a0lee", "\u0430nn", "ann\n"})
    void aNameThatLooksLikeAnothersIsRefused(String name) {
        assertThatThrownBy(() -> PersonName.chosen(name)).isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"Ann Lee", "Øystein", "Анна", "Αννα", "山田 たろう", "O'Hara-2", "محمد"})
    void namesOfTheWorldAreTaken(String name) {
        assertThat(PersonName.chosen(name)).isEqualTo(name);
    }

    @Test
    void wordsEndAsASentenceDoes() {
        assertThat(Text.ended("the name is missing")).isEqualTo("the name is missing.");
        assertThat(Text.ended("It is tried again. ")).isEqualTo("It is tried again.");
        assertThat(Text.ended("Did you mean 'x'?")).isEqualTo("Did you mean 'x'?");
        assertThat(Text.ended("choose one of °C, °F")).isEqualTo("choose one of °C, °F.");
        assertThat(Text.ended("")).isEmpty();
    }
}
