package org.openpasture.core.inlet;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.layout.ChannelValue;

/**
 * What was kept last of a device whose frames are thinned out.
 *
 * @param at when
 * @param values by channel
 */
public record Thinning(Instant at, Map<String, Double> values) {
    public static Thinning after(Instant at, List<ChannelValue> values) {
        Map<String, Double> byChannel = new HashMap<>();
        values.forEach(value -> byChannel.put(value.channel(), value.value()));
        return new Thinning(at, byChannel);
    }

    /**
     * Whether the next frame is kept: when the interval is over, when it fills a gap before this, or when a channel
     * with a dead band changed by as much.
     */
    public boolean isWorthIt(Instant time, List<ChannelValue> now, int everySeconds, List<Channel> channels) {
        if (!time.isBefore(at.plusSeconds(everySeconds)) || time.isBefore(at)) {
            return true;
        }
        return channels.stream()
                .anyMatch(channel -> channel.deadBand() != null
                        && now.stream()
                                .filter(value -> value.channel().equals(channel.name()))
                                .anyMatch(value ->
                                        changed(value.value(), values.get(channel.name()), channel.deadBand())));
    }

    private static boolean changed(double now, @Nullable Double before, double deadBand) {
        return before == null || Math.abs(now - before) >= deadBand;
    }
}
