package org.openpasture.inlets.broker;

import com.hivemq.configuration.service.InternalConfigurations;
import com.hivemq.embedded.EmbeddedExtension;
import com.hivemq.embedded.EmbeddedHiveMQ;
import com.hivemq.extension.sdk.api.ExtensionMain;
import com.hivemq.extension.sdk.api.async.Async;
import com.hivemq.extension.sdk.api.async.TimeoutFallback;
import com.hivemq.extension.sdk.api.auth.PublishAuthorizer;
import com.hivemq.extension.sdk.api.auth.SimpleAuthenticator;
import com.hivemq.extension.sdk.api.auth.SubscriptionAuthorizer;
import com.hivemq.extension.sdk.api.auth.parameter.PublishAuthorizerInput;
import com.hivemq.extension.sdk.api.auth.parameter.PublishAuthorizerOutput;
import com.hivemq.extension.sdk.api.auth.parameter.SimpleAuthInput;
import com.hivemq.extension.sdk.api.auth.parameter.SimpleAuthOutput;
import com.hivemq.extension.sdk.api.auth.parameter.SubscriptionAuthorizerInput;
import com.hivemq.extension.sdk.api.auth.parameter.SubscriptionAuthorizerOutput;
import com.hivemq.extension.sdk.api.client.parameter.ConnectionInformation;
import com.hivemq.extension.sdk.api.events.client.ClientLifecycleEventListener;
import com.hivemq.extension.sdk.api.events.client.parameters.AuthenticationSuccessfulInput;
import com.hivemq.extension.sdk.api.events.client.parameters.ConnectionLostInput;
import com.hivemq.extension.sdk.api.events.client.parameters.ConnectionStartInput;
import com.hivemq.extension.sdk.api.events.client.parameters.DisconnectEventInput;
import com.hivemq.extension.sdk.api.events.client.parameters.ServerInitiatedDisconnectInput;
import com.hivemq.extension.sdk.api.interceptor.publish.PublishInboundInterceptor;
import com.hivemq.extension.sdk.api.interceptor.publish.parameter.PublishInboundInput;
import com.hivemq.extension.sdk.api.interceptor.publish.parameter.PublishInboundOutput;
import com.hivemq.extension.sdk.api.interceptor.publish.parameter.PublishOutboundInput;
import com.hivemq.extension.sdk.api.interceptor.publish.parameter.PublishOutboundOutput;
import com.hivemq.extension.sdk.api.packets.connect.ConnackReasonCode;
import com.hivemq.extension.sdk.api.packets.general.Qos;
import com.hivemq.extension.sdk.api.packets.publish.AckReasonCode;
import com.hivemq.extension.sdk.api.parameter.ExtensionStartInput;
import com.hivemq.extension.sdk.api.parameter.ExtensionStartOutput;
import com.hivemq.extension.sdk.api.parameter.ExtensionStopInput;
import com.hivemq.extension.sdk.api.parameter.ExtensionStopOutput;
import com.hivemq.extension.sdk.api.services.Services;
import com.hivemq.extension.sdk.api.services.builder.Builders;
import java.io.IOException;
import java.net.InetAddress;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import org.openpasture.inlets.loop.Loop;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The MQTT broker inside: 3.1.1 and 5, QoS 0 to 2. What is published is acknowledged, and handed on, when it is on
 * disk; what could not be kept is refused. Sessions and retained messages live in memory: they end with the service.
 */
public final class Broker implements AutoCloseable {
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    private static final int LONGEST = 1 << 20;
    private static final String NUMBER = "open-pasture-visitor";
    /**
     * How long the library lets its stores rest before they close; what we acknowledge is in our own record by then.
     */
    private static final int SHUTDOWN_GRACE_MILLIS = 100;

    private static final Duration LOOKED_AT_EVERY = Duration.ofSeconds(3);
    private static final Logger LOG = LoggerFactory.getLogger(Broker.class);
    private final EmbeddedHiveMQ broker;
    private final BrokerGuard guard;
    private final Settings settings;
    /**
     * Who is connected, by a number that stands with the connection: two connections may have one client's name for a
     * moment.
     */
    private final Map<String, Visitor> visitors = new ConcurrentHashMap<>();

    private final ExecutorService doorkeepers = Executors.newVirtualThreadPerTaskExecutor();
    private final Sessions sessions = new Sessions();
    private final Loop loop = Loop.onVirtualThread("broker-guests", this::sweep);

