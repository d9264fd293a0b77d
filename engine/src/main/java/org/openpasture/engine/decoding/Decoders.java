package org.openpasture.engine.decoding;

import java.time.Instant;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.DeviceSetting;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.layout.JsonLayout;
import org.openpasture.engine.script.Codec;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;
import tools.jackson.databind.node.JsonNodeFactory;

/**
 * Reads payloads and writes settings: by the model's layout at once, or by its script on a thread of the script's own.
 */
@Component
public class Decoders {
    private record Loaded(String script, Codec codec) {}

    private static final String DRAFT = "draft of ";
    /** Each holds its engine's memory. */
    private static final int MOST_DRAFTS = 4;

    private final RegistryStore registry;
    private final Map<String, Loaded> codecs = new ConcurrentHashMap<>();

    Decoders(RegistryStore registry) {
        this.registry = registry;
    }

    /** What a payload says; for a layout the future is done already. */
    public CompletableFuture<Decoding> decode(DeviceModel model, int port, byte[] payload, Instant receivedAt) {
        String script = model.script();
        return script == null
                ? CompletableFuture.completedFuture(model.layout().decode(port, payload))
                : codec(model.id(), script).decode(port, payload, receivedAt);
    }

    /** What a part of a message says; what was read as JSON already is not read again. */
    public CompletableFuture<Decoding> decode(DeviceModel model, Item.Opened item, Instant receivedAt) {
        return item.json() != null && model.script() == null && model.layout() instanceof JsonLayout layout
                ? CompletableFuture.completedFuture(layout.decode(item.json()))
                : decode(model, 0, item.payload(), receivedAt);
    }

    /**
     * The same for decoders that nobody else uses yet, to be tried.
     *
     * @param person whose draft it is: nobody waits for somebody else's
     */
    public CompletableFuture<Decoding> attempt(
            String person, DeviceModel draft, int port, byte[] payload, Instant receivedAt) {
        String script = draft.script();
        return script == null
                ? CompletableFuture.completedFuture(draft.layout().decode(port, payload))
                : codec(DRAFT + person, script).decode(port, payload, receivedAt);
    }

    /**
     * The bytes that give a setting a value: by the script if the model has one, else as the setting itself describes.
     *
     * @throws IllegalArgumentException if the value is out of range; the future fails with
     *     {@link org.openpasture.engine.script.ScriptFailed}
     */
    public CompletableFuture<Codec.Encoded> encode(DeviceModel model, DeviceSetting setting, double value) {
        byte[] byLayout = setting.encode(value);
        String script = model.script();
        return script == null
                ? CompletableFuture.completedFuture(new Codec.Encoded(setting.port(), byLayout))
                : codec(model.id(), script)
                        .encode(JsonNodeFactory.instance.objectNode().put(setting.name(), value));
    }

    private Codec codec(String key, String script) {
        Loaded loaded = codecs.compute(key, (id, was) -> {
            if (was != null && was.script().equals(script)) {
                return was;
            }
            if (was != null) {
                was.codec().close();
            }
            return new Loaded(script, new Codec(script));
        });
        codecs.entrySet().removeIf(entry -> {
            boolean goes = !entry.getKey().equals(key) && isOver(entry.getKey());
            if (goes) {
                entry.getValue().codec().close();
            }
            return goes;
        });
        return loaded.codec();
    }

    /** A model that is gone, or a draft too many. */
    private boolean isOver(String key) {
        return key.startsWith(DRAFT)
                ? codecs.keySet().stream().filter(id -> id.startsWith(DRAFT)).count() > MOST_DRAFTS
                : registry.now().find(DeviceModel.class, key).isEmpty();
    }
}
