package org.openpasture.inlets.mqtt;

import com.hivemq.client.mqtt.MqttClientBuilder;
import com.hivemq.client.mqtt.MqttGlobalPublishFilter;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.lifecycle.MqttClientDisconnectedContext;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3ClientBuilder;
import com.hivemq.client.mqtt.mqtt3.message.auth.Mqtt3SimpleAuth;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscribe;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscription;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import com.hivemq.client.mqtt.mqtt5.message.subscribe.Mqtt5Subscribe;
import com.hivemq.client.mqtt.mqtt5.message.subscribe.Mqtt5Subscription;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.BrokerUrl;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.inlets.message.Causes;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;
import org.openpasture.inlets.reach.Reach;

/**
 * Topics of a broker elsewhere, by MQTT 3.1.1 or 5. Messages are acknowledged when they are on disk; what could not be
 * written is not acknowledged, and comes again after the connection was made anew. The connection comes back by itself,
 * with growing delays.
 */
public final class MqttInlet implements MessageInlet {
    private static final Duration SESSION_KEPT = Duration.ofDays(2);
    private static final Duration ANEW_AFTER = Duration.ofSeconds(5);
    private static final int MOST_UNACKNOWLEDGED = 1_000;
    private static final int KEEP_ALIVE_SECONDS = 30;
    private static final int LONGEST = 1 << 20;
    private final Source.MqttBroker source;
    private final Reach reach;
    private final Framing framing;
    private final MessageSink sink;
    private final Link link;
    private final AtomicBoolean renewing = new AtomicBoolean();
    private volatile boolean closed;

    /** The same for both versions of the protocol. */
    private interface Link {
        CompletableFuture<?> connect();

        CompletableFuture<?> subscribe();

        CompletableFuture<?> disconnect();
    }

    /**
     * Begins to connect.
     *
     * @param clientId by which the broker knows our session again
     * @param reach where it may lead, also when the connection is made anew
     * @param secrets "password"; for TLS "ca", "certificate" and "key" in PEM, where it is not the usual authorities,
     *     and no certificate of ours
     */
    public MqttInlet(
            Source.MqttBroker source,
            String clientId,
            Map<String, String> secrets,
            Reach reach,
            Framing framing,
            MessageSink sink)
            throws IOException {
        reach.check(source.url().getHost());
        this.reach = reach;
        this.source = source;
        this.framing = framing;
        this.sink = sink;
        MqttClientBuilder builder = BrokerConnection.to(source.url(), clientId, secrets)
                .automaticReconnect()
                .initialDelay(500, TimeUnit.MILLISECONDS)
                .maxDelay(30, TimeUnit.SECONDS)
                .applyAutomaticReconnect()
                .addConnectedListener(context -> connected())
                .addDisconnectedListener(this::disconnected);
        this.link =
                source.version() != null && source.version() == 3 ? three(builder, secrets) : five(builder, secrets);
        sink.condition(Condition.CONNECTING, "It connects to the broker.");
        link.connect();
    }

    private Link five(MqttClientBuilder builder, Map<String, String> secrets) {
        Mqtt5AsyncClient client = BrokerConnection.versionFive(builder, source.username(), secrets)
                .buildAsync();
        client.publishes(
                MqttGlobalPublishFilter.ALL,
                message -> take(message.getTopic().toString(), message.getPayloadAsBytes(), message::acknowledge),
                true);
        Mqtt5Subscribe wanted = Mqtt5Subscribe.builder()
                .addSubscriptions(source.topics().stream().map(topic -> Mqtt5Subscription.builder()
                        .topicFilter(topic.filter())
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .build()))
                .build();
        return new Link() {
            @Override
            public CompletableFuture<?> connect() {
                return client.connectWith()
                        .cleanStart(false)
                        .sessionExpiryInterval(SESSION_KEPT.toSeconds())
                        .keepAlive(KEEP_ALIVE_SECONDS)
                        .restrictions()
                        .receiveMaximum(MOST_UNACKNOWLEDGED)
                        .applyRestrictions()
                        .send();
            }

            @Override
            public CompletableFuture<?> subscribe() {
                return client.subscribe(wanted);
            }

            @Override
            public CompletableFuture<?> disconnect() {
                return client.disconnect();
            }
        };
    }

