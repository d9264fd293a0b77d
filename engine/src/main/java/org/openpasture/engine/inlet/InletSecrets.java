package org.openpasture.engine.inlet;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * What inlets, outlets and cameras are asked for elsewhere and nobody is shown again: headers, passwords. Encrypted at
 * rest.
 */
@Component
public class InletSecrets {
    private static final String NAME = "inlet-secrets";
    private static final int MOST = 20;
    private static final int LONGEST = 16_384;
    /** Secrets of several lines, for TLS. */
    private static final Set<String> PEM = Set.of("ca", "certificate", "key");

    private final SettingStore settings;
    private final JsonMapper mapper = JsonMapper.builder().build();

    InletSecrets(SettingStore settings) {
        this.settings = settings;
    }

    public Map<String, String> of(String inletId) {
        return settings.secret(inletId, NAME)
                .map(bytes -> mapper.readValue(bytes, new TypeReference<HashMap<String, String>>() {}))
                .orElseGet(HashMap::new);
    }

    /** Whose they were is gone. */
    public void forget(String inletId) {
        settings.forgetSecrets(inletId);
    }

    /** Nothing is said any more; tokens of whose they were stay. */
    public void forgetAll(String inletId) {
        settings.forgetSecret(inletId, NAME);
    }

    /** Keeps them in place of those before. */
    public void save(String inletId, Map<String, String> secrets) {
        if (secrets.size() > MOST
                || secrets.entrySet().stream()
                        .anyMatch(entry -> !entry.getKey().matches("[A-Za-z0-9-]{1,60}")
                                || entry.getValue().length() > LONGEST
                                || entry.getValue()
                                        .chars()
                                        .anyMatch(c -> c < 0x20 && !(c == '\n' && PEM.contains(entry.getKey()))))) {
            throw new IllegalArgumentException("there are " + MOST
                    + " secrets at most; each has a name of letters, digits and dashes, and one line of " + LONGEST
                    + " characters");
        }
        settings.saveSecret(inletId, NAME, mapper.writeValueAsBytes(secrets));
    }
}
