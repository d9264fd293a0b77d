package org.openpasture.client;

/** The command needs a sign-in, and there is none. */
final class NotSignedIn extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NotSignedIn() {
        super("you are not signed in; use 'pasture sign-in'");
    }
}
