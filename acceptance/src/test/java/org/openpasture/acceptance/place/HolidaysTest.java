package org.openpasture.acceptance.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.Year;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.HolidaysRequest;
import org.openpasture.api.place.HolidaysView;
import org.openpasture.core.place.Holiday;
import tools.jackson.databind.json.JsonMapper;

/** A site's holidays come from a calendar file, and rules with hours leave them out. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class HolidaysTest {
    private static final int NEXT = Year.now().getValue() + 1;

    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
    }

    private static String path() {
        return "api/v1/sites/" + plant.site + "/holidays";
    }

    private static HolidaysView file(String content, boolean dryRun) {
        return JsonMapper.shared()
                .treeToValue(
                        SERVICE.owner()
                                .putFile(
                                        path() + "/file?dryRun=" + dryRun,
                                        "text/calendar",
                                        new ByteArrayInputStream(content.getBytes(StandardCharsets.UTF_8))),
                        HolidaysView.class);
    }

    @Test
    @Order(1)
    void aFileIsLookedAtFirstAndThenAdded() {
        String calendar = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:" + NEXT
                + "1225\r\nSUMMARY:Christmas Day\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        Holiday christmas = new Holiday(LocalDate.of(NEXT, 12, 25), "Christmas Day");

        assertThat(file(calendar, true).days()).containsExactly(christmas);
        assertThat(SERVICE.owner().get(path(), HolidaysView.class).days()).isEmpty();
        assertThat(file(calendar, false).days()).containsExactly(christmas);
        assertThat(file(NEXT + "-05-01,May Day", false).days())
                .containsExactly(new Holiday(LocalDate.of(NEXT, 5, 1), "May Day"), christmas);
    }

    @Test
    @Order(2)
    void rulesWithHoursOnSomeDaysAreNamed() {
        for (String days : List.of("[\"SATURDAY\", \"SUNDAY\"]", "null")) {
            SERVICE.owner()
                    .post(
                            "api/v1/rules",
                            JsonMapper.shared()
                                    .readTree("{\"name\": \"Hot, " + (days.equals("null") ? "always" : "weekends")
                                            + "\", \"target\": {\"kind\": \"point\", \"pointId\": \""
                                            + plant.point("Bearing temperature").id()
                                            + "\"}, \"condition\": {\"kind\": \"above\", \"limit\": 80},"
                                            + " \"active\": {\"days\": " + days
                                            + ", \"from\": \"08:00\", \"until\": \"17:00\"},"
                                            + " \"severity\": \"warning\", \"enabled\": true, \"recipients\": []}"));
        }
        assertThat(SERVICE.owner().get(path(), HolidaysView.class).rules()).containsExactly("Hot, weekends");
    }

    @Test
    @Order(3)
    void whatIsNoneIsRefusedAndNothingIsLost() {
        assertThatThrownBy(() -> file("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nRRULE:FREQ=DAILY", false))
                .hasMessageContaining("names no day");
        assertThatThrownBy(() ->
                        SERVICE.owner().put("api/v1/sites/" + plant.pump + "/holidays", new HolidaysRequest(List.of())))
                .hasMessageContaining("site");
        assertThatThrownBy(() -> SERVICE.owner()
                        .put(path(), Map.of("days", List.of(Map.of("date", "2026-02-30", "name", "None")))))
                .isNotNull();
        assertThatThrownBy(() -> SERVICE.owner().put(path(), Map.of())).hasMessageContaining("holidays is missing");
        assertThatThrownBy(() -> SERVICE.owner().put(path(), Map.of("days", Collections.singletonList(null))))
                .hasMessageContaining("'days' contains null");
        assertThat(SERVICE.owner().get(path(), HolidaysView.class).days()).hasSize(2);
        SERVICE.owner().put(path(), new HolidaysRequest(List.of()));
        assertThat(SERVICE.owner().get(path(), HolidaysView.class).days()).isEmpty();
    }
}
