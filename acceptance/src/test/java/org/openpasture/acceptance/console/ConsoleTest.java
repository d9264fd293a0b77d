package org.openpasture.acceptance.console;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.IntFunction;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.CutLine;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.RuleRequest;
import org.openpasture.api.camera.CameraRequest;
import org.openpasture.api.dashboard.DashboardRequest;
import org.openpasture.api.dashboard.DashboardView;
import org.openpasture.api.logbook.LogEntryView;
import org.openpasture.api.place.MarksRequest;
import org.openpasture.api.place.PlanView;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.PlanMark;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.rule.Target;
import org.openpasture.simulator.camera.SimulatedCamera;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/** The console in a real browser, driven as people do: by what they read and press. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ConsoleTest {
    private static final double SLOWEST_PAGE_MILLIS = 30_000;

    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final List<String> ROOMS = List.of(
            "/now",
            "/places",
            "/alerts",
            "/alerts?tab=events",
            "/dashboards",
            "/fleet/gateways",
            "/fleet/inlets",
            "/fleet/devices",
            "/fleet/frames",
            "/fleet/models",
            "/fleet/workbench",
            "/fleet/labels",
            "/limits",
            "/people",
            "/people/trail",
            "/settings",
            "/settings/mail",
            "/settings/cameras",
            "/records");
    /** As the console registers them, one a line. */
    private static final List<String> KINDS = kinds();

    /** The id of a dashboard with every kind of panel. */
    private static final AtomicReference<String> EVERY = new AtomicReference<>("");

    private static final List<String> COMPLAINTS = new ArrayList<>();
    private static Playwright playwright;
    private static Browser browser;
    private static Page page;
    private static Plant plant;
    private static SimulatedGateway mast;
    private static SimulatedDevice radio;
    private static SimulatedCamera camera;

    @BeforeAll
    static void open() throws IOException {
        camera = new SimulatedCamera(Clock.systemUTC(), time -> true, "eye", "of-the-door");
        plant = new Plant(SERVICE.owner());
        plant.gateway("Mast", Plant.MAST);
        plant.pumpSender();
        plant.points().forEach(point -> SERVICE.owner().post("api/v1/points/" + point.id() + "/release", Map.of()));
        SERVICE.owner()
                .post(
                        "api/v1/rules",
                        new RuleRequest(
                                "Zone C",
                                new Target.OfAsset(plant.pump, Quantity.VIBRATION_VELOCITY),
                                new Condition.InZone(Severity.WARNING),
                                null,
                                0.2,
                                Severity.WARNING,
                                true,
                                null,
                                "Look at the coupling."));
        SERVICE.owner()
                .post(
                        "api/v1/dashboards",
                        new DashboardRequest(
                                "Pump room",
                                plant.site,
                                null,
                                plant.points().stream().map(point -> point.id()).toList(),
                                null,
                                null,
                                null));
        mast = SERVICE.gateway(Plant.MAST);
        radio = Plant.pumpRadio(1);
        mast.onDownlink(downlink -> radio.hearJoinAccept(downlink.bytes()));
        await().atMost(10, TimeUnit.SECONDS).until(() -> mast.acknowledged() > 0);
        mast.hear(radio.joinRequest(), -80, 8, "SF7BW125", 868.1);
        await().atMost(10, TimeUnit.SECONDS).until(radio::isJoined);
        report(2.1, 3.0);
        await().atMost(10, TimeUnit.SECONDS)
                .until(() -> plant.point("Axial vibration").latest() != null);

        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync",
                                "--no-first-run")));
        page = newPage(1280, 800);
    }

    @AfterAll
    static void close() {
        playwright.close();
        camera.close();
    }

    private static Page newPage(int width, int height) {
        BrowserContext context = browser.newContext(new Browser.NewContextOptions()
                .setBaseURL(SERVICE.address().toString())
                .setViewportSize(width, height));
        context.setDefaultTimeout(15_000);
        Page opened = context.newPage();
        opened.onPageError(COMPLAINTS::add);
        opened.onConsoleMessage(message -> {
            if (message.type().equals("error")
                    && !message.text().contains("401")
                    && !message.text().contains("410")) {
                COMPLAINTS.add(message.text() + " " + message.location());
            }
        });
        return opened;
    }

    private static void report(double axial, double radial) {
        mast.hear(radio.uplink(2, Plant.vibration(axial, radial), false), -80, 8, "SF7BW125", 868.1);
    }

    private static Locator button(Page on, String name) {
        return on.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private static Locator heading(Page on, String name) {
        return on.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(name));
    }

    private static void signIn(Page on, String name) {
        on.getByLabel("Name").fill(name);
        on.getByLabel("Password", new Page.GetByLabelOptions().setExact(true)).fill(RunningService.PASSWORD);
        button(on, "Sign in").click();
    }

    /** A page that the console has is there also when somebody comes by its address, as by a link in a mail. */
    @Test
    @Order(1)
    void eachPageIsServedByItsAddress() throws Exception {
        String rooms = Files.readString(Path.of("../console/src/rooms.ts"));
        List<String> paths = Pattern.compile("path: \"(/[^\"]*)\"")
                .matcher(rooms)
                .results()
                .map(found ->
                        found.group(1).replaceAll(":tab\\([a-z]+.*", "gateways").replaceAll(":\\w+", "some-id"))
                .filter(path -> !path.contains("("))
                .distinct()
                .toList();
        assertThat(paths)
                .hasSizeGreaterThan(20)
                .contains("/acknowledge", "/reset", "/fleet/gateways", "/points/some-id");
        for (String path : paths) {
            HttpResponse<String> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(SERVICE.address().resolve(path))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
            assertThat(answer.statusCode()).as(path).isEqualTo(200);
            assertThat(answer.body()).as(path).contains("<div id=\"app\">");
        }
    }

    @Test
    @Order(1)
    void whoIsNotSignedInComesToTheDoorAndBackToThePageTheyWanted() {
        page.navigate("/alerts");
        assertThat(heading(page, "Sign in")).isVisible();
        page.getByLabel("Name").fill("owner");
        page.getByLabel("Password", new Page.GetByLabelOptions().setExact(true)).fill("not the password");
        button(page, "Sign in").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("Name or password is wrong.");
        signIn(page, "owner");
        assertThat(heading(page, "Alerts")).isVisible();
        assertThat(page.getByText("No open alerts")).isVisible();
    }

    @Test
    @Order(2)
    void aValueChangesWithoutReloading() {
        page.navigate("/places/" + plant.pump);
        Locator directions = page.getByLabel("Directions");
        assertThat(directions).containsText("2.10");
        assertThat(directions).containsText("this direction decides");
        report(2.75, 3.0);
        assertThat(directions).containsText("2.75");
        assertThat(page.locator("canvas").first()).isVisible();
    }

    @Test
    @Order(3)
    void anAlertAppearsIsTakenOnWithANoteAndIsOverAgain() {
        page.navigate("/now");
        assertThat(heading(page, "All is well")).isVisible();
        report(6.2, 3.0);
        assertThat(heading(page, "One alert waits for somebody")).isVisible();
        assertThat(page.getByLabel("Open alerts"))
                .containsText("Whey pump: Axial vibration 6.2 mm/s, zone C (5.1 to 8.5 mm/s)");
        assertThat(page.getByLabel("Open alerts")).containsText("Look at the coupling.");
        button(page, "Acknowledge").click();
        page.getByLabel("What did you find").fill("coupling is loose");
        page.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Acknowledge"))
                .click();
        assertThat(heading(page, "One alert is being looked after")).isVisible();
        assertThat(page.getByLabel("Open alerts")).containsText("acknowledged by owner");
        report(2.2, 3.0);
        assertThat(heading(page, "All is well")).isVisible();
        page.navigate("/alerts");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("History"))
                .click();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(Pattern.compile("Whey pump: Axial")))
                .click();
        assertThat(page.getByText("owner: “coupling is loose”")).isVisible();
        assertThat(page.getByText(Pattern.compile("^back to normal at .* mm/s$")))
                .isVisible();
    }

    @Test
    @Order(8)
    void whatHappenedIsListedAndCanBeShownToSomebody() throws IOException {
        page.navigate("/alerts?tab=events");
        assertThat(page.getByRole(AriaRole.TABPANEL, new Page.GetByRoleOptions().setName("Events")))
                .containsText("coupling is loose");
        page.navigate("/places/" + plant.pump);
        button(page, "Report").click();
        Download report =
                page.waitForDownload(() -> button(page, "Download PDF").click());
        assertThat(report.suggestedFilename()).isEqualTo("report Whey pump.pdf");
        assertThat(Files.readString(report.path(), StandardCharsets.ISO_8859_1)).startsWith("%PDF");
    }

    @Test
    @Order(8)
    void rulesAreEditedAsTextAndTriedFirst() {
        page.navigate("/alerts?tab=rules");
        button(page, "Edit as YAML").click();
        Locator text = page.getByLabel("Rules as YAML").last();
        assertThat(text).hasValue(Pattern.compile("guidance: Look at the coupling"));
        button(page, "Preview changes").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Nothing would change.");
        text.fill(text.inputValue().replace("the coupling", "the whole coupling"));
        button(page, "Preview changes").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("would be changed: guidance");
        button(page, "Apply").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(SERVICE.owner().get("api/v1/rules").toString()).contains("the whole coupling");
    }

    @Test
    @Order(4)
    void aValueIsFollowedBackToItsBytes() {
        page.navigate("/points/" + plant.point("Axial vibration").number());
        assertThat(heading(page, "Where this comes from")).isVisible();
        assertThat(page.locator("mark")).hasText("axial=2.2");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Pump sender"))
                .click();
        assertThat(page.getByText("It reports as usual.")).isVisible();
        page.navigate("/fleet/frames");
        report(2.3, 3.0);
        assertThat(page.getByText("axial=2.3 radial=3 temperature=45.5 battery=3.58"))
                .isVisible();
    }

    @Test
    @Order(5)
    void aDashboardIsEditedWithUndo() {
        int height = height(pumpRoom());
        page.navigate("/dashboards");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Pump room"))
                .click();
        button(page, "Edit").click();
        assertThat(page.locator(".grid-stack-item").first()).isVisible();
        int panels = page.locator(".grid-stack-item").count();
        page.getByLabel("Remove", new Page.GetByLabelOptions().setExact(false))
                .first()
                .click();
        assertThat(page.locator(".grid-stack-item")).hasCount(panels - 1);
        button(page, "Undo").click();
        assertThat(page.locator(".grid-stack-item")).hasCount(panels);
        Locator grip = page.getByLabel("Move", new Page.GetByLabelOptions().setExact(false))
                .first();
        grip.focus();
        page.keyboard().press("Shift+ArrowDown");
        button(page, "Save").click();
        assertThat(button(page, "Edit")).isVisible();
        assertThat(pumpRoom().panels()).hasSize(panels);
        assertThat(height(pumpRoom())).as("one panel is a row higher").isEqualTo(height + 1);
    }

    private static DashboardView pumpRoom() {
        String id = SERVICE.owner().get("api/v1/dashboards").path(0).path("id").asString();
        return SERVICE.owner().get("api/v1/dashboards/" + id, DashboardView.class);
    }

    /** How tall the panels of a dashboard are together. */
    private static int height(DashboardView dashboard) {
        return dashboard.panels().stream().mapToInt(panel -> panel.frame().h()).sum();
    }

    private static String axial() {
        return plant.point("Axial vibration").id();
    }

    private static List<String> kinds() {
        try {
            return Pattern.compile("^  (\\w+),$", Pattern.MULTILINE)
                    .matcher(Files.readString(Path.of("../console/src/dashboards/panels/kinds.ts")))
                    .results()
                    .map(kind -> kind.group(1))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A drawing of the pump, with the axial vibration marked on it. */
    private static void drawPump() {
        String path = "api/v1/places/" + plant.pump;
        byte[] drawing =
                "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 400 200'><rect width='400' height='200'/></svg>"
                        .getBytes(StandardCharsets.UTF_8);
        SERVICE.owner().putFile(path + "/picture", "image/svg+xml", new ByteArrayInputStream(drawing));
        SERVICE.owner().put(path + "/plan", new MarksRequest(List.of(new PlanMark.OfPoint(axial(), 0.25, 0.5))));
    }

    private static String cameraId() {
        return SERVICE.owner()
                .post(
                        "api/v1/cameras",
                        new CameraRequest("Door", plant.pump, URI.create(camera.address()), "eye", "of-the-door", 5))
                .path("id")
                .asString();
    }

    private static String everyKind() {
        drawPump();
        List<String> axial = List.of(plant.point("Axial vibration").id());
        PointSelection pump = new PointSelection(plant.pump, null, null, null);
        IntFunction<Frame> at = row -> new Frame("p" + row, "No. " + row, axial, null, null, null, 0, row * 3, 6, 3);
        IntFunction<Frame> all =
                row -> new Frame("p" + row, "No. " + row, List.of(), pump, null, null, 6, row * 3, 6, 3);
        List<Panel> panels = List.of(
                new Panel.Value(at.apply(0), Statistic.MAXIMUM),
                new Panel.Line(all.apply(1), Panel.Scale.FIT),
                new Panel.Dial(at.apply(2)),
                new Panel.Vessel(at.apply(3), Panel.Shape.LYING),
                new Panel.States(at.apply(4)),
                new Panel.Bars(all.apply(5), null),
                new Panel.Days(at.apply(6), null),
                new Panel.Directions(at.apply(7)),
                new Panel.Exposure(at.apply(8), null),
                new Panel.Tally(all.apply(9), null),
                new Panel.Picture(at.apply(10), Panel.Drawing.FAN, null),
                new Panel.Tracks(at.apply(11)),
                new Panel.OpenAlerts(at.apply(12)),
                new Panel.Asked(at.apply(13)),
                new Panel.Text(at.apply(14), "**Call** the depot"),
                new Panel.Clock(at.apply(15), null),
                new Panel.Spectrum(at.apply(16), null, null, null),
                new Panel.OnPlan(all.apply(17)),
                new Panel.Control(at.apply(18)),
                new Panel.Guidance(all.apply(19), List.of("Listen to the bearing", "Feel the foot bolts")),
                new Panel.Hours(at.apply(20), null),
                new Panel.Pairs(all.apply(21)),
                new Panel.Spread(at.apply(22), null),
                new Panel.FromCamera(at.apply(23), cameraId()));
        assertThat(panels).extracting(Panel::getClass).doesNotHaveDuplicates().hasSameSizeAs(KINDS);
        return SERVICE.owner()
                .post(
                        "api/v1/dashboards",
                        new DashboardRequest("Every kind", plant.site, panels, null, null, null, null),
                        DashboardView.class)
                .id();
    }

    @Test
    @Order(5)
    void everyKindOfPanelShowsTheNumbersThatTheServiceKnows() {
        EVERY.set(everyKind());
        page.navigate("/dashboards/" + EVERY.get());
        assertThat(page.locator(".panel.value")).containsText("6.20 mm/s");
        assertThat(page.locator(".panel.value")).containsText("maximum of 24 h");
        assertThat(page.locator(".panel.line canvas")).isVisible();
        assertThat(page.locator(".panel.dial figure > svg")).hasAttribute("aria-label", "Axial vibration: 2.30 mm/s");
        assertThat(page.locator(".panel.vessel")).containsText("% full");
        assertThat(page.locator(".panel.states .last").first()).hasText("A");
        assertThat(page.locator(".panel.bars tbody tr")).hasCount(3);
        assertThat(page.locator(".panel.bars")).containsText("45.5 °C");
        assertThat(page.locator(".panel.days tbody tr")).hasCount(1);
        assertThat(page.locator(".panel.directions")).containsText("axial2.30mm/s");
        assertThat(page.locator(".panel.exposure")).containsText("a mean is shown from half of the time");
        assertThat(page.locator(".panel.spectrum")).containsText("No waveform of this point yet.");
        assertThat(page.locator(".panel.tally")).containsText("no limits");
        assertThat(page.locator(".panel.picture")).containsText("runs");
        assertThat(page.locator(".panel.plan .mark")).containsText("2.30 mm/s");
        assertThat(page.locator(".panel.map")).containsText("A map needs the latitude");
        assertThat(page.locator(".panel.alerts")).containsText("No open alerts");
        assertThat(page.locator(".panel.asked")).containsText("No device that is asked feeds these points");
        assertThat(page.locator(".panel.control")).containsText("Pump sender");
        assertThat(page.locator(".panel.guidance li")).hasCount(2);
        assertThat(page.locator(".panel.text strong")).hasText("Call");
        assertThat(page.locator(".panel.camera")).containsText("Taken");
        assertThat((Number) page.locator(".panel.camera img").evaluate("img => img.naturalWidth"))
                .as("the picture that the camera gave, written anew")
                .isEqualTo(640);
        assertThat(page.locator(".panel.clock .time")).hasText(Pattern.compile("\\d\\d:\\d\\d:\\d\\d"));
    }

    /** Where the fitter stands: a note is pinned in the chart and answered, and a mark is moved on the picture. */
    @Test
    @Order(6)
    void whatWasFoundIsPinnedInTheChartAndAMarkIsMoved() {
        page.navigate("/points/" + plant.point("Axial vibration").number());
        Locator canvas = page.locator(".chart canvas").first();
        assertThat(canvas).isVisible();
        button(page, "Add note").click();
        canvas.click(new Locator.ClickOptions().setPosition(canvas.boundingBox().width / 2, 100));
        page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Text"))
                .fill("Bolts tightened");
        button(page, "Write entry").click();
        Locator entry = page.locator("article").filter(new Locator.FilterOptions().setHasText("Bolts tightened"));
        assertThat(entry.locator(".mark")).hasText("1");
        LogEntryView written = SERVICE.owner().get("api/v1/logbook", LogEntryView[].class)[0];
        assertThat(Duration.between(written.at(), Instant.now()).toHours())
                .as("the middle of a day")
                .isBetween(10L, 13L);
        entry.getByText("Remove").click();
        page.getByText("Undo").click();
        assertThat(entry).isVisible();

        page.navigate("/places/" + plant.pump);
        button(page, "Mark points …").click();
        Locator mark = page.locator("button.mark");
        mark.focus();
        page.keyboard().press("Shift+ArrowRight");
        page.keyboard().press("ArrowUp");
        button(page, "Save").click();
        assertThat(page.locator("a.mark")).containsText("Axial vibration");
        PlanView plan = SERVICE.owner().get("api/v1/places/" + plant.pump + "/plan", PlanView.class);
        assertThat(plan.marks().getFirst().x()).isEqualTo(0.3);
        assertThat(plan.marks().getFirst().y()).isEqualTo(0.49);
    }

    @Test
    @Order(6)
    void aSharedLinkOpensInAFreshBrowserAndShowsNothingOnceItIsWithdrawn() {
        page.navigate("/dashboards/"
                + SERVICE.owner().get("api/v1/dashboards").path(0).path("id").asString());
        button(page, "Share").click();
        button(page, "Make a link").click();
        String link = page.getByLabel("Shown this once").inputValue();
        Page stranger = newPage(1280, 800);
        stranger.navigate(link);
        assertThat(heading(stranger, "Pump room")).isVisible();
        assertThat(stranger.getByText("2.30").first()).isVisible();
        assertThat(button(stranger, "Edit")).hasCount(0);
        button(page, "Withdraw").click();
        assertThat(button(page, "Withdraw")).hasCount(0);
        stranger.reload();
        assertThat(stranger.getByRole(AriaRole.ALERT)).containsText("This link was withdrawn");
        stranger.context().close();
    }

    @Test
    @Order(7)
    void somebodyIsInvitedComesInAndMayOnlyLook() {
        page.navigate("/people");
        button(page, "Invite somebody").click();
        page.getByRole(AriaRole.DIALOG).getByLabel("Name").fill("adviser");
        page.getByRole(AriaRole.DIALOG)
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName("Invite").setExact(true))
                .click();
        String link = page.getByLabel("Hand this link to adviser").inputValue();
        Page adviser = newPage(390, 844);
        adviser.navigate(link);
        adviser.getByLabel("Name").fill("adviser");
        adviser.getByLabel("Password").first().fill(RunningService.PASSWORD);
        // A device that has said nothing for half a minute is not well; the tests before may take longer.
        report(2.3, 3.0);
        button(adviser, "Accept invitation").click();
        assertThat(heading(adviser, "All is well")).isVisible();
        adviser.navigate("/places/" + plant.pump);
        assertThat(adviser.getByLabel("Directions")).containsText("2.30");
        assertThat(adviser.getByText("Change …")).hasCount(0);
        adviser.context().close();
    }

    /**
     * On a phone, as on the ladder: the label's code, the model and the place; then the steps follow what happens on
     * the air.
     */
    @Test
    @Order(8)
    void aDeviceIsBroughtInOnAPhoneByItsLabelAndProvoked() {
        SERVICE.owner()
                .postFile(
                        "api/v1/keys",
                        "text/csv",
                        new java.io.ByteArrayInputStream(
                                "dev eui,app key\n02ab540000000777,8f0e1d2c3b4a59687786a5b4c3d2e1f0\n"
                                        .getBytes(java.nio.charset.StandardCharsets.UTF_8)));
        SimulatedDevice sensor =
                SimulatedDevice.joining("02ab540000000777", Plant.JOIN_EUI, "8f0e1d2c3b4a59687786a5b4c3d2e1f0", 1);
        mast.onDownlink(downlink -> sensor.hearJoinAccept(downlink.bytes()));
        Page phone = newPage(360, 740);
        phone.navigate("/sign-in");
        report(2.3, 3.0);
        signIn(phone, "owner");
        assertThat(heading(phone, "All is well")).isVisible();
        phone.navigate("/fleet/devices");
        button(phone, "Bring a device in").click();
        assertThat(phone.locator(".el-dialog").first().boundingBox().width)
                .as("a form is as wide as the phone")
                .isGreaterThan(300);
        phone.getByLabel("Code on its label, if it has one")
                .fill("LW:D0:" + Plant.JOIN_EUI + ":02AB540000000777:ABCD0001:S42");
        phone.keyboard().press("Tab");
        assertThat(phone.getByText("Its key was loaded beforehand")).isVisible();
        phone.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Ladder sender");
        phone.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Device model"))
                .click();
        phone.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Vibration sender"))
                .click();
        button(phone, "Bring it in").click();
        assertThat(heading(phone, "On its way in")).isVisible();
        assertThat(phone.getByText("Nothing was heard from 02ab540000000777 yet."))
                .isVisible();

        mast.hear(sensor.joinRequest(), -85, 7, "SF7BW125", 868.3);
        assertThat(phone.getByText(
                        "Sent in RX1 by Mast at 868.300 MHz, SF7BW125.", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        await().atMost(10, TimeUnit.SECONDS).until(sensor::isJoined);
        mast.hear(sensor.uplink(2, Plant.vibration(1.5, 1.25), false), -85, 7, "SF7BW125", 868.3);
        button(phone, "Provoke and check").click();
        // What was measured before the check began does not belong to it.
        assertThat(button(phone, "It answers")).isVisible();
        mast.hear(sensor.uplink(2, Plant.vibration(7.5, 1.25), false), -85, 7, "SF7BW125", 868.3);
        assertThat(phone.getByText("to 7.5 mm/s")).isVisible();
        button(phone, "It answers").click();
        assertThat(phone.getByText("Checks so far")).isVisible();
        // The page first: it would look for the device that is gone.
        phone.context().close();
        SERVICE.owner().delete("api/v1/devices/" + plant.device("Ladder sender").id());
    }

    @Test
    @Order(9)
    void noRoomIsWiderThanAPhone() {
        Page phone = newPage(360, 740);
        phone.navigate("/sign-in");
        signIn(phone, "owner");
        assertThat(phone).hasURL(java.util.regex.Pattern.compile(".*/now"));
        assertNoRoomIsWiderThan(phone);
        phone.context().close();
    }

    /** A browser in Germany is spoken to in German, and its words and numbers fit the phone too. */
    @Test
    @Order(9)
    void theConsoleSpeaksTheLanguageOfTheBrowserOrTheOneThatIsChosen() {
        try (BrowserContext german = browser.newContext(new Browser.NewContextOptions()
                .setBaseURL(SERVICE.address().toString())
                .setLocale("de-DE")
                .setViewportSize(360, 740))) {
            german.setDefaultTimeout(15_000);
            Page phone = german.newPage();
            phone.navigate("/sign-in");
            assertThat(heading(phone, "Anmelden")).isVisible();
            assertThat(phone.locator("html")).hasAttribute("lang", "de");
            phone.getByLabel("Name").fill("owner");
            phone.getByLabel("Passwort", new Page.GetByLabelOptions().setExact(true))
                    .fill(RunningService.PASSWORD);
            button(phone, "Anmelden").click();
            assertThat(phone.getByRole(AriaRole.NAVIGATION).last()).containsText("Alarme");
            phone.navigate("/places/" + plant.pump);
            assertThat(phone.getByLabel("Richtungen")).containsText(Pattern.compile("\\d,\\d\\d\\s*mm/s"));
            assertThat(phone.getByLabel("Richtungen")).containsText("Zone A");
            assertNoRoomIsWiderThan(phone);
            phone.navigate("/settings/appearance");
            button(phone, "Français").click();
            assertThat(heading(phone, "Apparence")).isVisible();
            assertNoRoomIsWiderThan(phone);
        }
    }

    private static void assertNoRoomIsWiderThan(Page phone) {
        List<String> rooms = new ArrayList<>(ROOMS);
        rooms.addAll(List.of(
                "/places/" + plant.pump,
                "/points/1",
                "/dashboards/" + EVERY.get(),
                "/records/compare?points=" + axial(),
                "/fleet/devices/" + plant.device("Pump sender").id()));
        for (String room : rooms) {
            phone.navigate(room);
            assertThat(phone.locator("h1").first()).isVisible();
            loaded(phone);
            Object overflow =
                    phone.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth");
            assertThat(((Number) overflow).intValue())
                    .as("%s is wider than the screen", room)
                    .isLessThanOrEqualTo(0);
        }
    }

    /** Until no part of a page says any more that it loads; an address that leads nowhere is none of a room. */
    private static void loaded(Page on) {
        assertThat(on.locator("h1").first())
                .not()
                .hasText(Pattern.compile("There is no such page|Diese Seite gibt es nicht|Cette page n'existe pas"));
        on.waitForFunction("() => !/Loading …|Wird geladen …|Chargement …/.test(document.body.innerText)");
    }

    /** WCAG 2.2 AA as far as axe-core can see it, in light and dark. */
    @Test
    @Order(10)
    void roomsAreAccessibleInLightAndDark() throws Exception {
        String axe = Files.readString(Path.of("../console/node_modules/axe-core/axe.min.js"));
        List<String> violations = new ArrayList<>();
        for (String theme : List.of("light", "dark")) {
            page.navigate("/settings");
            page.evaluate("theme => localStorage.setItem('theme', theme)", theme);
            List<String> rooms = new ArrayList<>(ROOMS);
            rooms.addAll(List.of(
                    "/places/" + plant.pump,
                    "/points/1",
                    "/dashboards/" + EVERY.get(),
                    "/records/compare?points=" + axial()));
            for (String room : rooms) {
                page.navigate(room);
                // Other tests run beside this one: a page may take longer than the usual five seconds.
                assertThat(page.locator("h1").first())
                        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(SLOWEST_PAGE_MILLIS));
                loaded(page);
                page.evaluate(axe);
                Object found = page.evaluate(
                        "axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']}).then(r => "
                                + "r.violations.flatMap(v => v.nodes.slice(0, 2).map(n => v.id + ' ' + n.target.join(' ') + ' ' + n.failureSummary.split('\\n').slice(1, 2).join(''))))");
                ((List<?>) found).forEach(one -> violations.add(theme + " " + room + ": " + one));
            }
        }
        page.evaluate("localStorage.setItem('theme', 'system')");
        assertThat(violations).isEmpty();
    }

    @Test
    @Order(11)
    void theBrowserNeverComplained() {
        assertThat(COMPLAINTS).isEmpty();
    }

    /** In a plant room without a network a phone shows what was known last, and says how old it is. */
    @Test
    @Order(12)
    void theLastKnownStateIsThereWithoutANetwork() throws Exception {
        try (CutLine line = new CutLine(SERVICE.address());
                BrowserContext phone = browser.newContext(new Browser.NewContextOptions()
                        .setBaseURL(line.address().toString())
                        .setViewportSize(390, 844))) {
            phone.setDefaultTimeout(15_000);
            Page offline = phone.newPage();
            offline.navigate("/now");
            signIn(offline, "owner");
            assertThat(offline.locator("#main")).containsText("Axial vibration");
            await().atMost(60, TimeUnit.SECONDS)
                    .pollInSameThread()
                    .until(() -> (Boolean) offline.evaluate("async () => navigator.serviceWorker.controller !== null"
                            + " && (await caches.keys()).includes('known-1')"
                            + " && (await (await caches.open('known-1')).keys()).length >= 8"
                            + " && (await (await caches.open('files-1')).match('/')) !== undefined"));
            aNoticeIsShownWhereNoPageAskedForIt(phone, offline);
            line.close();
            offline.reload();
            assertThat(offline.getByRole(AriaRole.STATUS).first()).containsText("No connection");
            assertThat(offline.locator("#main")).containsText("Axial vibration");
            assertThat(offline.getByText("Not everything could be loaded")).hasCount(0);
            assertThat(heading(offline, "All is well")).hasCount(0);
        }
    }

    /** What a push service hands over reaches the worker; the browser hands it over here in its place. */
    private static void aNoticeIsShownWhereNoPageAskedForIt(BrowserContext phone, Page page) {
        phone.grantPermissions(List.of("notifications"));
        CDPSession session = phone.newCDPSession(page);
        List<String> workers = new CopyOnWriteArrayList<>();
        session.on("ServiceWorker.workerRegistrationUpdated", event -> event.getAsJsonArray("registrations")
                .forEach(one ->
                        workers.add(one.getAsJsonObject().get("registrationId").getAsString())));
        session.send("ServiceWorker.enable");
        page.waitForCondition(() -> !workers.isEmpty());
        JsonObject push = new JsonObject();
        push.addProperty("origin", String.valueOf(page.evaluate("location.origin")));
        push.addProperty("registrationId", workers.getFirst());
        push.addProperty("data", """
                {"title":"critical: pump 2","body":"zone D","address":"/alerts/a1","topic":"a1"}""");
        session.send("ServiceWorker.deliverPushMessage", push);
        page.waitForFunction("async () => (await (await navigator.serviceWorker.ready).getNotifications())"
                + ".some(one => one.title === 'critical: pump 2' && one.tag === 'a1')");
        session.detach();
    }
}
