package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.locks.LockSupport;
import org.openpasture.client.http.ApiClient;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.Bytes;
import org.openpasture.simulator.radio.SimulatedDevice;
import org.openpasture.simulator.radio.SimulatedGateway;

/**
 * Uplinks a second from the UDP socket to the committed reading: authentic frames of many devices are offered at growing
 * rates; the highest at which none is lost and the last is committed within a second of the offer's end is sustained.
 */
final class UplinkRate {
  private static final int DEVICES = 500;
  private static final int SECONDS = 5;
  private static final int[] RATES = {1_000, 2_000, 3_000, 5_000, 7_000, 9_000, 12_000};

  private UplinkRate() {}

  static void measure(Path app) throws IOException {
    try (ServiceProcess service = InstalledService.start(app, true)) {
      ApiClient owner = service.owner();
      RadioFleet fleet = new RadioFleet(owner, DEVICES);
      try (SimulatedGateway gateway = new SimulatedGateway(RadioFleet.GATEWAY, service.radio())) {
        offer(owner, gateway, fleet, 1_000);
        int sustained = 0;
        for (int rate : RATES) {
          if (!offer(owner, gateway, fleet, rate)) {
            break;
          }
          sustained = rate;
        }
        Bench.row("uplinks/s sustained, UDP to committed readings (3 each), " + DEVICES + " devices", String.format(Locale.ROOT, "%,d", sustained));
      }
    }
  }

  private static boolean offer(ApiClient owner, SimulatedGateway gateway, RadioFleet fleet, int rate) {
    List<byte[]> frames = new ArrayList<>(rate * SECONDS);
    for (int i = 0; i < rate * SECONDS; i++) {
      SimulatedDevice radio = fleet.radios.get(i % fleet.radios.size());
      frames.add(radio.uplink(2, new Bytes().u16be(210 + i % 50).u16be(340).u16be(455).done(), false));
    }
    long before = committed(owner);
    long begun = System.nanoTime();
    for (int i = 0; i < frames.size(); i++) {
      long due = begun + i * 1_000_000_000L / rate;
      while (System.nanoTime() < due) {
        LockSupport.parkNanos(50_000);
      }
      gateway.hear(frames.get(i), -80, 8, "SF7BW125", 868.1);
    }
    long deadline = System.nanoTime() + 1_200_000_000L;
    while (committed(owner) - before < frames.size()) {
      if (System.nanoTime() > deadline) {
        Bench.row("uplinks: at " + rate + "/s behind or lost", String.valueOf(frames.size() - (committed(owner) - before)));
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
