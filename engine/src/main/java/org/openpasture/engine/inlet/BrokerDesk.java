package org.openpasture.engine.inlet;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.inlets.broker.Broker;
import org.openpasture.inlets.broker.BrokerGuard;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;
import org.openpasture.store.registry.RegistryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.ssl.SslBundle;
import org.springframework.boot.ssl.SslBundles;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * The MQTT broker inside. Senders sign in with the token of their inlet as password, and may publish to its topics;
 * whoever else is let in by others who publish here is asked by {@link Visitors}. It starts beside the rest, since that
 * takes seconds.
 */
@Component
public class BrokerDesk {
    private static final Logger LOG = LoggerFactory.getLogger(BrokerDesk.class);
    private final RegistryStore registry;
    private final InletTokens tokens;
    private final SslBundles bundles;
    private final EngineSettings.Mqtt mqtt;
    private final Path folder;
    private final List<Visitors> visitors;
    private final ApplicationEventPublisher events;
    /** By inlet. */
    private final Map<String, MessageSink> sinks = new ConcurrentHashMap<>();

    private volatile @Nullable Broker broker;
    private volatile boolean starting = true;
    private volatile String problem = "It starts.";
    private volatile boolean closed;

    /** The broker has begun to listen; nothing is retained by it yet. */
    public record Opened(Broker broker) {}

    /** Knows people who may connect to the broker beside the senders of inlets. */
    public interface Visitors {
        Optional<BrokerGuard.Member> signIn(String name, String password, String source);
    }

    BrokerDesk(
            RegistryStore registry,
            InletTokens tokens,
            SslBundles bundles,
            EngineSettings settings,
            List<Visitors> visitors,
            ApplicationEventPublisher events) {
        this.registry = registry;
        this.tokens = tokens;
        this.bundles = bundles;
        this.mqtt = settings.mqtt();
        this.folder = settings.data().resolve("broker");
        this.visitors = visitors;
        this.events = events;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        if (mqtt.port() < 0 && mqtt.tlsPort() < 0) {
            problem = "The broker of this service is switched off (--mqtt-port).";
            starting = false;
            tell();
            return;
        }
        Thread.ofPlatform().daemon().name("broker-start").start(() -> {
            try {
                open();
            } catch (IOException | GeneralSecurityException | RuntimeException e) {
                problem = "The broker of this service does not run: " + e.getMessage();
                LOG.error("{}. Choose another port with --mqtt-port, or -1 for none.", problem);
            }
            starting = false;
            tell();
            broker().ifPresent(opened -> events.publishEvent(new Opened(opened)));
        });
    }

    private synchronized void open() throws IOException, GeneralSecurityException {
        if (closed) {
            return;
        }
        Broker opened = new Broker(settings(), this::signIn);
        broker = opened;
        LOG.info("The MQTT broker listens at {}", opened.address());
    }

    private Broker.Settings settings() throws IOException, GeneralSecurityException {
        Files.createDirectories(folder);
        if (mqtt.tlsPort() < 0) {
            return new Broker.Settings(folder, mqtt.bind(), mqtt.port(), -1, null, null);
        }
        if (mqtt.certificate() == null) {
            throw new IOException("an encrypted port needs a certificate (--cert and --key, or --self-signed)");
        }
        // The broker reads its certificate from a file of its own, made anew at each start, for nobody else to read.
        SslBundle bundle = bundles.getBundle(mqtt.certificate());
        KeyStore from = Objects.requireNonNull(bundle.getStores().getKeyStore());
        String alias = from.aliases().nextElement();
        String theirs = Optional.ofNullable(bundle.getKey().getPassword())
                .or(() -> Optional.ofNullable(bundle.getStores().getKeyStorePassword()))
                .orElse("");
        String password = Tokens.fresh();
        KeyStore store = KeyStore.getInstance("JKS");
        store.load(null, null);
        store.setKeyEntry(
                "pasture",
                from.getKey(alias, theirs.toCharArray()),
                password.toCharArray(),
                from.getCertificateChain(alias));
        Path file = folder.resolve("certificate.jks");
        Files.deleteIfExists(file);
        Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        try (OutputStream out = Files.newOutputStream(file)) {
            store.store(out, password.toCharArray());
        }
        return new Broker.Settings(folder, mqtt.bind(), mqtt.port(), mqtt.tlsPort(), file.toAbsolutePath(), password);
    }

