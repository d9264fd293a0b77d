package org.openpasture.simulator.radio;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A gateway that speaks the UDP packet-forwarder protocol, version 2, to a service. */
public final class SimulatedGateway implements AutoCloseable {
    private static final long PULL_EVERY_MILLIS = 5_000;
    private static final long STAT_EVERY_MILLIS = 30_000;

    /**
     * A frame that the service wants to be sent.
     *
     * @param counterMicros when, by this gateway's counter
     * @param immediately whether it is to be sent at once, and not at a moment
     */
    public record Downlink(
            byte[] bytes, long counterMicros, double frequencyMhz, String dataRate, boolean immediately) {}

    private final String eui;
    private final InetSocketAddress service;
    private final DatagramSocket socket;
    private final long started = System.nanoTime();
    private final List<Consumer<Downlink>> listeners = new CopyOnWriteArrayList<>();
    private final AtomicLong acknowledged = new AtomicLong();
    private final Thread keepAlive;
    private volatile boolean on = true;
    private volatile String refuseWith = "";
    private volatile String refuseAllWith = "";

    /** Begins to speak to a service. */
    public SimulatedGateway(String eui, InetSocketAddress service) throws IOException {
        this.eui = eui;
        this.service = service;
        this.socket = new DatagramSocket();
        Thread.ofVirtual().name("gateway-" + eui).start(this::listen);
        keepAlive = Thread.ofVirtual().name("gateway-alive-" + eui).start(this::keepAlive);
    }

    public void onDownlink(Consumer<Downlink> listener) {
        listeners.add(listener);
    }

    /** Says a word such as TOO_LATE to the next downlink instead of sending it. */
    public void refuseNextDownlink(String word) {
        refuseWith = word;
    }

    /** Says a word to every downlink from now on; empty for none. */
    public void refuseDownlinks(String word) {
        refuseAllWith = word;
    }

    /** The gateway's own microsecond counter, 32 bits. */
    public long counterMicros() {
        return (System.nanoTime() - started) / 1_000 & 0xFFFF_FFFFL;
    }

    /** How many of its datagrams were answered. */
    public long acknowledged() {
        return acknowledged.get();
    }

    /** Hears a radio frame and forwards it; returns the counter at which the frame ended. */
    public long hear(byte[] frame, double rssi, double snr, String dataRate, double frequencyMhz) {
        long counter = counterMicros();
        push(String.format(
                Locale.ROOT,
                "{\"rxpk\":[{\"tmst\":%d,\"chan\":2,\"rfch\":0,\"freq\":%.6f,\"stat\":1,\"modu\":\"LORA\","
                        + "\"datr\":\"%s\",\"codr\":\"4/5\",\"rssi\":%.0f,\"lsnr\":%.1f,\"size\":%d,\"data\":\"%s\"}]}",
                counter,
                frequencyMhz,
                dataRate,
                rssi,
                snr,
                frame.length,
                Base64.getEncoder().encodeToString(frame)));
        return counter;
    }

    /** Sends any text as a PUSH_DATA. */
    public void push(String json) {
        if (on) {
            send(new Bytes()
                    .raw(header(0x00))
                    .raw(Aes.hex(eui))
                    .raw(json.getBytes(StandardCharsets.UTF_8))
                    .done());
        }
    }

    /** Sends any bytes to the gateway port. */
    public void sendRaw(byte[] datagram) {
        send(datagram);
    }

    /** Switches the gateway's network on or off. */
    public void power(boolean state) {
        on = state;
        keepAlive.interrupt();
    }

    private byte[] header(int kind) {
        return new Bytes()
                .u8(2)
                .u16be(ThreadLocalRandom.current().nextInt(1 << 16))
                .u8(kind)
                .done();
    }

    private void send(byte[] datagram) {
        try {
            socket.send(new DatagramPacket(datagram, datagram.length, service));
        } catch (IOException e) {
            // The service may be away; a forwarder loses the frame then, and so do we.
        }
    }

    private void keepAlive() {
        long nextStat = 0;
        while (!socket.isClosed()) {
            if (on) {
                send(new Bytes().raw(header(0x02)).raw(Aes.hex(eui)).done());
                if (System.currentTimeMillis() >= nextStat) {
                    push("{\"stat\":{\"rxnb\":3,\"rxok\":3,\"rxfw\":3,\"ackr\":100.0,\"dwnb\":0,\"txnb\":0}}");
                    nextStat = System.currentTimeMillis() + STAT_EVERY_MILLIS;
                }
            }
            try {
                Thread.sleep(PULL_EVERY_MILLIS);
            } catch (InterruptedException e) {
                // Switched on, off, or closed: look at once.
            }
        }
    }

    private void listen() {
        byte[] buffer = new byte[4096];
        while (!socket.isClosed()) {
            try {
                DatagramPacket packet = new DatagramPacket(buffer, buffer.length);
                socket.receive(packet);
                if (packet.getLength() >= 4 && on) {
                    switch (buffer[3]) {
                        case 0x01, 0x04 -> acknowledged.incrementAndGet();
                        case 0x03 -> transmit(buffer, packet.getLength());
                        default -> {}
                    }
                }
            } catch (IOException e) {
                if (socket.isClosed()) {
                    return;
                }
            }
        }
    }

    private void transmit(byte[] datagram, int length) {
        JsonNode txpk = JsonMapper.shared()
                .readTree(new String(datagram, 4, length - 4, StandardCharsets.UTF_8))
                .path("txpk");
        String refusal = refuseWith.isEmpty() ? refuseAllWith : refuseWith;
        refuseWith = "";
        String error = refusal.isEmpty() ? "NONE" : refusal;
        send(new Bytes()
                .u8(2)
                .u8(datagram[1] & 0xFF)
                .u8(datagram[2] & 0xFF)
                .u8(0x05)
                .raw(Aes.hex(eui))
                .raw(("{\"txpk_ack\":{\"error\":\"" + error + "\"}}").getBytes(StandardCharsets.UTF_8))
                .done());
        if (refusal.isEmpty()) {
            Downlink downlink = new Downlink(
                    Base64.getDecoder().decode(txpk.path("data").asString()),
                    txpk.path("tmst").asLong(),
                    txpk.path("freq").asDouble(),
                    txpk.path("datr").asString(),
                    txpk.path("imme").asBoolean(false));
            listeners.forEach(listener -> listener.accept(downlink));
        }
    }

    @Override
    public void close() {
        socket.close();
        keepAlive.interrupt();
    }
}
