package org.openpasture.core.limit;

/**
 * Where a limit's figures come from. The published document is authoritative, not this program.
 *
 * @param document "ISO 10816-7"
 * @param edition year, or empty
 * @param clause table or clause, or empty
 */
public record Source(String document, String edition, String clause) {
    /** Nobody said. */
    public static final Source NONE = new Source("", "", "");

    public Source {
        document = document == null ? "" : document;
        edition = edition == null ? "" : edition;
        clause = clause == null ? "" : clause;
    }
}
