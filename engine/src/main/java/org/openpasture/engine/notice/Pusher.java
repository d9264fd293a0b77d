package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.interfaces.ECPublicKey;
import java.security.spec.PKCS8EncodedKeySpec;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.push.PushKey;
import org.openpasture.core.push.PushSeal;
import org.openpasture.core.push.PushVoucher;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.setting.SettingStore;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * Sends notices to browsers (Web Push, RFC 8030): sealed for the browser, posted to the address that it handed out. The
 * keys of this instance are made when they are first needed. For any thread.
 */
@Component
public class Pusher {
    private static final String SETTING = "browser-notices";
    private static final String PRIVATE = "private-key";
    private static final Duration PATIENCE = Duration.ofSeconds(20);
    /** A browser that was off for longer learns of an alert from the page. */
    private static final Duration KEPT = Duration.ofDays(1);

    private static final int LONGEST_TITLE = 200;
    private static final int LONGEST_BODY = 800;
    /** At most, of letters that base64url has (RFC 8030, 5.4). */
    private static final int TOPIC_LENGTH = 32;
    /** No such subscription, or no more (RFC 8030, 7.3). */
    private static final Set<Integer> GONE = Set.of(404, 410);
    /** What is wrong is the message, or who sends it (RFC 8030, 5; RFC 8292, 2 and 4.2). */
    private static final Set<Integer> FOR_GOOD = Set.of(400, 401, 403, 413);

    private static final int ACCEPTED = 2;

    private final RegistryStore registry;
    private final SettingStore settings;
    private final EngineSettings engine;
    private final Clock clock;
    private final boolean anywhere;
    private final Reach reach;
    /** Made when the first browser is notified; most instances notify none. */
    private @Nullable HttpClient client;

    private @Nullable KeyPair keys;

    Pusher(
            RegistryStore registry,
            SettingStore settings,
            EngineSettings engine,
            Clock clock,
            @Value("${pasture.push-anywhere:false}") boolean anywhere) {
        this.registry = registry;
        this.settings = settings;
        this.engine = engine;
        this.clock = clock;
        this.anywhere = anywhere;
        this.reach = Reach.inside(anywhere);
    }

    /**
     * Refuses an address that messages are not posted to: anything but https, unless the instance is allowed to post
     * anywhere. Where it leads is looked at again each time.
     *
     * @throws IllegalArgumentException in a sentence for people
     */
    public void requireAddress(URI endpoint) {
        boolean known = "https".equals(endpoint.getScheme()) || anywhere && "http".equals(endpoint.getScheme());
        if (!known || endpoint.getRawUserInfo() != null) {
            throw new IllegalArgumentException("messages to browsers are posted to addresses with https only");
        }
    }

    /**
     * A message to a browser.
     *
     * @param address what it opens, a path of ours
     * @param topic what it replaces: the alert; empty for nothing
     */
    public record Push(String title, String body, String address, String topic) {}

    /** The public key of this instance, 65 bytes: who subscribes names it. */
    public byte[] publicKey() {
        return PushKey.write((ECPublicKey) keys().getPublic());
    }

    /** Sends one message; returns what went wrong, or nothing. A browser that is gone is forgotten. */
    public Optional<NotDelivered> send(String browserId, Push push) {
        Optional<NotifiedBrowser> browser = registry.now().find(NotifiedBrowser.class, browserId);
        return browser.isEmpty()
                ? Optional.of(new NotDelivered("this browser is notified no longer", true))
                : send(browser.get(), push);
    }

