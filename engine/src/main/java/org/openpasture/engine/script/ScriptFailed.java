package org.openpasture.engine.script;

/** A script that cannot be loaded, threw, took too long or too much; the message says which. */
public final class ScriptFailed extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final boolean stopped;

    private ScriptFailed(String words, boolean stopped) {
        super(words);
        this.stopped = stopped;
    }

    ScriptFailed(String words) {
        this(words, false);
    }

    static ScriptFailed ranTooLong() {
        return new ScriptFailed("the script ran too long and was stopped", true);
    }

    /** Whether it ran too long. */
    boolean isStopped() {
        return stopped;
    }
}
