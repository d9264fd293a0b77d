package org.openpasture.engine.notice;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.config.EngineSettings;
import org.springframework.stereotype.Component;

/** Mails to people who are to read an entry of the logbook. */
@Component
public class LogbookMails {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm", Locale.ENGLISH);
    private final Outbox outbox;
    private final EngineSettings settings;

    LogbookMails(Outbox outbox, EngineSettings settings) {
        this.outbox = outbox;
        this.settings = settings;
    }

    /** Queues the mail; it is on disk when this returns. */
    public void send(Registry registry, LogEntry entry, Person to) {
        ZoneId zone = registry.zoneOf(entry.placeId());
        String place = Paths.line(registry, entry.placeId());
        Optional<Point> point = registry.find(Point.class, entry.pointId());
        String about = point.map(one -> place + ", " + one.name()).orElse(place);
        String address = settings.addressOrEmpty();
        String link = address.isEmpty()
                ? ""
                : "\n" + address + point.map(one -> "/points/" + one.number()).orElse("/places/" + entry.placeId())
                        + "\n";
        outbox.mail(
                PersonWays.mailOf(registry, to).orElse(to.email()),
                "Logbook of "
                        + point.map(Point::name).orElseGet(() -> registry.place(entry.placeId())
                                .map(one -> one.name())
                                .orElse("a place")),
                entry.personName() + " wrote about " + about + ", "
                        + TIME.format(entry.at().atZone(zone)) + ":\n\n" + entry.text() + "\n" + link);
    }
}
