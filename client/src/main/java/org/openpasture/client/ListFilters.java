package org.openpasture.client;

import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import picocli.CommandLine.Option;

/** What a list of things that happened is narrowed by. */
final class ListFilters {
    @Option(names = "--in", paramLabel = "PLACE", description = "Only of this place and what lies below it.")
    private @Nullable String in;

    @Option(names = "--person", paramLabel = "NAME", description = "Only what this person did or wrote.")
    private @Nullable String person;

    @Option(names = "--text", paramLabel = "TEXT", description = "Only with this text in it.")
    private @Nullable String text;

    @Option(names = "--from", paramLabel = "WHEN", description = "2026-03-01, yesterday, or how far back: 24h, 7d.")
    private @Nullable String from;

    @Option(names = "--until", paramLabel = "WHEN")
    private @Nullable String until;

    @Option(
            names = "--limit",
            paramLabel = "NUMBER",
            defaultValue = "50",
            description = "How many are listed (${DEFAULT-VALUE}).")
    private int limit;

    /** How many are listed. */
    int limit() {
        return limit;
    }

    /** As parameters of a request, each with an ampersand before it; without the limit. */
    String query(Service service) {
        return ApiClient.query("place", in == null ? null : PlaceCommands.id(service, in))
                + ApiClient.query("person", person)
                + ApiClient.query("text", text)
                + Times.query("since", from)
                + Times.query("until", until);
    }
}
