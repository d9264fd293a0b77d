package org.openpasture.service.config;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.openpasture.engine.config.EngineSettings;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * The few things that are set in files or options; everything a technician changes is in the console.
 *
 * @param data folder of the records
 * @param radio the gateway port
 * @param mqtt the broker inside
 * @param region regional parameters of the radio network until others are chosen in the console: eu868, us915, au915,
 *     as923-1, in865
 * @param subBand the eight channels that the gateways hear, from 1, in us915 and au915; 0 for all, and elsewhere
 * @param setupCode the one-time code of the first visit; null to have one made and printed
 * @param sessions how long sign-ins last
 * @param backupFolder where backups are written; null for {@code backups} in the data folder, better on another disk
 * @param address how others reach this instance, for links in mails; null to use how the reader reached it
 */
@ConfigurationProperties("pasture")
public record PastureProperties(
        @DefaultValue("data") Path data,
        @DefaultValue Radio radio,
        @DefaultValue Mqtt mqtt,
        @DefaultValue("eu868") String region,
        @DefaultValue("0") int subBand,
        @Nullable String setupCode,
        @DefaultValue Sessions sessions,
        @Nullable URI address,
        @Nullable Path backupFolder) {

    /** Where backups lie. */
    public Path backups() {
        return backupFolder != null ? backupFolder : data.resolve("backups");
    }

    /**
     * How long sign-ins last.
     *
     * @param lasts after so long a person signs in anew, from 15 minutes to 365 days
     * @param idle and after so long in which nobody used it, from 15 minutes
     */
    public record Sessions(
            @DefaultValue("30d") Duration lasts,
            @DefaultValue("7d") Duration idle) {
        private static final Duration SHORTEST = Duration.ofMinutes(15);
        private static final Duration LONGEST = Duration.ofDays(365);

        public Sessions {
            if (lasts.compareTo(SHORTEST) < 0 || idle.compareTo(SHORTEST) < 0 || lasts.compareTo(LONGEST) > 0) {
                throw new IllegalArgumentException(
                        "pasture.sessions: a sign-in lasts 15 minutes to 365 days, and 15 minutes or more without use");
            }
        }
    }

    /**
     * The ports for gateways.
     *
     * @param bind address to listen at
     * @param port UDP, for packet forwarders; 0 for any free one
     * @param stationPort TCP, for stations by WebSocket; 0 for any free one, -1 for none
     * @param stationCertificate name of an SSL bundle ({@code spring.ssl.bundle}) with which the station port is
     *     encrypted; null for plain text
     */
    public record Radio(
            @DefaultValue("127.0.0.1") String bind,
            @DefaultValue("1700") int port,
            @DefaultValue("8472") int stationPort,
            @Nullable String stationCertificate) {}

    /**
     * The MQTT broker inside.
     *
     * @param bind address to listen at: this machine alone, until it is opened
     * @param port TCP, in plain text; -1 for none
     * @param tlsPort TCP, encrypted; -1 for none
     * @param certificate name of an SSL bundle ({@code spring.ssl.bundle}) for the encrypted port; null if there is
     *     none
     */
    public record Mqtt(
            @DefaultValue("127.0.0.1") String bind,
            @DefaultValue("1883") int port,
            @DefaultValue("-1") int tlsPort,
            @Nullable String certificate) {}

    /** What of this concerns the engine. */
    public EngineSettings engine() {
        return new EngineSettings(
                data,
                new EngineSettings.Radio(radio.bind(), radio.port(), radio.stationPort(), radio.stationCertificate()),
                new EngineSettings.Mqtt(mqtt.bind(), mqtt.port(), mqtt.tlsPort(), mqtt.certificate()),
                region,
                subBand,
                address);
    }
}
