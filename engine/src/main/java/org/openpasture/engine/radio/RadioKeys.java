package org.openpasture.engine.radio;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/** Root keys of devices that join. Kept encrypted, given to nobody. */
@Component
public class RadioKeys {
    private static final String NAME = "app-key";
    private final SettingStore settings;
    private final Map<String, Optional<AesKey>> known = new ConcurrentHashMap<>();

    RadioKeys(SettingStore settings) {
        this.settings = settings;
    }

    Optional<AesKey> appKey(String deviceId) {
        return known.computeIfAbsent(deviceId, id -> settings.secret(id, NAME).map(AesKey::of));
    }

    public void save(String deviceId, AesKey key) {
        settings.saveSecret(deviceId, NAME, key.toBytes());
        known.remove(deviceId);
    }

    public void forget(String deviceId) {
        settings.forgetSecrets(deviceId);
        known.remove(deviceId);
    }
}
