package org.openpasture.engine.script;

import io.roastedroot.quickjs4j.core.Engine;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import run.endive.runtime.ByteArrayMemory;
import run.endive.runtime.Memory;
import run.endive.wasm.types.MemoryLimits;
import tools.jackson.databind.json.JsonMapper;

/**
 * One script in a JavaScript engine of its own, which is a WebAssembly program: it has no files, no network, no
 * threads, {@value #MEGABYTES} MB of memory at most, and can be interrupted at any step. Before each call its memory is
 * what it was after loading, so that no call learns of another. For one thread.
 */
final class Sandbox implements AutoCloseable {
    private static final int PAGE = 65_536;
    static final int MEGABYTES = 16;
    private static final int MOST_PAGES = MEGABYTES * (1 << 20) / PAGE;
    private static final int LONGEST_ANSWER = 20_000;
    private static final int MOST_SAID = 4 * LONGEST_ANSWER;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Bounded out = new Bounded();
    private final String mark = UUID.randomUUID().toString();
    private final Engine engine;
    private final byte[] afterLoading;
    private @Nullable Memory memory;

    /**
     * Loads a script; names that it may define as functions are called by {@link #call}.
     *
     * @throws ScriptFailed in words
     */
    Sandbox(String script, String... functions) {
        this.engine = Engine.builder()
                .withStdout(out)
                .withStderr(new Bounded())
                .withMemoryFactory(limits -> {
                    Memory made = new ByteArrayMemory(
                            new MemoryLimits(limits.initialPages(), Math.min(limits.maximumPages(), MOST_PAGES)));
                    memory = made;
                    return made;
                })
                .build();
        StringBuilder found = new StringBuilder();
        for (String function : functions) {
            found.append(function)
                    .append(": typeof ")
                    .append(function)
                    .append(" === 'function' ? ")
                    .append(function)
                    .append(" : null,");
        }
        // Through Function the script runs in sloppy mode, as makers write it, and its console is mute.
        String load = "const say = console.log; globalThis.answer = (text) => say(" + JSON.writeValueAsString(mark)
                + " + text); delete globalThis.console;\n"
                + "globalThis.api = (new Function('console', "
                + JSON.writeValueAsString(script + "\n;return {" + found + "};")
                + "))({log() {}, warn() {}, error() {}, info() {}, debug() {}});\nanswer('');";
        try {
            run(load);
            Memory now = memory;
            if (now == null) {
                throw new IllegalStateException("the engine has no memory");
            }
            afterLoading = now.readBytes(0, now.pages() * PAGE);
        } catch (ScriptFailed e) {
            engine.close();
            throw e;
        }
    }

    /**
     * Calls a function of the script.
     *
     * @param input JSON
     * @return JSON of what it returned; null if it has no such function
     * @throws ScriptFailed in words; the sandbox is of no use any more
     */
    @Nullable
    String call(String function, String input) {
        Memory now = memory;
        if (now != null) {
            now.write(0, afterLoading);
        }
        String code = "answer(api." + function + " ? JSON.stringify(api." + function + "(JSON.parse("
                + JSON.writeValueAsString(input) + "))) ?? 'null' : '');";
        String text = run(code);
        return text.isEmpty() ? null : text;
    }

    private String run(String code) {
        out.reset();
        try {
            int compiled = engine.compile("try { " + code + " } catch (e) { answer('!' + String(e)); }");
            engine.exec(compiled);
        } catch (RuntimeException | StackOverflowError e) {
            throw failure(e);
        }
        if (out.isFull()) {
            throw new ScriptFailed("the script wrote more than " + MOST_SAID + " bytes");
        }
        String said = out.toString(StandardCharsets.UTF_8);
        int at = said.indexOf(mark);
        if (at < 0) {
            throw new ScriptFailed("the script gave no answer");
        }
        String text = said.substring(at + mark.length()).strip();
        if (text.length() > LONGEST_ANSWER) {
            throw new ScriptFailed("the script's answer is longer than " + LONGEST_ANSWER + " characters");
        }
        if (text.startsWith("!")) {
            throw new ScriptFailed("the script failed: " + text.substring(1));
        }
        return text;
    }

    /** Keeps what a script writes as far as an answer may go, and nothing of what comes after. */
    private static final class Bounded extends ByteArrayOutputStream {
        @Override
        public synchronized void write(int one) {
            if (!isFull()) {
                super.write(one);
            }
        }

        @Override
        public synchronized void write(byte[] bytes, int from, int length) {
            super.write(bytes, from, Math.min(length, MOST_SAID - count));
        }

        synchronized boolean isFull() {
            return count >= MOST_SAID;
        }
    }

    /** What went wrong in words, whatever step of the engine it was in. */
    static ScriptFailed failure(Throwable e) {
        if (e instanceof ScriptFailed known) {
            return known;
        }
        String name = e.getClass().getSimpleName().toLowerCase(Locale.ROOT);
        String message = String.valueOf(e.getMessage());
        if (name.contains("interrupted")) {
            return ScriptFailed.ranTooLong();
        }
        if (message.contains("stack exhausted") || e instanceof StackOverflowError) {
            return new ScriptFailed("the script called itself too deeply");
        }
        if (message.contains("Failed to compile")) {
            return new ScriptFailed("the script cannot be read as JavaScript");
        }
        return new ScriptFailed("the script was stopped: it took too much memory, or broke the engine");
    }

    @Override
    public void close() {
        engine.close();
    }
}
