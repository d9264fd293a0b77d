package org.openpasture.client;

import org.openpasture.core.people.Right;
import picocli.CommandLine.Option;

/** The options that say what somebody may do, and where. */
final class Permission {
    @Option(names = "--on", paramLabel = "PLACE", required = true, description = "Site, area or asset.")
    private String place;

    @Option(
            names = "--right",
            paramLabel = "RIGHT",
            defaultValue = "look",
            description = "look, operate, edit or manage (${DEFAULT-VALUE}).")
    private Right right;

    Right right() {
        return right;
    }

    /** The id of the place. */
    String target(Service to) {
        return PlaceCommands.id(to, place);
    }
}
