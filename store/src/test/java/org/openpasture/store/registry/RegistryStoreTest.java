package org.openpasture.store.registry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Look;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.layout.ByteLayout;
import org.openpasture.core.layout.Field;
import org.openpasture.core.layout.FieldType;
import org.openpasture.core.layout.Message;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Position;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

class RegistryStoreTest {
    private static final Instant NOW = Instant.parse("2026-03-01T08:00:00Z");
    private static final Site SITE = new Site("s", "Creamery", ZoneId.of("Europe/London"), new Position(54.2, -2.3));

    @TempDir
    private Path folder;

    private RegistryDatabase database;
    private RegistryStore store;

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        store = new RegistryStore(database, Clock.offset(Clock.systemUTC(), Duration.ZERO));
    }

    @AfterEach
    void close() {
        database.close();
    }

    private static List<Change> puts(Entity... entities) {
        return java.util.Arrays.stream(entities).<Change>map(Change.Put::new).toList();
    }

    /** One of each kind with each variant that it can hold. */
    private static Entity[] oneOfEach() {
        Calibration calibration =
                new Calibration.Steps(List.of(new Calibration.TwoPoint(4, 0, 20, 8), new Calibration.Clamp(0, 8)));
        return new Entity[] {
            SITE,
            new Area("a", "Whey room", "s"),
            new Asset("m", "Pump", "a", "pump", List.of("iso-10816-1-class-1")),
            new Point(
                    "p", 1, "Axial", "m", Quantity.VIBRATION_VELOCITY, "mm/s", null, "axial", "at the coupling", true),
            LimitLibrary.shipped().getFirst(),
            DeviceModel.of(
                    "dm",
                    "Sender",
                    10,
                    "battery",
                    new ByteLayout(List.of(new Message(
                            2,
                            List.of(new Field(
                                    "v", 0, FieldType.U16, "little", new Field.Bits(0, 4), 0.1, 1.0, 65_535.0))))),
                    List.of(new Channel(
                            "v",
                            "Velocity",
                            Quantity.VIBRATION_VELOCITY,
                            "mm/s",
                            "axial",
                            calibration,
                            null,
                            null,
                            null))),
            new Gateway("g", "Mast", Eui64.of("02ab54fffe10a001"), "s"),
            new Device("d1", "joins", "dm", "m", new RadioIdentity.OverTheAir(new Eui64(1), new Eui64(2))),
            new Device("d2", "personalised", "dm", "m", new RadioIdentity.Personalised(new Eui64(3), new DevAddr(4))),
            new Assignment("as", "d1", "v", "p", NOW, null, calibration),
            new Rule(
                    "r",
                    "zone",
                    new Target.OfAsset("m", Quantity.VIBRATION_VELOCITY),
                    new Condition.InZone(Severity.WARNING),
                    new Hold.ForReports(3),
                    0.2,
                    Severity.WARNING,
                    true,
                    List.of("a@b.example"),
                    "look"),
            new Rule(
                    "r2",
                    "silent",
                    new Target.OfPoint("p"),
                    new Condition.Silent(60),
                    new Hold.ForTime(0),
                    0,
                    Severity.ADVISORY,
                    false,
                    List.of(),
                    ""),
            new Dashboard(
                    "db",
                    "Glance",
                    "o",
                    "s",
                    3,
                    List.of(new Panel.Line(
                            new Frame(
                                    "x",
                                    "t",
                                    List.of("p"),
                                    new PointSelection("s", Quantity.LEVEL, "tank", "winter"),
                                    "P1D",
                                    new Look(1, 0.0, 5.0, Map.of("0", "empty")),
                                    0,
                                    0,
                                    6,
                                    4),
                            Panel.Scale.FIT))),
            new ShareLink("l", "db", "hash", "for the owner", NOW, NOW.plusSeconds(60), "o", null),
            new Person("o", "owner", "o@x.example", true),
            new Grant("gr", "o", Right.EDIT, "s"),
            new Group("group", "Shift", List.of("o"))
        };
    }

    /** Kinds of panels were once any word, and nobody's records may keep the service from starting. */
    @Test
    void aPanelOfAKindThatIsUnknownIsKeptAsAText() {
        store.change("owner", puts(new Dashboard("db", "Board", "o", null, 1, List.of())));
        database.write(dsl -> dsl.execute(
                "update entity set body = replace(body, '\"panels\":[]', ?) where id = 'db'",
                "\"panels\":[{\"id\":\"x\",\"kind\":\"hologram\",\"title\":\"Old\",\"pointIds\":[\"p\"],\"assetId\":null,"
                        + "\"range\":null,\"text\":null,\"x\":0,\"y\":0,\"w\":3,\"h\":2}]"));
        assertThat(new RegistryStore(database, Clock.systemUTC())
                        .now()
                        .find(Dashboard.class, "db")
                        .orElseThrow()
                        .panels())
                .singleElement()
                .isInstanceOf(Panel.Text.class)
                .extracting(panel -> panel.frame().title())
                .isEqualTo("Old");
    }

    @Test
    void everyKindReadsBackAsItWas() {
        store.change("owner", puts(oneOfEach()));
        assertThat(new RegistryStore(database, Clock.systemUTC()).now().everything())
                .containsExactlyInAnyOrderElementsOf(store.now().everything())
                .hasSize(oneOfEach().length);
    }

    @Test
    void aChangeThatFailsLeavesEverythingAsItWas() {
        store.change("owner", puts(SITE));
        Registry before = store.now();
        assertThatThrownBy(() -> store.change("owner", now -> {
                    throw new IllegalStateException("no");
                }))
                .hasMessage("no");
        assertThat(store.now()).isSameAs(before);
        assertThat(trail(10)).hasSize(1);
    }

    @Test
    void theTrailSaysWhoChangedWhat() {
        store.change("owner", puts(SITE));
        store.change("ann", puts(new Site("s", "Dairy", SITE.zone(), null)));
        store.change("ann", List.of(new Change.Remove(Kind.SITE, "s")));
        assertThat(trail(10)).extracting(RegistryStore.TrailEntry::person).containsExactly("ann", "ann", "owner");
        assertThat(trail(2).get(1).before()).contains("Creamery");
        assertThat(trail(2).get(1).after()).contains("Dairy");
        assertThat(trail(1).getFirst().after()).isNull();
    }

    @Test
    void changesFromManyThreadsTakeTurnsAndNoneIsLost() {
        IntStream.range(0, 40)
                .parallel()
                .forEach(i -> store.change(
                        "p" + i,
                        now -> puts(new Point(
                                "p" + i,
                                now.highestPointNumber() + 1,
                                "n",
                                "s",
                                Quantity.LEVEL,
                                "m",
                                null,
                                null,
                                null,
                                true))));
        assertThat(store.now().all(Point.class))
                .extracting(Point::number)
                .containsExactlyInAnyOrderElementsOf(
                        IntStream.rangeClosed(1, 40).boxed().toList());
    }

    @Test
    void secretsAreSealedWithTheKeyFile() {
        byte[] sealed = database.secrets().seal(new byte[] {1, 2, 3});
        assertThat(database.secrets().open(sealed)).containsExactly(1, 2, 3);
        sealed[sealed.length - 1] ^= 1;
        assertThatThrownBy(() -> database.secrets().open(sealed)).hasMessageContaining("does not fit the key file");
    }

    private List<RegistryStore.TrailEntry> trail(int limit) {
        return store.trail(new RegistryStore.TrailQuery(null, null, null, null, null, null, limit));
    }
}
