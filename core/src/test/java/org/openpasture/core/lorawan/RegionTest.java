package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Against the tables of RP002-1.0.4: channels, data rates, longest payloads (by a repeater too), first window, second
 * window.
 */
class RegionTest {
    @ParameterizedTest
    @CsvSource({
        "eu868, 3, 868100000, 868500000, 869525000, SF12BW125, 16",
        "us915, 72, 902300000, 914200000, 923300000, SF12BW500, 30",
        "au915, 72, 915200000, 927100000, 923300000, SF12BW500, 30",
        "as923-1, 2, 923200000, 923400000, 923200000, SF10BW125, 16",
        "in865, 3, 865062500, 865985000, 866550000, SF10BW125, 30"
    })
    void hasItsChannelsAndItsSecondWindow(
            String id, int channels, long first, long last, long rx2, String rx2Rate, int eirp) {
        Region region = Region.shipped(id);
        assertThat(region.channelsHz()).hasSize(channels).startsWith(first).endsWith(last);
        assertThat(region.rx2FrequencyHz()).isEqualTo(rx2);
        assertThat(region.rx2().code()).isEqualTo(rx2Rate);
        assertThat(region.maxEirpDbm()).isEqualTo(eirp);
    }

    @ParameterizedTest
    @CsvSource({
        "eu868, 0, SF12BW125, 51",
        "eu868, 2, SF10BW125, 51",
        "eu868, 3, SF9BW125, 115",
        "eu868, 5, SF7BW125, 222",
        "eu868, 6, SF7BW250, 222",
        "us915, 0, SF10BW125, 11",
        "us915, 1, SF9BW125, 53",
        "us915, 2, SF8BW125, 125",
        "us915, 4, SF8BW500, 222",
        "au915, 0, SF12BW125, 51",
        "au915, 6, SF8BW500, 222",
        "as923-1, 3, SF9BW125, 115",
        "in865, 4, SF8BW125, 222"
    })
    void hasItsDataRates(String id, int index, String code, int longest) {
        assertThat(Region.shipped(id).dataRate(code)).hasValueSatisfying(rate -> {
            assertThat(rate.index()).isEqualTo(index);
            assertThat(rate.maxPayload(false)).isEqualTo(longest);
        });
    }

    @ParameterizedTest
    @CsvSource({
        "au915, 1, 0",
        "au915, 2, 11",
        "au915, 3, 53",
        "au915, 4, 125",
        "as923-1, 0, 0",
        "as923-1, 2, 11",
        "as923-1, 5, 222",
        "eu868, 0, 51"
    })
    void allowsLessWhereTheDwellTimeIsLimited(String id, int index, int longest) {
        assertThat(Region.shipped(id).dataRate(index).orElseThrow().maxPayload(true))
                .isEqualTo(longest);
    }

    /** Rows "uplink data rate: first window for each offset", as the tables have them. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "eu868 | 0 | 0 0 0 0 0 0",
                "eu868 | 3 | 3 2 1 0 0 0",
                "eu868 | 5 | 5 4 3 2 1 0",
                "eu868 | 6 | 6 5 4 3 2 1",
                "us915 | 0 | 10 9 8 8",
                "us915 | 1 | 11 10 9 8",
                "us915 | 2 | 12 11 10 9",
                "us915 | 3 | 13 12 11 10",
                "us915 | 4 | 13 13 12 11",
                "au915 | 0 | 8 8 8 8 8 8",
                "au915 | 2 | 10 9 8 8 8 8",
                "au915 | 5 | 13 12 11 10 9 8",
                "au915 | 6 | 13 13 12 11 10 9",
                "as923-1 | 0 | 2 2 2 2 2 2 2 2",
                "as923-1 | 4 | 4 3 2 2 2 2 5 5",
                "as923-1 | 5 | 5 4 3 2 2 2 5 5",
                "in865 | 0 | 0 0 0 0 0 0 1 2",
                "in865 | 3 | 3 2 1 0 0 0 4 5",
                "in865 | 5 | 5 4 3 2 1 0 5 5"
            })
    void lowersTheFirstWindowByTheOffset(String id, int uplink, String row) {
        Region region = Region.shipped(id);
        List<Integer> expected =
                Arrays.stream(row.split(" ")).map(Integer::valueOf).toList();
        for (int offset = 0; offset < expected.size(); offset++) {
            assertThat(region.rx1(region.dataRate(uplink).orElseThrow(), offset, true)
                            .index())
                    .as("offset %d", offset)
                    .isEqualTo(expected.get(offset));
        }
    }

    @Test
    void aDynamicPlanAnswersWhereItWasAsked() {
        assertThat(Region.shipped("eu868").rx1FrequencyHz(867_300_000)).isEqualTo(867_300_000);
    }

    @ParameterizedTest
    @CsvSource({
        "us915, 902300000, 923300000",
        "us915, 903700000, 927500000",
        "us915, 903900000, 923300000",
        "us915, 904600000, 923900000",
        "au915, 916800000, 923300000",
        "au915, 917000000, 923900000"
    })
    void aFixedPlanAnswersOnTheChannelThatBelongsToIt(String id, long uplink, long downlink) {
        assertThat(Region.shipped(id).rx1FrequencyHz(uplink)).isEqualTo(downlink);
    }

    @ParameterizedTest
    @CsvSource({
        "us915, 902300000, 1",
        "us915, 903900000, 2",
        "us915, 904600000, 2",
        "us915, 914200000, 8",
        "eu868, 868100000, 0",
        "us915, 868100000, 0"
    })
    void everyChannelOfAFixedPlanHasItsSubBand(String id, long hz, int subBand) {
        assertThat(Region.shipped(id).subBandOf(hz)).isEqualTo(subBand);
    }

    /**
     * ETSI EN 300 220 for Europe: one hundredth of the time where devices talk, a tenth and more power at 869.525 MHz.
     */
    @ParameterizedTest
    @CsvSource({"868100000, 0.01, 14", "867100000, 0.01, 14", "868800000, 0.001, 14", "869525000, 0.1, 27"})
    void rationsTheAirByFrequency(long hz, double share, int power) {
        assertThat(Region.shipped("eu868").subBand(hz)).hasValueSatisfying(band -> {
            assertThat(band.dutyCycle()).isEqualTo(share);
            assertThat(band.maxPowerDbm()).isEqualTo(power);
        });
        assertThat(Region.shipped("eu868").powerDbm(hz)).isEqualTo(power);
    }

    @Test
    void everyRegionThatShipsIsWhole() {
        for (String id : Region.SHIPPED) {
            Region region = Region.shipped(id);
            assertThat(region.id()).isEqualTo(id);
            assertThat(region.extraChannelsHz().size()
                            + (region.isFixed() ? 0 : region.channelsHz().size()))
                    .isLessThanOrEqualTo(8);
            region.dataRates().stream()
                    .filter(DataRate::isForUplinks)
                    .forEach(rate -> assertThat(region.rx1(rate, 0, true)).isNotNull());
        }
    }

    @Test
    void anUnknownRegionIsNamed() {
        assertThatThrownBy(() -> Region.shipped("xx1"))
                .hasMessageContaining("xx1")
                .hasMessageContaining("eu868")
                .hasMessageContaining("us915");
    }
}
