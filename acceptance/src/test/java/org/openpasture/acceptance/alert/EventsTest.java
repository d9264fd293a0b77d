package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.event.EventView;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;

/** Everything that happened, in one list. */
class EventsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static Probes probes;
    private static PointView point;

    /** An alert that is acknowledged with a note, one that returns, readings that are erased, rules that are made. */
    @BeforeAll
    static void letThingsHappen() throws IOException, InterruptedException {
        ApiClient owner = SERVICE.owner();
        plant = new Plant(owner);
        probes = Probes.register(SERVICE, plant);
        probes.bringIn("p1", plant.pump);
        point = Arrays.stream(owner.get("api/v1/points", PointView[].class))
                .filter(one -> one.name().equals("Air"))
                .findFirst()
                .orElseThrow();
        plant.release("Air");
        for (String severity : List.of("warning", "critical")) {
            owner.post(
                    "api/v1/rules",
                    Map.of(
                            "name",
                            "Hot, " + severity,
                            "severity",
                            severity,
                            "target",
                            Map.of("kind", "point", "pointId", point.id()),
                            "condition",
                            Map.of("kind", "above", "limit", severity.equals("warning") ? 70 : 90)));
        }
        reading(95);
        Awaitility.await().until(() -> plant.alerts().size() == 2);
        String alert = plant.alerts().getFirst().id();
        owner.post("api/v1/alerts/" + alert + "/acknowledgement", Map.of("text", "I drive there."));
        reading(60);
        Awaitility.await().until(() -> plant.alerts().stream().allMatch(one -> one.returnedAt() != null));
        owner.post(
                "api/v1/points/" + point.id() + "/erase",
                Map.of(
                        "from",
                        "2026-01-01T00:00:00Z",
                        "until",
                        Instant.now().plusSeconds(60),
                        "note",
                        "A test of the sensor",
                        "dryRun",
                        false));
        plant.invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
        String other = owner.post("api/v1/sites", Map.of("name", "Elsewhere"))
                .path("id")
                .asString();
        plant.invite(SERVICE.anonymous(), "stranger", Right.LOOK, other);
    }

    private static void reading(double value) throws IOException, InterruptedException {
        probes.post("[{\"a\": \"p1\", \"t\": " + value + ", \"rh\": 50}]");
    }

    private static List<EventView> events(ApiClient who, String query) {
        return Arrays.asList(who.get("api/v1/events?limit=1000&" + query, EventView[].class));
    }

    @Test
    void whatHappenedToAnAlertIsToldStepByStep() {
        List<EventView> found = events(SERVICE.owner(), "kind=alert,note&severity=critical");
        assertThat(found)
                .extracting(EventView::text)
                .contains("raised at 95 °C: above 90 °C", "back to normal at 60 °C");
        assertThat(found).allMatch(event -> event.severity() == Severity.CRITICAL);
        assertThat(events(SERVICE.owner(), "kind=note"))
                .singleElement()
                .satisfies(note -> assertThat(note.text()).isEqualTo("I drive there."))
                .satisfies(note -> assertThat(note.person()).isEqualTo("owner"))
                .satisfies(note -> assertThat(note.alertId()).isNotNull());
    }

    @Test
    void changesOfTheRecordAndOfTheRegistryAreInIt() {
        assertThat(events(SERVICE.owner(), "kind=correction"))
                .singleElement()
                .satisfies(event -> assertThat(event.title()).isEqualTo("Air"))
                .satisfies(event -> assertThat(event.text()).startsWith("A test of the sensor: 2 readings before, 0"));
        assertThat(events(SERVICE.owner(), "kind=change&text=hot"))
                .extracting(EventView::text)
                .contains("made");
    }

    @Test
    void pagesOfAnySizeMakeTheSameList() {
        List<EventView> whole = events(SERVICE.owner(), "");
        assertThat(whole).hasSizeGreaterThan(15).extracting(EventView::id).doesNotHaveDuplicates();
        assertThat(whole).extracting(EventView::at).isSortedAccordingTo(Comparator.reverseOrder());
        for (int size : new int[] {1, 2, 7}) {
            List<EventView> pages = new ArrayList<>();
            EventView[] page = SERVICE.owner().get("api/v1/events?limit=" + size, EventView[].class);
            while (page.length > 0) {
                pages.addAll(Arrays.asList(page));
                page = SERVICE.owner()
                        .get(
                                "api/v1/events?limit=" + size + "&after="
                                        + pages.getLast().id(),
                                EventView[].class);
            }
            assertThat(pages).as("by %d", size).isEqualTo(whole);
        }
    }

    @Test
    void itIsNarrowedByPlaceTimePersonAndText() {
        assertThat(events(SERVICE.owner(), "place=" + plant.pump)).isNotEmpty().allMatch(event -> event.path()
                .contains("Whey pump"));
        assertThat(events(SERVICE.owner(), "until=2026-01-01T00:00:00Z")).isEmpty();
        assertThat(events(SERVICE.owner(), "since=2100-01-01T00:00:00Z")).isEmpty();
        assertThat(events(SERVICE.owner(), "person=OWN&kind=alert"))
                .isNotEmpty()
                .allMatch(event -> event.person().equals("owner"));
        assertThat(events(SERVICE.owner(), "text=no%20such%20thing")).isEmpty();
    }

    @Test
    void aReaderSeesTheirPlacesAndNoChangesAndAStrangerNothing() {
        List<EventView> seen = events(SERVICE.signIn("reader"), "");
        assertThat(seen)
                .extracting(EventView::kind)
                .contains("alert", "note", "correction")
                .doesNotContain("change");
        ApiClient stranger = SERVICE.signIn("stranger");
        assertThat(events(stranger, "")).isEmpty();
        refused(404, "place", () -> stranger.get("api/v1/events?place=" + plant.pump));
    }

    @Test
    void whatCannotBeAskedForIsSaid() {
        ApiClient owner = SERVICE.owner();
        refused(400, "there are change, correction", () -> owner.get("api/v1/events?kind=weather"));
        refused(400, "is no event", () -> owner.get("api/v1/events?after=yesterday"));
        refused(400, "is no event", () -> owner.get("api/v1/events?after=99999999999999999999-alert-1"));
    }

    @Test
    void itIsATableForOtherPrograms() throws IOException {
        ByteArrayOutputStream csv = new ByteArrayOutputStream();
        SERVICE.owner().download("api/v1/events/export?kind=alert", csv);
        assertThat(csv.toString(StandardCharsets.UTF_8))
                .startsWith("\"time\",\"kind\",\"severity\",\"place\",\"about\",\"what\",\"person\"")
                .contains("acknowledged");
    }
}
