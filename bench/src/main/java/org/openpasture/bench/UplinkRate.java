package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.locks.LockSupport;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.PhyPayload;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.lorawan.Uplink;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/**
 * Uplinks a second from the UDP socket to the committed reading: authentic frames of many devices are offered at
 * growing rates; the highest at which none is lost and the last is committed within a second of the offer's end is
 * sustained.
 */
final class UplinkRate {
    private static final int DEVICES = Integer.getInteger("devices", 20_000);
    private static final int GATEWAYS = 100;
    private static final int SECONDS = 5;
    private static final int[] RATES = {1_000, 2_000, 3_000, 5_000, 7_000, 9_000, 12_000};

    /** Goes on through the fleet from one offer to the next. */
    private static int next;

    private UplinkRate() {}

    static void measure(Path app) throws IOException {
        Path data = Files.createTempDirectory("pasture-bench");
        RadioFleet fleet;
        try (ServiceProcess service = InstalledService.startAt(app, data)) {
            ApiClient owner = service.owner();
            fleet = new RadioFleet(owner, GATEWAYS, DEVICES);
            List<SimulatedGateway> gateways = new ArrayList<>();
            for (int i = 0; i < GATEWAYS; i++) {
                gateways.add(new SimulatedGateway(RadioFleet.gateway(i), service.radio()));
            }
            offer(owner, gateways, fleet, 1_000);
            int sustained = 0;
            for (int rate : RATES) {
                if (!offer(owner, gateways, fleet, rate)) {
                    break;
                }
                sustained = rate;
            }
            gateways.forEach(SimulatedGateway::close);
            Bench.row(
                    String.format(
                            Locale.ROOT,
                            "uplinks/s sustained, UDP to committed readings (3 each), %d gateways, %,d devices",
                            GATEWAYS,
                            DEVICES),
                    String.format(Locale.ROOT, "%,d", sustained));
            double bare = bare(fleet, 20_000);
            Bench.row(
                    "uplinks/s of checking, decrypting and writing journal rows alone, one thread",
                    String.format(Locale.ROOT, "%,.0f", bare));
            Bench.row("ratio of the two", String.format(Locale.ROOT, "%.2f", sustained / bare));
            Bench.row(
                    String.format(Locale.ROOT, "memory: MB resident with %,d sessions (goal 600)", DEVICES),
                    String.valueOf(service.residentMegabytes()));
        }
        try (ServiceProcess again = InstalledService.startAt(app, data)) {
            Bench.row(
                    String.format(Locale.ROOT, "start: seconds with %,d sessions (goal 10)", DEVICES),
                    String.format(Locale.ROOT, "%.1f", again.untilReady().toMillis() / 1e3));
        }
    }

    /** What cannot be saved: integrity code, decryption, and a journal row of a hundred frames' readings each. */
    private static double bare(RadioFleet fleet, int frames) throws IOException {
        List<PhyPayload.DataUp> parsed = new ArrayList<>();
        for (int i = 0; i < frames; i++) {
            byte[] frame = fleet.radios
                    .get(i % fleet.radios.size())
                    .uplink(2, new Bytes().u16be(210).u16be(340).u16be(455).done(), false);
            parsed.add((PhyPayload.DataUp) ((PhyPayload.Parsed.Ok) PhyPayload.parse(frame)).frame());
        }
        AesKey nwk = AesKey.ofHex(RadioFleet.NWK);
        AesKey app = AesKey.ofHex(RadioFleet.APP);
        Path file = Files.createTempDirectory("pasture-bench").resolve("bare.db");
        try (Connection connection = RecordPath.open(
                        file,
                        "CREATE TABLE journal (seq INTEGER PRIMARY KEY, written_at INTEGER NOT NULL, events BLOB NOT NULL)");
                PreparedStatement insert = connection.prepareStatement("INSERT INTO journal VALUES (?, 0, ?)")) {
            long begun = System.nanoTime();
            for (int i = 0; i < frames; i++) {
                PhyPayload.DataUp frame = parsed.get(i);
                Session session = new Session(frame.devAddr(), nwk, app, frame.counter() - 1L, 0);
                if (!(Uplink.check(frame, session) instanceof Uplink.Accepted)) {
                    throw new IllegalStateException("the frame is not authentic");
                }
                if (i % 100 == 99) {
                    insert.setInt(1, i);
                    insert.setBytes(2, new byte[7_700]);
                    insert.executeUpdate();
                    connection.commit();
                }
            }
            return frames / ((System.nanoTime() - begun) / 1e9);
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    private static boolean offer(ApiClient owner, List<SimulatedGateway> gateways, RadioFleet fleet, int rate) {
        List<byte[]> frames = new ArrayList<>(rate * SECONDS);
        for (int i = 0; i < rate * SECONDS; i++) {
            SimulatedDevice radio = fleet.radios.get(next++ % fleet.radios.size());
            frames.add(radio.uplink(
                    2, new Bytes().u16be(210 + i % 50).u16be(340).u16be(455).done(), false));
        }
        long before = committed(owner);
        long begun = System.nanoTime();
        for (int i = 0; i < frames.size(); i++) {
            long due = begun + i * 1_000_000_000L / rate;
            while (System.nanoTime() < due) {
                LockSupport.parkNanos(50_000);
            }
            gateways.get(i % gateways.size()).hear(frames.get(i), -80, 8, "SF7BW125", 868.1);
        }
        long deadline = System.nanoTime() + 1_200_000_000L;
        while (committed(owner) - before < frames.size()) {
            if (System.nanoTime() > deadline) {
                Bench.row(
                        "uplinks: at " + rate + "/s behind or lost",
                        String.valueOf(frames.size() - (committed(owner) - before)));
                return false;
            }
            LockSupport.parkNanos(20_000_000);
        }
        return true;
    }

    private static long committed(ApiClient owner) {
        return owner.get("api/v1/state").path("readings").asLong() / 3;
    }
}
