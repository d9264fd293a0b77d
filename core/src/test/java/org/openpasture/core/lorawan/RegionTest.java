package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** EU863-870 against RP002-1.0.4: tables 5 (channels), 6 (data rates), 10 (payload, repeater-compatible off), 11 (RX1 offset). */
class RegionTest {
  private final Region region = Region.shipped("eu868");

  @Test
  void hasTheMandatoryChannelsAndDefaults() {
    assertThat(region.defaultChannelsHz()).containsExactly(868_100_000L, 868_300_000L, 868_500_000L);
    assertThat(region.rx2FrequencyHz()).isEqualTo(869_525_000L);
    assertThat(region.rx2().code()).isEqualTo("SF12BW125");
    assertThat(region.rx1DelaySeconds()).isEqualTo(1);
    assertThat(region.joinDelaySeconds()).isEqualTo(5);
  }

  @ParameterizedTest
  @CsvSource({"0, SF12BW125, 51", "1, SF11BW125, 51", "2, SF10BW125, 51", "3, SF9BW125, 115", "4, SF8BW125, 222", "5, SF7BW125, 222",
      "6, SF7BW250, 222"})
  void hasTheDataRates(int index, String code, int longestPayload) {
    assertThat(region.dataRate(code)).hasValueSatisfying(rate -> {
      assertThat(rate.index()).isEqualTo(index);
      assertThat(rate.maxPayload()).isEqualTo(longestPayload);
    });
  }

  @ParameterizedTest
  @CsvSource({"5, 0, 5", "5, 3, 2", "5, 5, 0", "2, 1, 1", "0, 0, 0", "0, 5, 0", "6, 2, 4"})
  void lowersTheFirstWindowByTheOffset(int uplink, int offset, int downlink) {
    assertThat(region.rx1(region.dataRates().get(uplink), offset).index()).isEqualTo(downlink);
  }

  @Test
  void anUnknownRegionIsNamed() {
    assertThatThrownBy(() -> Region.shipped("xx1")).hasMessageContaining("xx1").hasMessageContaining("eu868");
  }
}
