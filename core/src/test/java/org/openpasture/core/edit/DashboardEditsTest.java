package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Look;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.PointSelection;

class DashboardEditsTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Person LOOKER = new Person("l", "lea", "", false);
    private static final Panel SHOWN = new Panel.Value(frame(List.of("cold"), null), null);
    private static final Panel FAR = new Panel.Value(frame(List.of("barn"), null), null);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Point("cold", 1, "Cold store", "creamery", Quantity.TEMPERATURE, "°C", null, null, null, true),
            new Point("barn", 2, "Barn", "farm", Quantity.TEMPERATURE, "°C", null, null, null, true),
            new Dashboard("board", "Board", "o", "creamery", 4, List.of(FAR)),
            new Dashboard("private", "Private", "o", null, 1, List.of()),
            new ShareLink("link", "board", "hash", "", Instant.EPOCH, null, "o", null),
            OWNER,
            EDITOR,
            LOOKER,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "l", Right.LOOK, "creamery")));

    private static Frame frame(List<String> points, @Nullable PointSelection selection) {
        return new Frame("a", "Panel", points, selection, null, null, 0, 0, 3, 2);
    }

    private static Edited by(Person person, DashboardWish wish) {
        return DashboardEdits.edit(new Access(REGISTRY, person), wish);
    }

    private static DashboardWish.Make make(@Nullable String siteId, Panel... panels) {
        return new DashboardWish.Make("new", "New", siteId, List.of(panels));
    }

    private static DashboardWish.Change change(@Nullable Integer version, Panel... panels) {
        return new DashboardWish.Change("board", "Board", "creamery", List.of(panels), version);
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .as(refused.what())
                .isEqualTo(reason));
    }

    @Test
    void anybodyMakesOneOfTheirOwnOfWhatTheyMaySee() {
        assertThat(by(LOOKER, make(null, SHOWN)))
                .isEqualTo(new Changes(
                        List.of(new Change.Put(new Dashboard("new", "New", "l", null, 1, List.of(SHOWN))))));
        refused(Reason.INVALID, by(LOOKER, make(null, FAR)));
        refused(Reason.NOT_ALLOWED, by(LOOKER, make("creamery", SHOWN)));
        refused(Reason.UNKNOWN, by(LOOKER, make("farm", SHOWN)));
        refused(Reason.UNKNOWN, by(OWNER, make("nowhere", SHOWN)));
    }

    @Test
    void aSelectionIsOfAPlaceThatThePersonMaySee() {
        assertThat(by(
                        LOOKER,
                        make(
                                null,
                                new Panel.Bars(
                                        frame(List.of(), new PointSelection("creamery", null, null, null)), null))))
                .isInstanceOf(Changes.class);
        Panel far = new Panel.Bars(frame(List.of(), new PointSelection("farm", null, null, null)), null);
        refused(Reason.INVALID, by(LOOKER, make(null, far)));
        refused(Reason.INVALID, by(EDITOR, change(4, far)));
    }

    /** Who edits a dashboard that shows more than they may see can change the rest of it, and add nothing of it. */
    @Test
    void whatAPanelShowsAlreadyStays() {
        assertThat(by(
                        EDITOR,
                        change(
                                4,
                                FAR,
                                new Panel.Clock(new Frame("b", "", List.of(), null, null, null, 0, 4, 2, 2), null))))
                .isInstanceOf(Changes.class);
        Panel another = new Panel.Value(new Frame("b", "", List.of("barn"), null, null, null, 0, 4, 2, 2), null);
        refused(Reason.INVALID, by(EDITOR, change(4, FAR, another)));
    }

    @Test
    void anotherVersionSavedMeanwhileClashes() {
        refused(Reason.CLASH, by(EDITOR, change(3, FAR)));
        assertThat(by(EDITOR, change(null, FAR)))
                .isEqualTo(new Changes(
                        List.of(new Change.Put(new Dashboard("board", "Board", "o", "creamery", 5, List.of(FAR))))));
        refused(Reason.NOT_ALLOWED, by(LOOKER, change(4, FAR)));
        refused(Reason.UNKNOWN, by(LOOKER, new DashboardWish.Remove("private")));
    }

    @Test
    void itsLinksGoWithIt() {
        assertThat(by(EDITOR, new DashboardWish.Remove("board")))
                .isEqualTo(new Changes(List.of(
                        new Change.Remove(Kind.SHARE_LINK, "link"), new Change.Remove(Kind.DASHBOARD, "board"))));
    }

    private static Frame at(int x, int y, int w, int h) {
        return new Frame("a", "Panel", List.of(), null, null, null, x, y, w, h);
    }

    private static Frame looking(@Nullable String range, @Nullable Look look) {
        return new Frame("a", "Panel", List.of(), null, range, look, 0, 0, 3, 2);
    }

    private static Look look(int decimals, double lowest, double highest, Map<String, String> words) {
        return new Look(decimals, lowest, highest, words);
    }

    static Stream<Panel> bad() {
        return Stream.of(
                new Panel.Dial(at(-1, 0, 3, 2)),
                new Panel.Dial(at(10, 0, 3, 2)),
                new Panel.Dial(at(0, -1, 3, 2)),
                new Panel.Dial(at(0, 0, 0, 2)),
                new Panel.Dial(at(0, 0, Integer.MAX_VALUE, 2)),
                new Panel.Dial(at(1, 0, Integer.MAX_VALUE, 2)),
                new Panel.Dial(at(0, 0, 3, 0)),
                new Panel.Dial(new Frame("", "No id", List.of(), null, null, null, 0, 0, 3, 2)),
                new Panel.Dial(new Frame("a", "two\nlines", List.of(), null, null, null, 0, 0, 3, 2)),
                new Panel.Dial(new Frame(
                        "a",
                        "Many",
                        IntStream.range(0, 201).mapToObj(i -> "cold").toList(),
                        null,
                        null,
                        null,
                        0,
                        0,
                        3,
                        2)),
                new Panel.Line(looking("a day", null), null),
                new Panel.Line(looking("PT1S", null), null),
                new Panel.Line(looking("P9000D", null), null),
                new Panel.Dial(looking(null, look(7, 0, 1, Map.of()))),
                new Panel.Dial(looking(null, look(1, 1, 1, Map.of()))),
                new Panel.Dial(looking(null, look(1, Double.NaN, 1, Map.of()))),
                new Panel.Dial(looking(null, look(1, 0, 1, Map.of("open", "1")))),
                new Panel.Dial(looking(null, look(1, 0, 1, Map.of("1", " ")))),
                new Panel.Value(at(0, 0, 3, 2), Statistic.SUM),
                new Panel.Days(at(0, 0, 3, 2), Statistic.SUM),
                new Panel.Exposure(at(0, 0, 3, 2), 0),
                new Panel.Spectrum(at(0, 0, 3, 2), null, null, 0.0),
                new Panel.Spectrum(at(0, 0, 3, 2), null, null, Double.NaN),
                new Panel.Exposure(at(0, 0, 3, 2), Integer.MAX_VALUE),
                new Panel.Picture(at(0, 0, 3, 2), null, Double.NaN),
                new Panel.Text(at(0, 0, 3, 2), "x".repeat(20_001)),
                new Panel.Text(at(0, 0, 3, 2), "\u0000"));
    }

    @ParameterizedTest
    @MethodSource("bad")
    void aPanelThatCannotBeShownIsRefusedInWords(Panel panel) {
        refused(Reason.INVALID, by(OWNER, make(null, panel)));
    }

    @Test
    void twoPanelsOfOneIdOrTooManyAreRefused() {
        refused(Reason.INVALID, by(OWNER, make(null, SHOWN, SHOWN)));
        refused(
                Reason.INVALID,
                by(
                        OWNER,
                        make(
                                null,
                                IntStream.range(0, 201)
                                        .mapToObj(i -> (Panel) new Panel.Dial(
                                                new Frame("p" + i, "", List.of(), null, null, null, 0, i, 3, 2)))
                                        .toArray(Panel[]::new))));
    }
}