    private Optional<NotDelivered> send(NotifiedBrowser browser, Push push) {
        String host = browser.endpoint().getHost();
        try {
            reach.check(host);
            HttpRequest.Builder request = HttpRequest.newBuilder(browser.endpoint())
                    .timeout(PATIENCE)
                    .header("TTL", Long.toString(KEPT.toSeconds()))
                    .header("Urgency", "high")
                    .header("Content-Type", "application/octet-stream")
                    .header("Content-Encoding", "aes128gcm")
                    .header("Authorization", PushVoucher.of(browser.endpoint(), contact(), keys(), clock.instant()))
                    .POST(HttpRequest.BodyPublishers.ofByteArray(browser.seal(content(push))));
            if (!push.topic().isEmpty()) {
                request.header("Topic", Tokens.hash(push.topic()).substring(0, TOPIC_LENGTH));
            }
            int status = client().send(request.build(), HttpResponse.BodyHandlers.discarding())
                    .statusCode();
            if (GONE.contains(status)) {
                registry.change("service", List.of(new Change.Remove(Kind.NOTIFIED_BROWSER, browser.id())));
                return Optional.of(new NotDelivered("this browser has ended its subscription", true));
            }
            return status / 100 == ACCEPTED
                    ? Optional.empty()
                    : Optional.of(new NotDelivered(host + " answers " + status, FOR_GOOD.contains(status)));
        } catch (IOException e) {
            return Optional.of(new NotDelivered(
                    host + " cannot be reached: "
                            + Optional.ofNullable(e.getMessage()).orElse("it refuses the connection"),
                    false));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.of(new NotDelivered("the service is being stopped", false));
        }
    }

    private static byte[] content(Push push) {
        Push shown = new Push(
                shortened(push.title(), LONGEST_TITLE),
                shortened(push.body(), LONGEST_BODY),
                push.address(),
                push.topic());
        byte[] bytes = JsonMapper.shared().writeValueAsString(shown).getBytes(StandardCharsets.UTF_8);
        return bytes.length <= PushSeal.LONGEST
                ? bytes
                : content(new Push(
                        shortened(push.title(), LONGEST_TITLE / 4),
                        shortened(push.body(), LONGEST_BODY / 4),
                        push.address(),
                        push.topic()));
    }

    /** Cut between characters, never within one. */
    private static String shortened(String text, int most) {
        return text.codePointCount(0, text.length()) <= most
                ? text
                : text.substring(0, text.offsetByCodePoints(0, most - 1)) + "…";
    }

    /** How who runs this instance is reached: by the address that is configured, if it is one for everybody. */
    private String contact() {
        return engine.addressOrEmpty().startsWith("https:") ? engine.addressOrEmpty() : "";
    }

    private synchronized HttpClient client() {
        if (client == null) {
            client = HttpClient.newBuilder()
                    .connectTimeout(Duration.ofSeconds(10))
                    .followRedirects(HttpClient.Redirect.NEVER)
                    .build();
        }
        return client;
    }

    private synchronized KeyPair keys() {
        if (keys == null) {
            keys = kept().orElseGet(this::made);
        }
        return keys;
    }

    private Optional<KeyPair> kept() {
        return settings.find(SETTING, PublicKey.class)
                .flatMap(open -> settings.secret(SETTING, PRIVATE).map(secret -> {
                    try {
                        return new KeyPair(
                                PushKey.read(Base64.getUrlDecoder().decode(open.key())),
                                KeyFactory.getInstance("EC").generatePrivate(new PKCS8EncodedKeySpec(secret)));
                    } catch (GeneralSecurityException e) {
                        throw new IllegalStateException("the key for notices in browsers cannot be read", e);
                    }
                }));
    }

    private KeyPair made() {
        KeyPair fresh = PushKey.fresh();
        settings.saveSecret(SETTING, PRIVATE, fresh.getPrivate().getEncoded());
        settings.save(
                SETTING,
                new PublicKey(Base64.getUrlEncoder().withoutPadding().encodeToString(PushKey.write((ECPublicKey)
                        fresh.getPublic()))));
        return fresh;
    }

    /** The open half as it is kept. */
    private record PublicKey(String key) {}

    @PreDestroy
    synchronized void close() {
        if (client != null) {
            client.shutdownNow();
        }
    }
}
