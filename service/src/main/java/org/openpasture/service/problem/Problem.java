package org.openpasture.service.problem;

import org.openpasture.core.edit.Edited;
import org.springframework.http.HttpStatus;

/** Something that a caller asked for and cannot have; becomes a problem detail (RFC 9457). */
public final class Problem extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final HttpStatus status;
    private final String type;
    private final String todo;

    private Problem(HttpStatus status, String type, String message, String todo) {
        super(message);
        this.status = status;
        this.type = type;
        this.todo = todo;
    }

    /** A change that was refused. */
    public static Problem of(Edited.Refused refused) {
        return switch (refused.reason()) {
            case UNKNOWN -> new Problem(HttpStatus.NOT_FOUND, "not-found", refused.what(), refused.todo());
            case NOT_ALLOWED -> new Problem(HttpStatus.FORBIDDEN, "not-allowed", refused.what(), refused.todo());
            case CLASH -> conflict(refused.what(), refused.todo());
            case INVALID -> new Problem(HttpStatus.BAD_REQUEST, "invalid", refused.what(), refused.todo());
        };
    }

    /** There is no such thing, or the reader may not know of it. */
    public static Problem notFound(String what) {
        return of(Edited.Refused.unknown(what));
    }

    /** The reader may see it, but not do this. */
    public static Problem forbidden(String what) {
        return of(Edited.Refused.notAllowed(what));
    }

    public static Problem invalid(String message) {
        return new Problem(HttpStatus.BAD_REQUEST, "invalid", message, "Correct it and try again.");
    }

    /** It clashes with what is there. */
    public static Problem conflict(String message, String todo) {
        return new Problem(HttpStatus.CONFLICT, "conflict", message, todo);
    }

    public static Problem unauthorised(String message) {
        return new Problem(HttpStatus.UNAUTHORIZED, "sign-in", message, "Sign in.");
    }

    /** Name and password are right, and a code is needed too. */
    public static Problem secondFactor(String message) {
        return new Problem(HttpStatus.UNAUTHORIZED, "second-factor", message, "Sign in with the code.");
    }

    /** A link that opens with a passcode only. */
    public static Problem passcode(String message, String todo) {
        return new Problem(HttpStatus.FORBIDDEN, "passcode", message, todo);
    }

    /** The thing was changed since the version that the request names. */
    public static Problem changedMeanwhile(String message, String todo) {
        return new Problem(HttpStatus.PRECONDITION_FAILED, "changed-meanwhile", message, todo);
    }

    /** It was there and is no more. */
    public static Problem gone(String message, String todo) {
        return new Problem(HttpStatus.GONE, "gone", message, todo);
    }

    /** It is longer than what is taken at once. */
    public static Problem tooLarge(String message, String todo) {
        return new Problem(HttpStatus.CONTENT_TOO_LARGE, "too-large", message, todo);
    }

    /** It can be read, but nothing in it can be used. */
    public static Problem unprocessable(String message, String todo) {
        return new Problem(HttpStatus.UNPROCESSABLE_CONTENT, "not-usable", message, todo);
    }

    /** Not now. */
    public static Problem unavailable(String message, String todo) {
        return new Problem(HttpStatus.SERVICE_UNAVAILABLE, "not-now", message, todo);
    }

    public static Problem tooMany(String message, String todo) {
        return new Problem(HttpStatus.TOO_MANY_REQUESTS, "too-many", message, todo);
    }

    HttpStatus status() {
        return status;
    }

    String type() {
        return type;
    }

    String todo() {
        return todo;
    }
}
