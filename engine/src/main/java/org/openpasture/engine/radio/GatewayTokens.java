package org.openpasture.engine.radio;

import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/**
 * Tokens of stations: shown once, when they are made; kept as a hash. A gateway without one is admitted by its EUI
 * alone.
 */
@Component
public class GatewayTokens {
    private static final String NAME = "station-token";
    private static final int BYTES = 24;
    private final RegistryStore registry;
    private final SettingStore settings;
    private final SecureRandom random = new SecureRandom();
    private final Map<String, Optional<byte[]>> known = new ConcurrentHashMap<>();

    GatewayTokens(RegistryStore registry, SettingStore settings) {
        this.registry = registry;
        this.settings = settings;
    }

    /** Makes a token for a gateway; from now on its station has to give it. */
    public String make(String gatewayId) {
        byte[] bytes = new byte[BYTES];
        random.nextBytes(bytes);
        String token = HexFormat.of().formatHex(bytes);
        settings.saveSecret(gatewayId, NAME, hash(token));
        known.remove(gatewayId);
        return token;
    }

    /** Whether a gateway has a token. */
    public boolean has(String gatewayId) {
        return known.computeIfAbsent(gatewayId, id -> settings.secret(id, NAME)).isPresent();
    }

    public void forget(String gatewayId) {
        settings.forgetSecrets(gatewayId);
        known.remove(gatewayId);
    }

    /**
     * Whether a station may connect: with the right token, or where its gateway has none; also one that nobody
     * registered, to be seen.
     */
    boolean admits(Eui64 eui, Optional<String> authorization) {
        Optional<Gateway> gateway = registry.now().gateway(eui);
        if (gateway.isEmpty() || !has(gateway.get().id())) {
            return true;
        }
        byte[] wanted = known.getOrDefault(gateway.get().id(), Optional.empty()).orElse(new byte[0]);
        return authorization
                .map(text -> MessageDigest.isEqual(hash(Tokens.ofHeader(text)), wanted))
                .orElse(false);
    }

    private static byte[] hash(String token) {
        return HexFormat.of().parseHex(Tokens.hash(token));
    }
}
