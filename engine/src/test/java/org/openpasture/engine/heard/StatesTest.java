package org.openpasture.engine.heard;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.MacCommand;
import org.openpasture.core.lorawan.MacLayer;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/** Which cause a silent device has: the question that costs technicians their hours. */
class StatesTest {
    private static final Eui64 MAST = Eui64.of("02ab54fffe10a001");
    private static final Eui64 STAIRS = Eui64.of("02ab54fffe10a002");
    private static final Device DEVICE =
            new Device("d", "Sender", "m", "s", new RadioIdentity.Personalised(new Eui64(1), new DevAddr(2)));
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Creamery", ZoneOffset.UTC, null),
            new Gateway("g1", "Mast", MAST, "s"),
            new Gateway("g2", "Stairs", STAIRS, "s"),
            DeviceModel.of("m", "Sender", 60, "battery", Layout.none(), List.of()),
            DEVICE));

    @TempDir
    private Path folder;

    private final TestClock clock = new TestClock();
    private RegistryDatabase registry;
    private RadioPlan plan;
    private TelemetryStore telemetry;
    private GatewayStates gateways;
    private DeviceStates devices;

    @BeforeEach
    void open() {
        registry = RegistryDatabase.open(folder);
        plan = new RadioPlan(
                new SettingStore(registry),
                new EngineSettings(
                        folder,
                        new EngineSettings.Radio("127.0.0.1", 0, -1, null),
                        new EngineSettings.Mqtt("127.0.0.1", -1, -1, null),
                        "eu868",
                        0,
                        null));
        telemetry = TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), clock);
        begin();
    }

    private void begin() {
        gateways = new GatewayStates(clock);
        devices = new DeviceStates(gateways, new InletStates(clock), telemetry, plan, clock);
    }

    @AfterEach
    void close() {
        telemetry.close();
        registry.close();
    }

    private Reception reception(Eui64 gateway) {
        return new Reception(gateway, clock.instant(), null, 0, 868_100_000, "SF7BW125", -80, 8, null);
    }

    private Frame frame(String kind, Frame.Outcome outcome, String reason, Eui64... heardBy) {
        return new Frame(
                0,
                clock.instant(),
                null,
                kind,
                "d",
                null,
                "00000002",
                new byte[] {1},
                new byte[0],
                2,
                7,
                outcome,
                null,
                reason,
                "t=1 battery=3.58",
                java.util.Arrays.stream(heardBy).map(this::reception).toList());
    }

    private void hear(Frame frame) {
        frame.receptions().forEach(gateways::frame);
        devices.note(REGISTRY, DEVICE, frame, 0);
        telemetry.submit(Deposit.of(frame)).join();
    }

    private String state() {
        return devices.view(REGISTRY, DEVICE).state();
    }

    @Test
    void aDeviceGoesFromNeverHeardToJoinedToOnline() {
        assertThat(state()).isEqualTo("never-heard");
        hear(frame("join request", Frame.Outcome.REFUSED, "the application key is wrong", MAST));
        assertThat(state()).isEqualTo("never-heard");
        assertThat(devices.view(REGISTRY, DEVICE).stateReason())
                .isEqualTo("It was heard, but refused: the application key is wrong");
        hear(frame("join request", Frame.Outcome.ACCEPTED, null, MAST));
        assertThat(state()).isEqualTo("joined");
        hear(frame("uplink", Frame.Outcome.ACCEPTED, null, MAST));
        assertThat(devices.view(REGISTRY, DEVICE)).satisfies(view -> {
            assertThat(view.state()).isEqualTo("online");
            assertThat(view.batteryVolts()).isEqualTo(3.58);
            assertThat(view.problem()).isNull();
            assertThat(view.gateways()).containsExactly("Mast");
        });
    }

    @Test
    void threeMissedReportsMakeItSilentWhileItsGatewayIsOnline() {
        hear(frame("uplink", Frame.Outcome.ACCEPTED, null, MAST));
        clock.pass(Duration.ofSeconds(209));
        gateways.sign(MAST, true);
        assertThat(state()).isEqualTo("online");
        clock.pass(Duration.ofSeconds(2));
        assertThat(state()).isEqualTo("silent");
    }

    @Test
    void itIsSilentBecauseOfItsGatewayWhereEveryOneThatHeardItIsSilentToo() {
        hear(frame("uplink", Frame.Outcome.ACCEPTED, null, MAST, STAIRS));
        clock.pass(Duration.ofMinutes(10));
        assertThat(state()).isEqualTo("silent-gateway");
        gateways.sign(STAIRS, false);
        assertThat(state()).isEqualTo("silent");
    }

    @Test
    void whatIsGoodToKnowIsSaidOnce() {
        assertThat(devices.hear(REGISTRY, DEVICE, frame("join request", Frame.Outcome.ACCEPTED, null, MAST), 0))
                .isEmpty();
        assertThat(devices.hear(REGISTRY, DEVICE, frame("uplink", Frame.Outcome.ACCEPTED, null, MAST), 0))
                .contains("Sender was heard for the first time.");
        clock.pass(Duration.ofMinutes(2));
        assertThat(devices.hear(REGISTRY, DEVICE, frame("uplink", Frame.Outcome.ACCEPTED, null, MAST), 0))
                .isEmpty();
        clock.pass(Duration.ofHours(3));
        assertThat(devices.hear(REGISTRY, DEVICE, frame("uplink", Frame.Outcome.ACCEPTED, null, MAST), 0))
                .contains("Sender is back again, after 3 hours.");
    }

    @Test
    void anEmptyBatteryIsTheCauseOfASilenceWhereTheGatewayIsThere() {
        devices.told("d", MacState.fresh(Region.shipped("eu868"), java.util.List.of(), false));
        hear(frame("uplink", Frame.Outcome.ACCEPTED, null, MAST));
        devices.told(
                "d",
                new MacLayer(Region.shipped("eu868"), 0, org.openpasture.core.lorawan.NetworkSettings.STANDARD)
                        .hear(
                                MacState.fresh(Region.shipped("eu868"), java.util.List.of(), false),
                                java.util.List.of(new MacCommand.DevStatusAns(11, 5)),
                                new MacLayer.Heard(Region.shipped("eu868").rx2(), 0, 1, clock.instant()))
                        .state());
        assertThat(devices.view(REGISTRY, DEVICE).batteryPercent()).isBetween(3.9, 4.0);
        clock.pass(Duration.ofMinutes(10));
        gateways.sign(MAST, false);
        assertThat(state()).isEqualTo("silent-battery");
    }

    @Test
    void theCauseIsStillKnownAfterARestart() {
        hear(frame("uplink", Frame.Outcome.ACCEPTED, null, MAST));
        clock.pass(Duration.ofMinutes(10));
        begin();
        devices.rebuild(REGISTRY);
        assertThat(state()).isEqualTo("silent-gateway");
        assertThat(devices.view(REGISTRY, DEVICE).batteryVolts()).isEqualTo(3.58);
        assertThat(gateways.view(REGISTRY, REGISTRY.find(Gateway.class, "g1").orElseThrow())
                        .state())
                .isEqualTo("silent");
    }

    @Test
    void aGatewayIsOnlineForAMinuteAfterAnySignAndCanAnswerOnlyIfItAsks() {
        Gateway mast = REGISTRY.find(Gateway.class, "g1").orElseThrow();
        assertThat(gateways.view(REGISTRY, mast).state()).isEqualTo("never-heard");
        gateways.sign(MAST, false);
        assertThat(gateways.view(REGISTRY, mast)).satisfies(view -> {
            assertThat(view.state()).isEqualTo("online");
            assertThat(view.canTransmit()).isFalse();
        });
        gateways.sign(MAST, true);
        assertThat(gateways.view(REGISTRY, mast).canTransmit()).isTrue();
        clock.pass(Duration.ofSeconds(61));
        assertThat(gateways.view(REGISTRY, mast).state()).isEqualTo("silent");
    }

    @Test
    void aFloodOfInventedGatewaysIsBoundedAndTheNewestAreKept() {
        for (int i = 0; i < 5_000; i++) {
            clock.pass(Duration.ofMillis(1));
            gateways.unknown(new Eui64(i), 1);
        }
        assertThat(gateways.heardUnknown(REGISTRY)).hasSizeLessThanOrEqualTo(201);
        assertThat(gateways.heardUnknown(REGISTRY).getFirst().eui()).isEqualTo(new Eui64(4_999));
    }
}
