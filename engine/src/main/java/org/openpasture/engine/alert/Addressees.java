package org.openpasture.engine.alert;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;

/** The addresses that the recipients of a rule stand for at a moment, as each person has chosen. */
final class Addressees {
    private Addressees() {}

    /**
     * Whom a step of a rule reaches.
     *
     * @param told each address once
     * @param allAway whether everybody of it is away, so that somebody else has to be asked
     */
    record Reached(List<Ways.Told> told, boolean allAway) {}

    static Reached of(Registry registry, Alert alert, List<String> recipients, Instant at) {
        ZoneId zone = registry.zoneOf(alert.placeId());
        List<Ways.Told> told = recipients.stream()
                .flatMap(written -> told(registry, alert, Recipient.kept(written), at, zone))
                .distinct()
                .toList();
        boolean allAway = !recipients.isEmpty()
                && recipients.stream()
                        .allMatch(written -> Recipient.kept(written) instanceof Recipient.OfPerson(String name)
                                && registry.person(name)
                                        .filter(one ->
                                                PersonWays.of(registry, one).isAway(at, zone))
                                        .isPresent());
        return new Reached(told, allAway);
    }

    private static Stream<Ways.Told> told(
            Registry registry, Alert alert, Recipient recipient, Instant at, ZoneId zone) {
        return switch (recipient) {
            case Recipient.Mail mail -> Stream.of(new Ways.Told(mail, at));
            case Recipient.Text text -> Stream.of(new Ways.Told(text, at));
            case Recipient.OfBrowser browser -> Stream.of(new Ways.Told(browser, at));
            case Recipient.OfPerson(String name) ->
                registry.person(name).filter(one -> new Access(registry, one).may(Right.LOOK, alert.placeId())).stream()
                        .flatMap(one -> PersonWays.told(registry, one, alert.severity(), at, zone).stream());
        };
    }
}
