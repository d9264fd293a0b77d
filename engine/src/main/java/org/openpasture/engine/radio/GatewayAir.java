package org.openpasture.engine.radio;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.api.fleet.GatewayPageView;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.TimeOnAir;
import org.openpasture.engine.band.RadioPlan;
import org.springframework.stereotype.Component;

/**
 * How busy the air is at each gateway: frames and signal by hour, and how long each channel was occupied. In memory,
 * since the service started.
 */
@Component
public class GatewayAir {
    private static final int HOURS = 24;

    private static final class Hour {
        private long frames;
        private double rssi;
        private double snr;
        private final Map<Long, long[]> channels = new TreeMap<>();
    }

    private final Map<Eui64, TreeMap<Instant, Hour>> gateways = new ConcurrentHashMap<>();
    private final RadioPlan plan;
    private final Clock clock;

    GatewayAir(RadioPlan plan, Clock clock) {
        this.plan = plan;
        this.clock = clock;
    }

    /** A gateway heard a frame of so many bytes. */
    void heard(Reception reception, int length) {
        long nanos = plan.now()
                .region()
                .dataRate(reception.dataRate())
                .map(rate -> air(rate, length))
                .orElse(0L);
        TreeMap<Instant, Hour> hours = gateways.computeIfAbsent(reception.gateway(), key -> new TreeMap<>());
        synchronized (hours) {
            Instant now = clock.instant().truncatedTo(ChronoUnit.HOURS);
            Hour hour = hours.computeIfAbsent(now, key -> new Hour());
            hour.frames++;
            hour.rssi += reception.rssiDbm();
            hour.snr += reception.snrDb();
            long[] channel = hour.channels.computeIfAbsent(reception.frequencyHz(), key -> new long[2]);
            channel[0]++;
            channel[1] += nanos;
            hours.headMap(now.minus(HOURS, ChronoUnit.HOURS)).clear();
        }
    }

    private static long air(DataRate rate, int length) {
        return TimeOnAir.of(rate, length, true).toNanos();
    }

    public List<GatewayPageView.Hour> hours(Eui64 gateway) {
        TreeMap<Instant, Hour> hours = gateways.getOrDefault(gateway, new TreeMap<>());
        synchronized (hours) {
            return hours.entrySet().stream()
                    .map(entry -> new GatewayPageView.Hour(
                            entry.getKey(),
                            entry.getValue().frames,
                            entry.getValue().rssi / entry.getValue().frames,
                            entry.getValue().snr / entry.getValue().frames))
                    .toList();
        }
    }

    /** Of the hour that runs, as a share of what has passed of it. */
    public List<GatewayPageView.ChannelLoad> channels(Eui64 gateway) {
        TreeMap<Instant, Hour> hours = gateways.getOrDefault(gateway, new TreeMap<>());
        Instant now = clock.instant();
        Instant start = now.truncatedTo(ChronoUnit.HOURS);
        long passed = Math.max(
                Duration.ofMinutes(1).toNanos(), Duration.between(start, now).toNanos());
        List<GatewayPageView.ChannelLoad> loads = new ArrayList<>();
        synchronized (hours) {
            Hour hour = hours.get(start);
            if (hour != null) {
                hour.channels.forEach((hz, load) ->
                        loads.add(new GatewayPageView.ChannelLoad(hz / 1e6, load[0], 100.0 * load[1] / passed)));
            }
        }
        return loads;
    }
}