    private Link three(MqttClientBuilder builder, Map<String, String> secrets) {
        Optional<String> password = Optional.ofNullable(secrets.get("password"));
        Mqtt3ClientBuilder versioned = builder.useMqttVersion3();
        if (source.username() != null) {
            // Said to the client, not to one connection: those that are made anew need it too.
            var auth = Mqtt3SimpleAuth.builder().username(source.username());
            versioned = versioned.simpleAuth(
                    password.isPresent()
                            ? auth.password(password.get().getBytes(StandardCharsets.UTF_8))
                                    .build()
                            : auth.build());
        }
        Mqtt3AsyncClient client = versioned.buildAsync();
        client.publishes(
                MqttGlobalPublishFilter.ALL,
                message -> take(message.getTopic().toString(), message.getPayloadAsBytes(), message::acknowledge),
                true);
        Mqtt3Subscribe wanted = Mqtt3Subscribe.builder()
                .addSubscriptions(source.topics().stream().map(topic -> Mqtt3Subscription.builder()
                        .topicFilter(topic.filter())
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .build()))
                .build();
        return new Link() {
            @Override
            public CompletableFuture<?> connect() {
                return client.connectWith()
                        .cleanSession(false)
                        .keepAlive(KEEP_ALIVE_SECONDS)
                        .send();
            }

            @Override
            public CompletableFuture<?> subscribe() {
                return client.subscribe(wanted);
            }

            @Override
            public CompletableFuture<?> disconnect() {
                return client.disconnect();
            }
        };
    }

    @Override
    public String address() {
        return source.address();
    }

    /** A topic that the broker refuses is said; the others go on. */
    private void connected() {
        link.subscribe()
                .whenComplete((answer, error) -> sink.condition(
                        error == null ? Condition.UP : Condition.DEGRADED,
                        error == null
                                ? "It is connected."
                                : "The broker does not give what is wanted: " + inWords(error)));
    }

    private void disconnected(MqttClientDisconnectedContext context) {
        if (!closed) {
            try {
                reach.check(source.url().getHost());
            } catch (IOException refused) {
                context.getReconnector().reconnect(false);
                sink.condition(Condition.DOWN, refused.getMessage() + ".");
                return;
            }
            sink.condition(
                    Condition.DOWN,
                    source.url().getHost() + ":" + BrokerUrl.port(source.url()) + ": " + inWords(context.getCause())
                            + ". It is tried again.");
        }
    }

    private static String inWords(Throwable error) {
        Throwable cause = Causes.innermost(error);
        String said = String.valueOf(cause.getMessage());
        return said.startsWith("Connection refused")
                ? "nothing listens there"
                : said.contains("NOT_AUTHORIZED") || said.contains("BAD_USER_NAME_OR_PASSWORD")
                        ? "the broker refuses the name or the password"
                        : cause instanceof java.net.UnknownHostException ? "there is no such host" : said;
    }

    private void take(String topic, byte[] message, Runnable acknowledge) {
        if (message.length > LONGEST) {
            sink.lost(new byte[0], topic, "a message is longer than " + LONGEST + " bytes");
            acknowledge.run();
            return;
        }
        kept(message, topic).whenComplete((done, error) -> {
            if (error == null) {
                acknowledge.run();
            } else {
                anew(String.valueOf(Causes.innermost(error).getMessage()));
            }
        });
    }

    private CompletableFuture<?> kept(byte[] message, String topic) {
        try {
            return sink.message(framing, message, topic, TopicPattern.names(source.topics(), topic));
        } catch (RuntimeException e) {
            return CompletableFuture.failedFuture(e);
        }
    }

    /**
     * A message could not be written and is not acknowledged. A broker sends it again only over another connection, so
     * that one is made, after a while in which what is wrong may be over.
     */
    private void anew(String problem) {
        if (closed || !renewing.compareAndSet(false, true)) {
            return;
        }
        sink.condition(Condition.DEGRADED, "Messages cannot be kept: " + problem + ". They are asked for again.");
        Thread.ofVirtual().name("mqtt-inlet-anew").start(() -> {
            try {
                Thread.sleep(ANEW_AFTER);
                renewing.set(false);
                if (!closed) {
                    link.disconnect().handle((done, error) -> link.connect());
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            } catch (RuntimeException e) {
                sink.condition(Condition.DOWN, "The connection could not be made anew: " + e.getMessage());
            }
        });
    }

    @Override
    public void close() {
        closed = true;
        link.disconnect();
    }
}
