package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;

/**
 * Whose topics those of the broker inside are: a site's, from when an inlet or outlet of it first names them. Otherwise
 * whoever edits one site could hear another, and speak in its name.
 */
final class Topics {
    private Topics() {}

    /** Refuses an inlet that would hear topics of another site. */
    static Optional<Refused> of(Access access, Inlet inlet) {
        return inlet.source() instanceof Source.OwnBroker(List<TopicPattern> topics)
                ? refuse(access, inlet.siteId(), topics)
                : Optional.empty();
    }

    /** Refuses an outlet that would publish to topics of another site. */
    static Optional<Refused> of(Access access, Outlet outlet) {
        return outlet.destination() instanceof Destination.OwnTopic own
                ? refuse(access, outlet.siteId(), List.of(own.pattern()))
                : Optional.empty();
    }

    private static Optional<Refused> refuse(Access access, String siteId, List<TopicPattern> wanted) {
        if (!access.mayManageInstance()) {
            Optional<TopicPattern> wide =
                    wanted.stream().filter(TopicPattern::beginsWild).findFirst();
            if (wide.isPresent()) {
                return Optional.of(new Refused(
                        Edited.Reason.NOT_ALLOWED,
                        "You may not take '" + wide.get().text() + "': it asks for the topics of all sites.",
                        "Let it begin with a part of its own, such as farm/, or ask an owner."));
            }
        }
        return others(access, siteId)
                .flatMap(other -> wanted.stream().filter(other::overlaps))
                .findFirst()
                .map(taken -> Refused.clash(
                        "The topics '" + taken.text() + "' belong to another site.",
                        "Let it begin with another part, such as the name of this site."));
    }

    private static Stream<TopicPattern> others(Access access, String siteId) {
        return Stream.concat(
                access.registry().all(Inlet.class).stream()
                        .filter(inlet -> !inlet.siteId().equals(siteId))
                        .flatMap(inlet -> inlet.source() instanceof Source.OwnBroker(List<TopicPattern> topics)
                                ? topics.stream()
                                : Stream.of()),
                access.registry().all(Outlet.class).stream()
                        .filter(outlet -> !outlet.siteId().equals(siteId))
                        .flatMap(outlet -> outlet.destination() instanceof Destination.OwnTopic own
                                ? Stream.of(own.pattern())
                                : Stream.of()));
    }
}
