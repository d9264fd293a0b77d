package org.openpasture.engine.importing;

/** A file that cannot be read as what it claims to be; the message says where and why, in a sentence for people. */
public final class UnreadableFile extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public UnreadableFile(String message) {
        super(message);
    }
}
