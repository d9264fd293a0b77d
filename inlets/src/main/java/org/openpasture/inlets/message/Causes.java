package org.openpasture.inlets.message;

/** What was wrong in the end, beneath what libraries wrap it in. */
public final class Causes {
    private Causes() {}

    /** The innermost cause. */
    public static Throwable innermost(Throwable error) {
        Throwable cause = error;
        while (cause.getCause() != null && cause.getCause() != cause) {
            cause = cause.getCause();
        }
        return cause;
    }
}
