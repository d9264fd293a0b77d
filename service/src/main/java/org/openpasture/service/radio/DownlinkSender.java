package org.openpasture.service.radio;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.packetforwarder.PacketForwarderInlet;
import org.openpasture.inlets.packetforwarder.Transmission;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Sends an answer in the first receive window by the gateway that heard the device best, else by the next one. A
 * gateway that says it cannot (too late, a collision) is asked for the second window.
 */
@Component
class DownlinkSender {
  private static final Logger LOG = LoggerFactory.getLogger(DownlinkSender.class);
  private static final int MOST_PENDING = 1_000;

  private record Pending(byte[] bytes, Reception reception, int delaySeconds) {}

  private final Region region;
  private final Map<String, Pending> pending = new ConcurrentHashMap<>();
  private volatile @Nullable PacketForwarderInlet inlet;

  DownlinkSender(Region region) {
    this.region = region;
  }

  void use(PacketForwarderInlet opened) {
    inlet = opened;
  }

  /**
   * Sends an answer.
   *
   * @param receptions the best first
   * @param delaySeconds from the end of the uplink to the first window; the second is a second later
   */
  void send(byte[] bytes, List<Reception> receptions, int delaySeconds) {
    PacketForwarderInlet open = inlet;
    if (open == null) {
      return;
    }
    for (Reception reception : receptions) {
      Optional<DataRate> uplink = region.dataRate(reception.dataRate());
      if (uplink.isEmpty()) {
        continue;
      }
      Transmission first = new Transmission(bytes, reception.counterMicros() + delaySeconds * 1_000_000L,
          reception.frequencyHz(), region.maxPowerDbm(), region.rx1(uplink.get(), 0).code());
      int token = open.nextToken();
      if (pending.size() > MOST_PENDING) {
        pending.clear();
      }
      // Noted before it is sent: the gateway's answer may come at once.
      pending.put(key(reception.gateway(), token), new Pending(bytes, reception, delaySeconds));
      if (open.send(reception.gateway(), token, first)) {
        return;
      }
      pending.remove(key(reception.gateway(), token));
    }
    LOG.warn("no gateway can send the answer: none of those that heard the device has asked for downlinks");
  }

  /** A gateway said what became of a downlink. */
  void transmitted(Eui64 gateway, int token, Optional<String> error) {
    Pending sent = pending.remove(key(gateway, token));
    PacketForwarderInlet open = inlet;
    if (sent != null && open != null && error.isPresent()) {
      LOG.warn("gateway {} could not send in the first window ({}); trying the second", gateway, error.get());
      open.send(gateway, open.nextToken(), new Transmission(sent.bytes(), sent.reception().counterMicros() + (sent.delaySeconds() + 1) * 1_000_000L,
          region.rx2FrequencyHz(), region.rx2PowerDbm(), region.rx2().code()));
    }
  }

  private static String key(Eui64 gateway, int token) {
    return gateway + "/" + token;
  }
}
