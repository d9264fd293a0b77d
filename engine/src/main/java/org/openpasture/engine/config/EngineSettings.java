package org.openpasture.engine.config;

import java.net.URI;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * What the engine has to know of files, ports and addresses before it starts. The code that builds the engine reads it
 * from where it is configured.
 *
 * @param data folder of the records
 * @param radio the ports for gateways
 * @param mqtt the broker inside
 * @param region code of the regional parameters until others are chosen, such as eu868
 * @param subBand the eight channels that the gateways hear, from 1; 0 for all
 * @param address how others reach this instance, for links in messages; null if not configured
 */
public record EngineSettings(
        Path data,
        Radio radio,
        Mqtt mqtt,
        String region,
        int subBand,
        @Nullable URI address) {

    /**
     * The ports for gateways.
     *
     * @param bind address to listen on
     * @param port UDP, for packet forwarders; 0 for any free one
     * @param stationPort TCP, for stations by WebSocket; 0 for any free one, -1 for none
     * @param stationCertificate name of an SSL bundle for the station port; null for plain text
     */
    public record Radio(
            String bind,
            int port,
            int stationPort,
            @Nullable String stationCertificate) {}

    /**
     * The MQTT broker inside.
     *
     * @param bind address to listen on
     * @param port TCP, in plain text; -1 for none
     * @param tlsPort TCP, encrypted; -1 for none
     * @param certificate name of an SSL bundle for the encrypted port; null if there is none
     */
    public record Mqtt(
            String bind, int port, int tlsPort, @Nullable String certificate) {}

    /** The address without a slash at its end; empty text if none is configured. */
    public String addressOrEmpty() {
        return address == null ? "" : address.toString().replaceAll("/+$", "");
    }
}