    /**
     * Somebody who is connected.
     *
     * @param will what is to be said for him when the connection breaks
     */
    private record Visitor(BrokerGuard.Member member, String client, Optional<Will> will) {}

    private record Will(String topic, byte[] payload) {}

    /**
     * How it is reached.
     *
     * @param folder for its settings, made anew at each start
     * @param bind address to listen at
     * @param port TCP, in plain text; -1 for none
     * @param tlsPort TCP, encrypted; -1 for none
     * @param keyStore a JKS or PKCS 12 file with certificate and key; null if there is no encrypted port
     * @param keyStorePassword of the file and the key
     */
    public record Settings(
            Path folder,
            String bind,
            int port,
            int tlsPort,
            @Nullable Path keyStore,
            @Nullable String keyStorePassword) {}

    /**
     * Starts it; returns when it listens, after some seconds.
     *
     * @throws IOException if a port cannot be had, in words
     */
    public Broker(Settings settings, BrokerGuard guard) throws IOException {
        this.guard = guard;
        this.settings = settings;
        InternalConfigurations.PERSISTENCE_SHUTDOWN_GRACE_PERIOD_MSEC.set(SHUTDOWN_GRACE_MILLIS);
        Path conf = Files.createDirectories(settings.folder().resolve("conf"));
        Files.writeString(conf.resolve("config.xml"), configuration(settings));
        this.broker = EmbeddedHiveMQ.builder()
                .withoutLoggingBootstrap()
                .withConfigurationFolder(conf)
                .withDataFolder(Files.createDirectories(settings.folder().resolve("data")))
                .withExtensionsFolder(Files.createDirectories(settings.folder().resolve("extensions")))
                .withEmbeddedExtension(EmbeddedExtension.builder()
                        .withId("open-pasture")
                        .withName("Open Pasture")
                        .withVersion("1")
                        .withAuthor("Open Pasture")
                        .withPriority(0)
                        .withStartPriority(1_000)
                        .withExtensionMain(new Door())
                        .build())
                .build();
        try {
            broker.start().join();
            loop.start();
        } catch (CompletionException e) {
            doorkeepers.close();
            throw new IOException("the broker's port " + settings.port() + " cannot be opened: " + e.getCause(), e);
        }
    }

    private static String configuration(Settings settings) {
        String plain = settings.port() < 0
                ? ""
                : "<tcp-listener><port>" + settings.port() + "</port><bind-address>" + settings.bind()
                        + "</bind-address></tcp-listener>";
        String tls = settings.tlsPort() < 0
                ? ""
                : "<tls-tcp-listener><port>" + settings.tlsPort() + "</port><bind-address>" + settings.bind()
                        + "</bind-address><tls>"
                        + "<keystore><path>" + settings.keyStore() + "</path><password>" + settings.keyStorePassword()
                        + "</password><private-key-password>"
                        + settings.keyStorePassword() + "</private-key-password></keystore></tls></tls-tcp-listener>";
        return "<?xml version=\"1.0\"?><hivemq><listeners>" + plain + tls
                + "</listeners><persistence><mode>in-memory</mode></persistence>"
                + "<anonymous-usage-statistics><enabled>false</enabled></anonymous-usage-statistics>"
                + "<mqtt><packets><max-packet-size>" + LONGEST + "</max-packet-size></packets>"
                + "<session-expiry><max-interval>" + Sessions.KEPT.toSeconds() + "</max-interval></session-expiry>"
                + "</mqtt></hivemq>";
    }

    /** The ports it listens at, for people. */
    public String address() {
        return (settings.port() < 0 ? "" : "mqtt://" + settings.bind() + ":" + settings.port())
                + (settings.port() >= 0 && settings.tlsPort() >= 0 ? ", " : "")
                + (settings.tlsPort() < 0 ? "" : "mqtts://" + settings.bind() + ":" + settings.tlsPort());
    }

    /** How many are connected. */
    public int connected() {
        return visitors.size();
    }

    /** Publishes something of ours to whoever subscribed; with retained ones, also to whoever subscribes later. */
    public CompletableFuture<?> publish(String topic, byte[] payload, boolean retained) {
        return Services.publishService()
                .publish(Builders.publish()
                        .topic(topic)
                        .payload(ByteBuffer.wrap(payload))
                        .qos(Qos.AT_LEAST_ONCE)
                        .retain(retained)
                        .build());
    }

