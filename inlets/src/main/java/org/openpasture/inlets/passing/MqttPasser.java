package org.openpasture.inlets.passing;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import com.hivemq.client.mqtt.mqtt5.message.publish.Mqtt5Publish;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.openpasture.core.inlet.BrokerUrl;
import org.openpasture.core.outlet.Destination;
import org.openpasture.inlets.message.Causes;
import org.openpasture.inlets.mqtt.BrokerConnection;
import org.openpasture.inlets.reach.Reach;

/** Publishes to a broker elsewhere, by MQTT 5 with QoS 1. */
public final class MqttPasser implements Passer {
    private static final int PATIENCE_SECONDS = 20;
    private final Mqtt5AsyncClient client;
    private final Destination.MqttTopic destination;
    private final Reach reach;

    /** Connects when the first message is passed on. */
    public MqttPasser(Destination.MqttTopic destination, String clientId, Map<String, String> secrets, Reach reach) {
        this.reach = reach;
        this.destination = destination;
        this.client = BrokerConnection.versionFive(
                        BrokerConnection.to(destination.url(), clientId, secrets), destination.username(), secrets)
                .buildAsync();
    }

    @Override
    public String pass(Message message) throws IOException, InterruptedException {
        if (!client.getState().isConnected()) {
            reach.check(destination.url().getHost());
            done(client.connect());
        }
        done(client.publish(Mqtt5Publish.builder()
                        .topic(message.topic())
                        .qos(MqttQos.AT_LEAST_ONCE)
                        .retain(Boolean.TRUE.equals(destination.retained()))
                        .contentType(message.mediaType())
                        .payload(message.body())
                        .build())
                .thenApply(result -> {
                    result.getError().ifPresent(error -> {
                        throw new IllegalStateException(error);
                    });
                    return result;
                }));
        return "The broker took it as " + message.topic() + ".";
    }

    private void done(CompletableFuture<?> step) throws IOException, InterruptedException {
        String broker = destination.url().getHost() + ":" + BrokerUrl.port(destination.url());
        try {
            step.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
        } catch (TimeoutException e) {
            client.disconnect();
            throw new IOException(broker + " does not answer", e);
        } catch (ExecutionException e) {
            throw new IOException(broker + ": " + Causes.innermost(e).getMessage(), e);
        }
    }

    @Override
    public void close() {
        client.disconnect();
    }
}
