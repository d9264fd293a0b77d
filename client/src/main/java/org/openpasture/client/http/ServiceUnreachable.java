package org.openpasture.client.http;

/** Nobody answers, or not as a Pasture service would. */
public final class ServiceUnreachable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    ServiceUnreachable(String message, Throwable cause) {
        super(message, cause);
    }
}