    /** What the broker asks us. */
    private final class Door implements ExtensionMain {
        @Override
        public void extensionStart(ExtensionStartInput input, ExtensionStartOutput output) {
            Services.securityRegistry().setAuthenticatorProvider(provider -> (SimpleAuthenticator) Broker.this::signIn);
            Services.securityRegistry().setAuthorizerProvider(provider -> new Rights());
            Services.initializerRegistry().setClientInitializer((client, context) -> {
                context.addPublishInboundInterceptor(new Inbound());
                context.addPublishOutboundInterceptor(Broker.this::handOn);
            });
            Services.eventRegistry().setClientLifecycleEventListener(provider -> new Farewell());
        }

        @Override
        public void extensionStop(ExtensionStopInput input, ExtensionStopOutput output) {
            visitors.clear();
        }
    }

    private void signIn(SimpleAuthInput input, SimpleAuthOutput output) {
        String name = input.getConnectPacket().getUserName().orElse("");
        String password = input.getConnectPacket()
                .getPassword()
                .map(StandardCharsets.UTF_8::decode)
                .map(Object::toString)
                .orElse("");
        Optional<Will> will = input.getConnectPacket()
                .getWillPublish()
                .map(one -> new Will(
                        one.getTopic(), one.getPayload().map(Broker::bytes).orElse(new byte[0])));
        String client = input.getClientInformation().getClientId();
        String source = input.getConnectionInformation()
                .getInetAddress()
                .map(InetAddress::getHostAddress)
                .orElse("?");
        boolean kept = input.getConnectPacket().getSessionExpiryInterval() > 0;
        Async<SimpleAuthOutput> later = output.async(PATIENCE, TimeoutFallback.FAILURE);
        doorkeepers.execute(() -> {
            try {
                Optional<BrokerGuard.Member> member = guard.signIn(name, password, source);
                if (member.isEmpty()) {
                    output.failAuthentication(ConnackReasonCode.NOT_AUTHORIZED, "name or password is wrong");
                } else if (will.isPresent()
                        && !member.get().mayPublish(will.get().topic())) {
                    output.failAuthentication(ConnackReasonCode.NOT_AUTHORIZED, "the last will's topic is not yours");
                } else {
                    String number = UUID.randomUUID().toString();
                    List<Sessions.Refusal> refused = sessions.enter(client, number, member.get(), kept);
                    if (!refused.isEmpty()) {
                        switch (refused.getFirst()) {
                            case ANOTHERS_NAME ->
                                output.failAuthentication(
                                        ConnackReasonCode.CLIENT_IDENTIFIER_NOT_VALID,
                                        "somebody else has this client identifier");
                            case TOO_MANY ->
                                output.failAuthentication(
                                        ConnackReasonCode.QUOTA_EXCEEDED, "too many sessions of one sender");
                        }
                        return;
                    }
                    visitors.put(number, new Visitor(member.get(), client, will));
                    input.getConnectionInformation()
                            .getConnectionAttributeStore()
                            .putAsString(NUMBER, number);
                    output.authenticateSuccessfully();
                }
            } finally {
                later.resume();
            }
        });
    }

    /** Ends the connections and sessions of those who would not be let in any more. */
    private void sweep() throws InterruptedException {
        Thread.sleep(LOOKED_AT_EVERY);
        Map<BrokerGuard.Member, Boolean> welcome = new IdentityHashMap<>();
        sessions.members().forEach(member -> welcome.computeIfAbsent(member, BrokerGuard.Member::isWelcome));
        for (String client : sessions.end(member -> Boolean.FALSE.equals(welcome.get(member)))) {
            Services.clientService()
                    .disconnectClient(client, true)
                    .thenCompose(done -> Services.clientService().invalidateSession(client))
                    .exceptionally(error -> {
                        LOG.warn("the session of '{}' could not be ended", client, error);
                        return false;
                    });
        }
    }

    /** What was subscribed to once is handed on only to who may have it now. */
    private void handOn(PublishOutboundInput input, PublishOutboundOutput output) {
        if (member(input.getConnectionInformation())
                .filter(member -> member.mayReceive(input.getPublishPacket().getTopic()))
                .isEmpty()) {
            output.preventPublishDelivery();
        }
    }

