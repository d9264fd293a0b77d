package org.openpasture.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ExpressionTest {
    private static final Map<String, Double> VALUES = Map.of("a", 6.0, "b", 4.0);

    private static double value(String text) {
        return Expression.parse(text + " + 0 * (a + b)", VALUES.keySet()).value(VALUES);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a + b * 2                | 14",
                "(a + b) * 2              | 20",
                "a - b - 1                | 1",
                "a / b / 2                | 0.75",
                "-a^2                     | -36",
                "2^-1                     | 0.5",
                "2^3^2                    | 512",
                "- -a                     | 6",
                "1.5e2 + .5               | 150.5",
                "min(a, b) + max(a; b)    | 10",
                "mean(a, b, 2)            | 4",
                "sqrt(b) + abs(-3)        | 5",
                "when(a > b, 1, 2)        | 1",
                "when(a <= b, 1, 2)       | 2",
                "(a >= 6) * 10            | 10",
                "clamp(a, 0, 5)           | 5",
                "table(a, 0,0, 4,40, 8,60)| 50",
                "table(99, 0,0, 4,40)     | 40",
                "table(-9, -1,7, 4,40)    | 7",
                "known(previous, 5)       | 5",
                "known(a.before, a)       | 6",
                "levels(a, 1, 2, 6, 9)    | 2"
            })
    void computesAsPeopleWriteIt(String text, double expected) {
        assertThat(value(text)).isCloseTo(expected, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "levels(a, -1, 2)  | the dead band of 'levels' is a number from 0",
                "levels(a, 1, 4,2) | the boundaries of 'levels' are numbers that ascend",
                "levels(a, 1, b)   | the boundaries of 'levels' are numbers that ascend",
                "c.before          | 'c.before' is not known",
                "a +               | the formula ends too early",
                "a b               | 'b' is not expected",
                "(a                | a ')' is missing",
                "a * c             | 'c' is not known; there are a, b",
                "sin(a)            | there is no function 'sin'",
                "sqrt(a, b)        | 'sqrt' takes 1 value, not 2",
                "1.2.3 * a         | '1.2.3' is no number",
                "table(a, 3,0, 2,9)| the x of a table are numbers that ascend",
                "table(a, 1,0, 2,9, 3) | 'table' takes a value and then pairs",
                "a $ b             | '$' is not expected"
            })
    void saysWhatIsWrong(String text, String message) {
        assertThatThrownBy(() -> Expression.parse(text, Set.of("a", "b")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(message)
                .hasMessageContaining("character");
    }

    @Test
    void whatIsNamedIsUsed() {
        assertThatThrownBy(() -> Expression.parse("a * 2", Set.of("a", "b"))).hasMessageContaining("does not use b");
    }

    @Test
    void aDivisionByZeroIsNoNumber() {
        assertThat(Expression.parse("a / (b - b)", VALUES.keySet()).value(VALUES))
                .isInfinite();
        assertThat(Expression.parse("(b - b) / (a - a)", VALUES.keySet()).value(VALUES))
                .isNaN();
    }

    @Test
    void whatIsMuchTooDeepIsRefused() {
        assertThatThrownBy(() -> Expression.parse("(".repeat(900) + "a", Set.of("a")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Expression.parse("-".repeat(900) + "a", Set.of("a")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(Expression.parse("a" + "+1".repeat(490), Set.of("a")).value(Map.of("a", 1.0)))
                .isEqualTo(491);
        assertThatThrownBy(() -> Expression.parse("a" + "+1".repeat(5_000), Set.of("a")))
                .hasMessageContaining("the maximum is 1000");
    }

    /** Whatever is typed is read or refused. */
    @Property
    void nothingElseComesOfAnyText(@ForAll String text) {
        try {
            Expression.parse(text, Set.of("a")).value(Map.of("a", 1.0));
        } catch (IllegalArgumentException e) {
            assertThat(e).hasMessageNotContaining("null");
        }
    }
}
