package org.openpasture.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Formulas with characters changed, doubled and left out: read or refused in words. {@code -Dfuzz=N} for more. */
class HostileFormulasTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 8_000);
    private static final Set<String> NAMES = Set.of("a", "b");
    private static final String[] TRUE_ONES = {
        "a - b", "max(a, b, 3) / 2^0.5", "if(a > b, a, -b)", "sqrt(abs(a)) * exp(-b) + 1e-3", "((a) + (b))"
    };
    private static final String[] BITS = {
        "(((((", ")", "--", "^^", "1e999", "1e-", "0x1", "a b", ",", "\u0000", "é", "NaN", "if(", "sqrt()", " ", "."
    };

    @Test
    void noFormulaThrowsAnythingButWords() {
        Random random = new Random(24);
        for (int i = 0; i < ROUNDS; i++) {
            StringBuilder text = new StringBuilder(TRUE_ONES[random.nextInt(TRUE_ONES.length)]);
            for (int k = random.nextInt(4); k >= 0; k--) {
                int at = random.nextInt(text.length() + 1);
                if (random.nextBoolean()) {
                    text.insert(at, BITS[random.nextInt(BITS.length)]);
                } else {
                    text.delete(at, Math.min(text.length(), at + random.nextInt(4)));
                }
            }
            try {
                Expression.parse(text.toString(), NAMES).value(new double[] {random.nextGaussian(), 0});
            } catch (IllegalArgumentException expected) {
                assertThat(expected.getMessage()).as("%s", text).isNotBlank();
            }
        }
    }
}