    private Optional<BrokerGuard.Member> member(ConnectionInformation connection) {
        return connection
                .getConnectionAttributeStore()
                .getAsString(NUMBER)
                .map(visitors::get)
                .map(Visitor::member);
    }

    /**
     * Says somebody's last will where the broker says it too, which it does not tell those who listen to what is
     * published.
     */
    private final class Farewell implements ClientLifecycleEventListener {
        @Override
        public void onMqttConnectionStart(ConnectionStartInput input) {
            // Who it is is known after he has signed in.
        }

        @Override
        public void onAuthenticationSuccessful(AuthenticationSuccessfulInput input) {
            // He is remembered already.
        }

        @Override
        public void onDisconnect(DisconnectEventInput input) {
            leaves(input);
        }

        @Override
        public void onConnectionLost(ConnectionLostInput input) {
            sayWill(input);
        }

        @Override
        public void onServerInitiatedDisconnect(ServerInitiatedDisconnectInput input) {
            sayWill(input);
        }

        private void sayWill(DisconnectEventInput input) {
            leaves(input).ifPresent(visitor -> visitor.will()
                    .ifPresent(will -> visitor.member().published(will.topic(), will.payload())));
        }

        private Optional<Visitor> leaves(DisconnectEventInput input) {
            Optional<String> number = input.getConnectionInformation()
                    .getConnectionAttributeStore()
                    .getAsString(NUMBER);
            Optional<Visitor> visitor = number.map(visitors::remove);
            visitor.ifPresent(one -> sessions.leave(one.client(), number.orElseThrow()));
            return visitor;
        }
    }

    /** Who may publish and subscribe to what. */
    private final class Rights implements PublishAuthorizer, SubscriptionAuthorizer {
        @Override
        public void authorizePublish(PublishAuthorizerInput input, PublishAuthorizerOutput output) {
            if (member(input.getConnectionInformation())
                    .filter(member -> member.mayPublish(input.getPublishPacket().getTopic()))
                    .isPresent()) {
                output.authorizeSuccessfully();
            } else {
                output.failAuthorization(AckReasonCode.NOT_AUTHORIZED, "this topic is not yours");
            }
        }

        @Override
        public void authorizeSubscribe(SubscriptionAuthorizerInput input, SubscriptionAuthorizerOutput output) {
            String filter = input.getSubscription().getTopicFilter();
            if (member(input.getConnectionInformation())
                    .filter(member -> member.maySubscribe(filter))
                    .isPresent()) {
                output.authorizeSuccessfully();
            } else {
                output.failAuthorization();
            }
        }
    }

    /**
     * Keeps what comes before it is acknowledged. It runs before the rights are checked, so it has to look at them
     * itself.
     */
    private final class Inbound implements PublishInboundInterceptor {
        @Override
        public void onInboundPublish(PublishInboundInput input, PublishInboundOutput output) {
            String topic = input.getPublishPacket().getTopic();
            Optional<BrokerGuard.Member> member =
                    member(input.getConnectionInformation()).filter(one -> one.mayPublish(topic));
            if (member.isEmpty()) {
                return;
            }
            if (input.getPublishPacket().getRetain()
                    && !sessions.mayRetain(
                            member.get().key(),
                            topic,
                            input.getPublishPacket()
                                    .getPayload()
                                    .filter(ByteBuffer::hasRemaining)
                                    .isEmpty())) {
                output.preventPublishDelivery(AckReasonCode.QUOTA_EXCEEDED, "too many retained messages of one sender");
                return;
            }
            byte[] payload =
                    input.getPublishPacket().getPayload().map(Broker::bytes).orElse(new byte[0]);
            CompletableFuture<?> kept = member.get().published(topic, payload);
            if (kept.isDone() && !kept.isCompletedExceptionally()) {
                return;
            }
            Async<PublishInboundOutput> later = output.async(PATIENCE, TimeoutFallback.FAILURE);
            kept.whenComplete((done, error) -> {
                if (error != null) {
                    output.preventPublishDelivery(AckReasonCode.UNSPECIFIED_ERROR, "it could not be kept");
                }
                later.resume();
            });
        }
    }

    private static byte[] bytes(ByteBuffer buffer) {
        byte[] bytes = new byte[buffer.remaining()];
        buffer.duplicate().get(bytes);
        return bytes;
    }

    @Override
    public void close() {
        loop.close();
        broker.stop().join();
        doorkeepers.close();
    }
}
