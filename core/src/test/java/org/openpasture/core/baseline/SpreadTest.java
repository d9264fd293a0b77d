package org.openpasture.core.baseline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;

class SpreadTest {
    /** 1.4826 is the standard deviation of a normal distribution over its median absolute deviation. */
    @Test
    void ofNormallyDistributedValuesItIsThreeStandardDeviationsToEitherSide() {
        double[] values =
                new Random(7).doubles(40_000).map(SpreadTest::gaussian).toArray();
        Spread spread = Spread.of(values);
        assertThat(spread.median()).isCloseTo(5, within(0.03));
        assertThat(spread.low()).isCloseTo(2, within(0.1));
        assertThat(spread.high()).isCloseTo(8, within(0.1));
    }

    /** By twelve even draws, which come close enough to the normal distribution inside of three deviations. */
    private static double gaussian(double seed) {
        Random random = new Random(Double.doubleToLongBits(seed));
        return 5 + DoubleStream.generate(random::nextDouble).limit(12).sum() - 6;
    }

    @Test
    void aFewSpikesWidenNothing() {
        double[] quiet = DoubleStream.iterate(0, i -> i < 100, i -> i + 1)
                .map(i -> 2 + (i % 5) / 10)
                .toArray();
        double[] spiked = quiet.clone();
        spiked[10] = 400;
        spiked[50] = -300;
        assertThat(Spread.of(spiked).low()).isEqualTo(Spread.of(quiet).low());
        assertThat(Spread.of(spiked).high()).isEqualTo(Spread.of(quiet).high());
        assertThat(Spread.of(spiked).highest()).isEqualTo(400);
    }

    @Test
    void valuesThatSpreadUpwardsHaveMoreRoomUpwards() {
        Spread spread = Spread.of(new double[] {1, 1.1, 1.2, 1.3, 1.4, 1.5, 2, 3, 4, 5, 6});
        assertThat(spread.high() - spread.median()).isGreaterThan(3 * (spread.median() - spread.low()));
    }

    @Test
    void ofValuesThatAreAllTheSameNothingElseIsNormal() {
        Spread spread = Spread.of(DoubleStream.generate(() -> 3).limit(20).toArray());
        assertThat(spread.isUsual(3)).isTrue();
        assertThat(spread.isUsual(3.01)).isFalse();
        assertThatThrownBy(() -> Spread.of(new double[9])).hasMessage("a baseline needs 10 readings, not 9");
    }
}
