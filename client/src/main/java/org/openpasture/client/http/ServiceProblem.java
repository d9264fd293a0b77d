package org.openpasture.client.http;

/** The service refused something, and says why and what to do. */
public final class ServiceProblem extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final int status;
    private final String type;
    private final String todo;

    ServiceProblem(int status, String type, String message, String todo) {
        super(message);
        this.status = status;
        this.type = type;
        this.todo = todo;
    }

    /** HTTP status. */
    public int status() {
        return status;
    }

    /** What kind of problem it is, by the end of its type's address: "second-factor"; may be empty. */
    public String type() {
        return type;
    }

    /** What to do about it; may be empty. */
    public String todo() {
        return todo;
    }
}
