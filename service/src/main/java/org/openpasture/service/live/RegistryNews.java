package org.openpasture.service.live;

import java.util.Map;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/** Tells open pages that something registered has changed; they load what they may see. */
@Component
class RegistryNews {
    RegistryNews(RegistryStore registry, LiveHub live) {
        registry.onChange(now -> live.publish(new LiveEvent("changed", null, null, Map.of("what", "registry"))));
    }
}
