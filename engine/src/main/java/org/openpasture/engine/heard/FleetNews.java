package org.openpasture.engine.heard;

import java.time.Clock;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.openpasture.api.fleet.FleetNewsView;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.springframework.stereotype.Component;

/** Good news of the fleet, which nobody has to acknowledge: first heard, back again. The newest are kept in memory. */
@Component
public class FleetNews {
    private static final int KEPT = 100;

    /** News, and the place whose rights decide who is told. */
    public record Item(String placeId, FleetNewsView view) {}

    private final Deque<Item> items = new ArrayDeque<>();
    private final Watchers live;
    private final Clock clock;

    FleetNews(Watchers live, Clock clock) {
        this.live = live;
        this.clock = clock;
    }

    /** Something good happened to a device. */
    public void tell(String placeId, String deviceId, String words) {
        FleetNewsView view = new FleetNewsView(clock.instant(), deviceId, words);
        synchronized (items) {
            items.addFirst(new Item(placeId, view));
            if (items.size() > KEPT) {
                items.removeLast();
            }
        }
        live.publish(new LiveEvent("news", placeId, null, view));
    }

    /** The newest first. */
    public List<Item> newest() {
        synchronized (items) {
            return List.copyOf(items);
        }
    }
}
