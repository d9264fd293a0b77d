package org.openpasture.engine.radio;

import java.nio.ByteBuffer;
import java.util.Optional;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/**
 * Application keys of devices that are not here yet, as makers deliver them: labels do not carry the key, so that the
 * technician on the ladder only scans. Encrypted; each is used once.
 */
@Component
public class KeyList {
    private static final String OWNER = "key-list";
    private static final int KEY_BYTES = 16;
    private final SettingStore settings;

    KeyList(SettingStore settings) {
        this.settings = settings;
    }

    /** What is known of one device. */
    public record Entry(AesKey appKey, Eui64 joinEui) {}

    public void add(Eui64 devEui, Entry entry) {
        settings.saveSecret(
                OWNER,
                devEui.toString(),
                ByteBuffer.allocate(KEY_BYTES + 8)
                        .put(entry.appKey().toBytes())
                        .putLong(entry.joinEui().bits())
                        .array());
    }

    public Optional<Entry> find(Eui64 devEui) {
        return settings.secret(OWNER, devEui.toString()).map(ByteBuffer::wrap).map(bytes -> {
            byte[] key = new byte[KEY_BYTES];
            bytes.get(key);
            return new Entry(AesKey.of(key), new Eui64(bytes.getLong()));
        });
    }

    public void forget(Eui64 devEui) {
        settings.forgetSecret(OWNER, devEui.toString());
    }

    public int size() {
        return settings.countSecrets(OWNER);
    }

    public void forgetAll() {
        settings.forgetSecrets(OWNER);
    }
}
