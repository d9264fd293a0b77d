package org.openpasture.client;

/** The command needs a sign-in, and there is none. */
final class NotSignedIn extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NotSignedIn() {
        super("you are not signed in; use 'pasture sign-in'");
    }

    /** There is one, for another service. */
    NotSignedIn(String elsewhere, String here) {
        super("you are signed in at " + elsewhere + ", not at " + here + "; use 'pasture sign-in NAME --at " + here
                + "'");
    }
}
