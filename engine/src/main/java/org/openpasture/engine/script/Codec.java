package org.openpasture.engine.script;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * A payload codec as LoRa Alliance TS013 describes it: {@code decodeUplink({bytes, fPort, recvTime})} gives
 * {@code {data, errors, warnings}}, {@code encodeDownlink({data})} gives {@code {fPort, bytes, errors}}. Each codec has
 * a thread of its own, so that one that runs wild holds up nobody else; a call that takes more than
 * {@value #MOST_MILLIS} ms of processor time is stopped, and after {@value #MOST_FAILURES} such calls in a row the
 * codec rests for a minute.
 */
public final class Codec implements AutoCloseable {
    private static final long MOST_MILLIS = 300;
    private static final int MOST_FAILURES = 5;
    private static final long REST_NANOS = TimeUnit.MINUTES.toNanos(1);
    private static final int MOST_CHANNELS = 200;
    private static final int MOST_WAITING = 1_000;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final String script;
    private final ExecutorService thread = new java.util.concurrent.ThreadPoolExecutor(
            0, 1, 10, TimeUnit.SECONDS, new java.util.concurrent.LinkedBlockingQueue<>(MOST_WAITING), daemon("script"));
    /** On its thread. */
    private @Nullable Sandbox sandbox;

    private int failures;
    private long restsUntil;

    public Codec(String script) {
        this.script = script;
    }

    private static ThreadFactory daemon(String name) {
        return work -> Thread.ofPlatform().name(name).daemon().unstarted(work);
    }

    /** Something to be sent. */
    public record Encoded(int port, byte[] bytes) {}

    /** Reads a payload; what goes wrong is a refusal in words, never an exception. */
    public CompletableFuture<Decoding> decode(int port, byte[] payload, Instant receivedAt) {
        ObjectNode input = JSON.createObjectNode().put("fPort", port).put("recvTime", receivedAt.toString());
        for (byte one : payload) {
            input.withArray("bytes").add(one & 0xFF);
        }
        if (payload.length == 0) {
            input.putArray("bytes");
        }
        return run("decodeUplink", input).thenApply(Codec::decoding).exceptionally(Codec::refusal);
    }

    /** The bytes that say something to a device; the future fails with {@link ScriptFailed}. */
    public CompletableFuture<Encoded> encode(ObjectNode data) {
        ObjectNode input = JSON.createObjectNode();
        input.set("data", data);
        return run("encodeDownlink", input).thenApply(Codec::encoded);
    }

    private CompletableFuture<JsonNode> run(String function, ObjectNode input) {
        CompletableFuture<JsonNode> done = new CompletableFuture<>();
        try {
            thread.execute(() -> {
                try {
                    done.complete(call(function, input));
                } catch (RuntimeException e) {
                    done.completeExceptionally(e);
                }
            });
        } catch (java.util.concurrent.RejectedExecutionException e) {
            done.completeExceptionally(new ScriptFailed("more than " + MOST_WAITING + " frames wait for this script"));
        }
        return done;
    }

    private JsonNode call(String function, ObjectNode input) {
        if (restsUntil > System.nanoTime()) {
            throw new ScriptFailed(
                    "the script ran too long " + MOST_FAILURES + " times in a row and rests for a minute");
        }
        // Loading takes longer than a call, above all the first of all.
        long most = sandbox == null ? 10 * MOST_MILLIS : MOST_MILLIS;
        try (Watchdog watch = new Watchdog(most)) {
            Sandbox ready = sandbox;
            if (ready == null) {
                ready = new Sandbox(script, "decodeUplink", "encodeDownlink", "decodeDownlink");
                sandbox = ready;
            }
            String answer = ready.call(function, JSON.writeValueAsString(input));
            if (answer == null) {
                throw new ScriptFailed("the script has no function " + function);
            }
            failures = 0;
            return JSON.readTree(answer);
        } catch (JacksonException e) {
            discard();
            throw new ScriptFailed("the script's answer cannot be read");
        } catch (RuntimeException | StackOverflowError e) {
            discard();
            throw counted(Sandbox.failure(e));
        }
    }

    private ScriptFailed counted(ScriptFailed failed) {
        if (failed.isStopped()) {
            failures++;
            if (failures >= MOST_FAILURES) {
                failures = 0;
                restsUntil = System.nanoTime() + REST_NANOS;
            }
        }
        return failed;
    }

    private void discard() {
        Sandbox broken = sandbox;
        sandbox = null;
        if (broken != null) {
            broken.close();
        }
    }

    private static Decoding refusal(Throwable e) {
        Throwable cause = e.getCause() == null ? e : e.getCause();
        return new Decoding.Refused(String.valueOf(cause.getMessage()));
    }

    private static Decoding decoding(JsonNode answer) {
        if (!answer.path("errors").isEmpty()) {
            return new Decoding.Refused("the script says: " + String.join("; ", texts(answer.path("errors"))));
        }
        if (!answer.path("data").isObject()) {
            return new Decoding.Refused("the script gave no data");
        }
        List<ChannelValue> values = new ArrayList<>();
        flatten("", answer.path("data"), values);
        return new Decoding.Decoded(values);
    }

    private static List<String> texts(JsonNode list) {
        return list.isArray()
                ? list.valueStream()
                        .map(one -> one.isString() ? one.asString() : one.toString())
                        .toList()
                : List.of(list.toString());
    }

    /**
     * Numbers and truth values become channels; within objects and lists they are called {@code outer.inner}. Texts are
     * left out.
     */
    private static void flatten(String name, JsonNode node, List<ChannelValue> into) {
        if (into.size() >= MOST_CHANNELS) {
            return;
        }
        if (node.isNumber() && Double.isFinite(node.asDouble())) {
            into.add(new ChannelValue(name, node.asDouble()));
        } else if (node.isBoolean()) {
            into.add(new ChannelValue(name, node.asBoolean() ? 1 : 0));
        } else if (node.isObject()) {
            node.propertyStream()
                    .forEach(entry -> flatten(
                            name.isEmpty() ? channel(entry.getKey()) : name + "." + channel(entry.getKey()),
                            entry.getValue(),
                            into));
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                flatten(name + "." + i, node.get(i), into);
            }
        }
    }

    /** Frames keep values as "channel=value", separated by blanks. */
    private static String channel(String key) {
        return key.replaceAll("[\\s=]", "_");
    }

    private static Encoded encoded(JsonNode answer) {
        if (!answer.path("errors").isEmpty()) {
            throw new ScriptFailed("the script says: " + String.join("; ", texts(answer.path("errors"))));
        }
        int port = answer.path("fPort").asInt(0);
        JsonNode list = answer.path("bytes");
        if (port < 1 || port > 223 || !list.isArray() || list.size() > 222) {
            throw new ScriptFailed("the script gave no bytes for a port of 1 to 223");
        }
        byte[] bytes = new byte[list.size()];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) list.get(i).asInt(0);
        }
        return new Encoded(port, bytes);
    }

    @Override
    public void close() {
        thread.execute(this::discard);
        thread.shutdown();
    }
}
