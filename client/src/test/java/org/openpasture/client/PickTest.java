package org.openpasture.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** People name things as they like: by id, by number, by a part of the name. */
class PickTest {
    private static final JsonNode POINTS = JsonMapper.shared().readTree("""
      [{"id": "01a", "number": 1, "name": "Axial vibration"}, {"id": "01b", "number": 2, "name": "Radial vibration"},
       {"id": "01c", "number": 12, "name": "Level"}, {"id": "01d", "number": 13, "name": "Level of cream"}]""");

    @ParameterizedTest
    @CsvSource({"01b, 01b", "12, 01c", "axial, 01a", "LEVEL, 01c", "cream, 01d", "Radial vibration, 01b"})
    void findsTheOneThatIsMeant(String meant, String id) {
        assertThat(Service.pick(POINTS, meant, "point").path("id").asString()).isEqualTo(id);
    }

    @Test
    void saysWhatItCouldBeWhereItIsNotClear() {
        assertThatThrownBy(() -> Service.pick(POINTS, "vibration", "point"))
                .hasMessage("'vibration' could be Axial vibration, Radial vibration; say more of the name, or the id");
        assertThatThrownBy(() -> Service.pick(POINTS, "pressure", "point")).hasMessage("there is no point 'pressure'");
    }

    @Test
    void tellsTwoOfOneNameApartByTheirPlaces() {
        JsonNode two = JsonMapper.shared().readTree("""
          [{"id": "01a", "number": 1, "name": "Axial", "path": ["Dairy", "Pump"]},
           {"id": "01b", "number": 31, "name": "Axial", "path": ["Dairy", "Separator"]}]""");
        assertThatThrownBy(() -> Service.pick(two, "axial", "point"))
                .hasMessage(
                        "'axial' could be 'Pump/Axial' (1), 'Separator/Axial' (31); enter the number, or place/name");
        assertThat(Service.pick(two, "separator / axial", "point").path("id").asString())
                .isEqualTo("01b");
    }

    @Test
    void offersTheNearestNameWhereThereIsNone() {
        assertThatThrownBy(() -> Service.pick(POINTS, "Radail vibraton", "point"))
                .hasMessage("there is no point 'Radail vibraton'. Did you mean 'Radial vibration'?");
        assertThatThrownBy(() -> Service.pick(POINTS, "Lvel", "point")).hasMessageContaining("Did you mean 'Level'?");
    }
}
