package org.openpasture.core.outlet;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.net.URI;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.inlet.BrokerUrl;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.text.WebAddress;

/** Where an outlet passes things on to. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Destination.HttpPost.class, name = "http"),
    @JsonSubTypes.Type(value = Destination.MqttTopic.class, name = "mqtt"),
    @JsonSubTypes.Type(value = Destination.OwnTopic.class, name = "own-broker")
})
public sealed interface Destination {
    /** Where it is, for people. */
    String address();

    /** What it is published as; may hold {@link #POINT}. Empty where messages have no topics. */
    String topic();

    /** Where its secrets are said: host and port, and whether that is encrypted; empty where none are. */
    default String place() {
        return switch (this) {
            case HttpPost post -> origin(post.url());
            case MqttTopic there -> origin(there.url());
            case OwnTopic here -> "";
        };
    }

    private static String origin(URI url) {
        return url.getScheme() + "://" + url.getRawAuthority();
    }

    /**
     * An address that is posted to.
     *
     * @param allowPrivate whether it may lie in this machine or the networks around it; null for no
     */
    record HttpPost(URI url, @Nullable Boolean allowPrivate) implements Destination {
        public HttpPost {
            url = WebAddress.checked(url, "an address to post to");
        }

        @Override
        public String address() {
            return url.toString();
        }

        @Override
        public String topic() {
            return "";
        }
    }

    /**
     * A topic of a broker elsewhere.
     *
     * @param url {@code mqtt://host:1883} or {@code mqtts://host:8883}
     * @param topic may hold {@code {point}} for the name of the point; each reading is a message of its own then
     * @param username null for none; the password is a secret
     * @param retained whether the broker keeps the newest message for whoever subscribes later; null for no
     */
    record MqttTopic(
            URI url,
            String topic,
            @Nullable String username,
            @Nullable Boolean retained) implements Destination {
        public MqttTopic {
            BrokerUrl.require(url);
            requireTopic(topic);
        }

        @Override
        public String address() {
            return url.getHost() + ":" + BrokerUrl.port(url) + ", " + topic;
        }
    }

    /**
     * A topic of the broker inside this service; people who may look at the outlet's site subscribe to it with their
     * name and password.
     *
     * @param retained null for no
     */
    record OwnTopic(String topic, @Nullable Boolean retained) implements Destination {
        public OwnTopic {
            requireTopic(topic);
        }

        @Override
        public String address() {
            return "the broker of this service, " + topic;
        }

        /** Everything that it may publish to: a point's name has several parts. */
        public TopicPattern pattern() {
            int at = topic.indexOf(POINT);
            return new TopicPattern(at < 0 ? topic : topic.substring(0, topic.lastIndexOf('/', at) + 1) + "#");
        }
    }

    /** The part of a topic that stands for the point. */
    String POINT = "{point}";

    private static void requireTopic(@Nullable String topic) {
        if (topic == null
                || topic.isBlank()
                || topic.length() > 500
                || topic.startsWith("$")
                || topic.contains("+")
                || topic.contains("#")
                || topic.replace(POINT, "").contains("{")) {
            throw new IllegalArgumentException(
                    "a topic to publish to has 1 to 500 characters, no + and #, does not begin with $, and may hold {point}; not '"
                            + topic + "'");
        }
    }

    /** Whether a filter asks for nothing but what is published to a topic. */
    public static boolean covers(String topic, String filter) {
        if (!topic.contains(POINT)) {
            return filter.equals(topic);
        }
        String before = topic.substring(0, topic.indexOf(POINT));
        return before.endsWith("/") && before.length() > 1 && filter.startsWith(before);
    }
}
