package org.openpasture.engine.notice;

import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.api.setting.TextSettings;
import org.openpasture.core.outlet.Destination;
import org.openpasture.inlets.passing.HttpPasser;
import org.openpasture.inlets.passing.Passer;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Sends text messages by the gateway that is configured: a post to an address, by HTTP. For any thread. */
@Component
public class Texter {
    private static final String SETTING = "text-gateway";
    private static final String HEADER = "header";
    private final SettingStore settings;
    private final Clock clock;

    Texter(SettingStore settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /** The settings without the secret. */
    public Optional<TextSettings> settings() {
        return settings.find(SETTING, TextSettings.class);
    }

    /**
     * Keeps settings. A secret that is left out stays as it was, unless the address is that of another host: what is
     * secret to one is not sent to another.
     */
    public void save(TextSettings next) {
        boolean elsewhere =
                settings().filter(before -> place(before).equals(place(next))).isEmpty();
        String secret = next.secret();
        if (secret != null && !secret.isEmpty()) {
            settings.saveSecret(SETTING, HEADER, secret.getBytes(StandardCharsets.UTF_8));
        } else if (elsewhere) {
            settings.forgetSecret(SETTING, HEADER);
        }
        settings.save(SETTING, next.withoutSecret());
    }

    private static String place(TextSettings gateway) {
        return new Destination.HttpPost(gateway.url(), true).place();
    }

    /** Sends one text message; returns what went wrong, or nothing. */
    public Optional<NotDelivered> send(String number, String text) {
        Optional<TextSettings> found = settings();
        if (found.isEmpty()) {
            return Optional.of(
                    new NotDelivered("no gateway for text messages is configured (Settings, Text messages)", false));
        }
        TextSettings gateway = found.get();
        Map<String, String> headers = settings.secret(SETTING, HEADER)
                .map(secret -> Map.of(gateway.header(), new String(secret, StandardCharsets.UTF_8)))
                .orElse(Map.of());
        // Only owners enter this address, and their gateway may well stand beside this machine.
        try (HttpPasser passer =
                new HttpPasser(new Destination.HttpPost(gateway.url(), true), headers, Reach.ANYWHERE, clock)) {
            passer.pass(message(gateway, number, text));
            return Optional.empty();
        } catch (Passer.Refused e) {
            return Optional.of(new NotDelivered(String.valueOf(e.getMessage()), true));
        } catch (IOException e) {
            return Optional.of(new NotDelivered(String.valueOf(e.getMessage()), false));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.of(new NotDelivered("the service is being stopped", false));
        }
    }

    private static Passer.Message message(TextSettings gateway, String number, String text) {
        Map<String, String> fields = new LinkedHashMap<>(gateway.fields());
        fields.put(gateway.toField(), number);
        fields.put(gateway.textField(), text);
        String body =
                switch (gateway.format()) {
                    case JSON -> JsonMapper.shared().writeValueAsString(fields);
                    case FORM ->
                        fields.entrySet().stream()
                                .map(one -> encoded(one.getKey()) + "=" + encoded(one.getValue()))
                                .collect(Collectors.joining("&"));
                };
        return new Passer.Message("", gateway.format().mediaType(), body.getBytes(StandardCharsets.UTF_8));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