    /** The broker, once it runs. */
    public Optional<Broker> broker() {
        return Optional.ofNullable(broker);
    }

    /** Why it does not run. */
    public String problem() {
        return problem;
    }

    private void tell() {
        sinks.values().forEach(this::tell);
    }

    private void tell(MessageSink sink) {
        Broker running = broker;
        if (running == null) {
            sink.condition(starting ? Condition.CONNECTING : Condition.DOWN, problem);
        } else {
            sink.condition(Condition.UP, "Senders can publish to it.");
        }
    }

    /** Takes what is published to the topics of an inlet. */
    MessageInlet open(Inlet inlet, Source.OwnBroker source, MessageSink sink) {
        sinks.put(inlet.id(), sink);
        tell(sink);
        return new MessageInlet() {
            @Override
            public String address() {
                Broker running = broker;
                return (running == null ? "mqtt://" + mqtt.bind() + ":" + mqtt.port() : running.address()) + ", "
                        + String.join(
                                ", ",
                                source.topics().stream().map(TopicPattern::text).toList());
            }

            @Override
            public void close() {
                sinks.remove(inlet.id(), sink);
            }
        };
    }

    private Optional<BrokerGuard.Member> signIn(String name, String password, String source) {
        List<String> inlets = registry.now().all(Inlet.class).stream()
                .filter(inlet -> inlet.source() instanceof Source.OwnBroker)
                .map(Inlet::id)
                .toList();
        return tokens.inletOf(password, inlets)
                .<BrokerGuard.Member>map(inlet -> new Sender(inlet, Tokens.hash(password)))
                .or(() -> visitors.stream()
                        .flatMap(one -> one.signIn(name, password, source).stream())
                        .findFirst());
    }

    /** A client that signed in with the token of an inlet. */
    private final class Sender implements BrokerGuard.Member {
        private final String inletId;
        private final String tokenHash;

        private Sender(String inletId, String tokenHash) {
            this.inletId = inletId;
            this.tokenHash = tokenHash;
        }

        @Override
        public String key() {
            return "inlet " + inletId;
        }

        @Override
        public boolean isWelcome() {
            return registry.now().find(Inlet.class, inletId).isPresent() && tokens.isGood(inletId, tokenHash);
        }

        @Override
        public boolean mayReceive(String topic) {
            return mayPublish(topic);
        }

        /** The inlet as it is now; empty once it is paused or gone. */
        private Optional<Inlet> inlet() {
            return sinks.containsKey(inletId)
                    ? registry.now().find(Inlet.class, inletId).filter(inlet -> !inlet.paused())
                    : Optional.empty();
        }

        private static List<TopicPattern> topics(Inlet inlet) {
            return inlet.source() instanceof Source.OwnBroker(List<TopicPattern> topics) ? topics : List.of();
        }

        @Override
        public boolean mayPublish(String topic) {
            return inlet().filter(inlet -> topics(inlet).stream()
                            .anyMatch(pattern -> pattern.match(topic).isPresent()))
                    .isPresent();
        }

        @Override
        public boolean maySubscribe(String filter) {
            return inlet().filter(inlet -> topics(inlet).stream()
                            .anyMatch(pattern -> pattern.filter().equals(filter)
                                    || !filter.contains("+")
                                            && !filter.contains("#")
                                            && pattern.match(filter).isPresent()))
                    .isPresent();
        }

        @Override
        public CompletableFuture<?> published(String topic, byte[] payload) {
            Optional<Inlet> inlet = inlet();
            MessageSink sink = sinks.get(inletId);
            if (inlet.isEmpty() || sink == null) {
                return CompletableFuture.failedFuture(new IllegalStateException("the inlet is paused or gone"));
            }
            return sink.message(inlet.get().framing(), payload, topic, TopicPattern.names(topics(inlet.get()), topic));
        }
    }

    /** The broker takes seconds to end, which pass beside the last requests of the web server. */
    @EventListener(ContextClosedEvent.class)
    void beginToClose() {
        Thread.ofPlatform().daemon().name("broker-stop").start(this::close);
    }

    @PreDestroy
    synchronized void close() {
        closed = true;
        Broker running = broker;
        broker = null;
        if (running != null) {
            running.close();
        }
    }
}
