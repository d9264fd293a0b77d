package org.openpasture.inlets.mqtt;

import com.hivemq.client.mqtt.MqttClient;
import com.hivemq.client.mqtt.MqttClientBuilder;
import com.hivemq.client.mqtt.mqtt5.Mqtt5ClientBuilder;
import com.hivemq.client.mqtt.mqtt5.message.auth.Mqtt5SimpleAuth;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.inlet.BrokerUrl;

/** How brokers elsewhere are reached: the same for what comes from them and what goes to them. */
public final class BrokerConnection {
    private BrokerConnection() {}

    /**
     * A client of a broker.
     *
     * @param secrets for TLS "ca", "certificate" and "key" in PEM, where it is not the usual authorities, and no
     *     certificate of ours
     * @throws IllegalArgumentException in words, if a secret is not what it should be
     */
    public static MqttClientBuilder to(URI url, String clientId, Map<String, String> secrets) {
        MqttClientBuilder builder = MqttClient.builder()
                .identifier(clientId)
                .serverHost(url.getHost())
                .serverPort(BrokerUrl.port(url));
        return BrokerUrl.isEncrypted(url) ? builder.sslConfig(TlsMaterial.config(secrets)) : builder;
    }

    /**
     * By MQTT 5, with a name and the secret "password" if there are such. Said to the client, not to one connection:
     * those that are made anew need it too.
     *
     * @param username null for none
     */
    public static Mqtt5ClientBuilder versionFive(
            MqttClientBuilder builder, @Nullable String username, Map<String, String> secrets) {
        Mqtt5ClientBuilder versioned = builder.useMqttVersion5();
        if (username == null) {
            return versioned;
        }
        var auth = Mqtt5SimpleAuth.builder().username(username);
        String password = secrets.get("password");
        return versioned.simpleAuth(
                password == null
                        ? auth.build()
                        : auth.password(password.getBytes(StandardCharsets.UTF_8))
                                .build());
    }
}
