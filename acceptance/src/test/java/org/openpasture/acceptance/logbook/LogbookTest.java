package org.openpasture.acceptance.logbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.LiveStream;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.NoticeView;
import org.openpasture.api.event.EventView;
import org.openpasture.api.logbook.LogEntryView;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** What people write about machines: who sees it, who changes it, and where it is found again. */
class LogbookTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static ApiClient owner;
    private static ApiClient fitter;
    private static ApiClient reader;
    private static PointView point;

    @BeforeAll
    static void register() {
        owner = SERVICE.owner();
        plant = new Plant(owner);
        plant.pumpSender();
        plant.release("Axial vibration");
        point = plant.point("Axial vibration");
        fitter = invited("fitter", Right.OPERATE, plant.site);
        reader = invited("reader", Right.LOOK, plant.site);
    }

    private static ApiClient invited(String name, Right right, String target) {
        plant.invite(SERVICE.anonymous(), name, right, target);
        return SERVICE.signIn(name);
    }

    private static LogEntryView write(ApiClient who, Map<String, Object> request) {
        return who.post("api/v1/logbook", request, LogEntryView.class);
    }

    private static List<LogEntryView> entries(ApiClient who, String query) {
        return List.of(who.get("api/v1/logbook?limit=500" + query, LogEntryView[].class));
    }

    @Test
    void anEntryIsFoundAtItsMomentByPlacePointTextAndPerson() {
        Instant yesterday = Instant.now().minus(1, ChronoUnit.DAYS).truncatedTo(ChronoUnit.MILLIS);
        LogEntryView seal =
                write(fitter, Map.of("placeId", plant.pump, "text", "Seal changed.\nIt was worn.", "at", yesterday));
        LogEntryView axis = write(fitter, Map.of("pointId", point.number(), "text", "Sensor screwed on again"));
        assertThat(seal.at()).isEqualTo(yesterday);
        assertThat(seal.text()).isEqualTo("Seal changed.\nIt was worn.");
        assertThat(axis.placeId()).isEqualTo(plant.pump);
        assertThat(entries(reader, "&place=" + plant.site))
                .extracting(LogEntryView::id)
                .contains(axis.id(), seal.id())
                .containsSubsequence(axis.id(), seal.id());
        assertThat(entries(reader, "&point=" + point.id()))
                .extracting(LogEntryView::id)
                .contains(axis.id(), seal.id());
        assertThat(entries(reader, "&text=SEAL+changed&person=fit"))
                .extracting(LogEntryView::id)
                .containsExactly(seal.id());
        assertThat(entries(reader, "&until=" + yesterday.plusMillis(1) + "&since=" + yesterday))
                .extracting(LogEntryView::id)
                .containsExactly(seal.id());
        assertThat(Arrays.stream(reader.get("api/v1/events?kind=logbook", EventView[].class)))
                .filteredOn(event -> event.text().startsWith("Seal changed"))
                .singleElement()
                .matches(event -> event.person().equals("fitter") && event.at().equals(yesterday));
    }

    @Test
    void pagesOfAnySizeMakeTheSameList() {
        Instant at = Instant.parse("2026-01-01T00:00:00Z");
        for (int i = 0; i < 7; i++) {
            write(fitter, Map.of("placeId", plant.site, "text", "Round " + i, "at", at));
        }
        List<LogEntryView> whole = entries(reader, "&text=Round");
        assertThat(whole).hasSize(7);
        Long last = whole.get(2).id();
        List<LogEntryView> rest =
                List.of(reader.get("api/v1/logbook?limit=4&text=Round&after=" + last, LogEntryView[].class));
        assertThat(rest).isEqualTo(whole.subList(3, 7));
        fitter.delete("api/v1/logbook/" + last);
        assertThat(List.of(reader.get("api/v1/logbook?limit=4&text=Round&after=" + last, LogEntryView[].class)))
                .as("removed while somebody pages")
                .isEqualTo(whole.subList(3, 7));
        fitter.post("api/v1/logbook/" + last + "/undo", Map.of());
    }

    @Test
    void anAnswerBelongsToTheMomentOfWhatItAnswers() {
        Instant at = Instant.parse("2026-02-02T10:00:00Z");
        LogEntryView question = write(fitter, Map.of("pointId", point.id(), "text", "What was this?", "at", at));
        LogEntryView answer = write(owner, Map.of("answers", question.id(), "text", "A lorry drove past."));
        assertThat(answer.at()).isEqualTo(at);
        assertThat(answer.pointId()).isEqualTo(point.id());
        assertThat(answer.answers()).isEqualTo(question.id());
    }

    @Test
    void whoWroteItChangesItAndWhatIsRemovedComesBack() {
        LogEntryView entry = write(fitter, Map.of("placeId", plant.pump, "text", "Oil topped up"));
        String path = "api/v1/logbook/" + entry.id();
        assertThat(entry.own()).isTrue();
        assertThat(reader.get(path, LogEntryView.class).own()).isFalse();
        refused(409, "Only fitter can change", () -> owner.put(path, Map.of("text", "No oil")));
        refused(403, "", () -> reader.delete(path));
        fitter.put(path, Map.of("text", "Oil topped up, 2 l"));
        LogEntryView changed = reader.get(path, LogEntryView.class);
        assertThat(changed.text()).isEqualTo("Oil topped up, 2 l");
        assertThat(changed.changedAt()).isNotNull();
        owner.delete(path);
        refused(404, "", () -> fitter.get(path));
        assertThat(entries(reader, "&text=Oil")).isEmpty();
        fitter.post(path + "/undo", Map.of());
        assertThat(entries(reader, "&text=Oil")).hasSize(1);
        refused(404, "", () -> fitter.post(path + "/undo", Map.of()));
    }

    @Test
    void whoOnlyLooksReadsAndAStrangerReadsNothing() {
        LogEntryView entry = write(fitter, Map.of("placeId", plant.pump, "text", "Cover is missing"));
        refused(403, "logbook", () -> write(reader, Map.of("placeId", plant.pump, "text", "x")));
        String elsewhere = owner.post("api/v1/sites", Map.of("name", "Elsewhere"))
                .path("id")
                .asString();
        ApiClient stranger = invited("stranger", Right.MANAGE, elsewhere);
        assertThat(entries(stranger, "")).isEmpty();
        refused(404, "", () -> stranger.get("api/v1/logbook/" + entry.id()));
        refused(404, "", () -> write(stranger, Map.of("answers", entry.id(), "text", "x")));
        refused(404, "", () -> write(stranger, Map.of("placeId", plant.pump, "text", "x")));
        refused(404, "", () -> stranger.get("api/v1/logbook?after=" + entry.id()));
    }

    @Test
    void whatCannotBeIsRefused() {
        refused(400, "text", () -> write(fitter, Map.of("placeId", plant.pump, "text", " \n ")));
        refused(400, "4000", () -> write(fitter, Map.of("placeId", plant.pump, "text", "x".repeat(4_001))));
        refused(400, "place", () -> write(fitter, Map.of("text", "Nowhere")));
        refused(
                400,
                "future",
                () -> write(
                        fitter,
                        Map.of(
                                "placeId",
                                plant.pump,
                                "text",
                                "x",
                                "at",
                                Instant.now().plusSeconds(3_600))));
        refused(
                400,
                "does not belong",
                () -> write(fitter, Map.of("placeId", plant.site, "pointId", point.id(), "text", "x")));
        refused(
                400,
                "may see",
                () -> write(
                        fitter, Map.of("placeId", plant.pump, "text", "x", "recipients", List.of("person:nobody"))));
    }

    /** By the address that a person has chosen for notices. */
    @Test
    void whoIsToReadItReceivesAMail() {
        refused(
                400,
                "no mail address",
                () -> write(
                        fitter,
                        Map.of("placeId", plant.pump, "text", "Read this", "recipients", List.of("person:reader"))));
        reader.put("api/v1/session/notices", Map.of("email", "reader@pasture.example"));
        write(fitter, Map.of("placeId", plant.pump, "text", "Read this", "recipients", List.of("person:reader")));
        assertThat(Arrays.stream(owner.get("api/v1/notices", NoticeView[].class)))
                .anyMatch(notice -> notice.recipient().equals("reader@pasture.example")
                        && notice.subject().equals("Logbook of Whey pump"));
    }

    @Test
    void openPagesLearnOfItAtOnce() {
        try (LiveStream live = new LiveStream(reader, "logbook")) {
            LogEntryView entry = write(fitter, Map.of("placeId", plant.pump, "text", "Listen"));
            Awaitility.await().untilAsserted(() -> assertThat(live.of("logbook"))
                    .extracting(told -> told.path("id").asLong())
                    .containsExactly(entry.id()));
        }
    }
}
