package org.openpasture.engine.notice;

import com.github.f4b6a3.ulid.UlidCreator;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Registry;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/**
 * Watches whether mails and text messages get away. Of browsers each has a service of its own. Where one kind has
 * failed for a while, the owners are notified by the other, once until it works again. For any thread.
 */
@Component
class ChannelWatch {
    private static final int FAILURES = 3;
    private static final Duration FOR = Duration.ofSeconds(30);

    private final RegistryDatabase database;
    private final RegistryStore registry;
    private final NoticeStore notices;
    private final Clock clock;
    private final Map<Channel, Failing> failing = new EnumMap<>(Channel.class);

    /** By what messages go. */
    private enum Channel {
        MAIL("E-mails"),
        TEXT("Text messages");

        private final String title;

        Channel(String title) {
            this.title = title;
        }

        private static Optional<Channel> of(String recipient) {
            return switch (Recipient.kept(recipient)) {
                case Recipient.Mail mail -> Optional.of(MAIL);
                case Recipient.Text text -> Optional.of(TEXT);
                case Recipient.OfBrowser browser -> Optional.empty();
                case Recipient.OfPerson person -> Optional.empty();
            };
        }
    }

    private record Failing(Instant since, int failures, boolean told) {}

    ChannelWatch(RegistryDatabase database, RegistryStore registry, NoticeStore notices, Clock clock) {
        this.database = database;
        this.registry = registry;
        this.notices = notices;
        this.clock = clock;
    }

    /** A message was taken. */
    synchronized void worked(String recipient) {
        Channel.of(recipient).ifPresent(failing::remove);
    }

    /**
     * A message was not taken, and not for what it is.
     *
     * @return whether somebody else is notified of that now
     */
    synchronized boolean failed(String recipient, String reason) {
        Optional<Channel> found = Channel.of(recipient);
        if (found.isEmpty()) {
            return false;
        }
        Channel channel = found.get();
        Instant now = clock.instant();
        Failing before = failing.getOrDefault(channel, new Failing(now, 0, false));
        boolean tell = !before.told()
                && before.failures() + 1 >= FAILURES
                && Duration.between(before.since(), now).compareTo(FOR) >= 0;
        failing.put(channel, new Failing(before.since(), before.failures() + 1, before.told() || tell));
        return tell && tellOwners(channel, before.since(), reason);
    }

    private boolean tellOwners(Channel channel, Instant since, String reason) {
        List<String> addresses = addresses(registry.now(), channel);
        String text = channel.title + " cannot be sent since "
                + since.toString().substring(0, 16).replace('T', ' ') + " UTC: " + reason
                + ". Notices wait and are tried again.";
        addresses.forEach(address -> database.write(dsl -> {
            notices.add(
                    dsl,
                    Notice.waiting(
                            UlidCreator.getMonotonicUlid().toLowerCase(),
                            null,
                            address,
                            channel.title + " cannot be sent",
                            text,
                            clock.instant()));
            return true;
        }));
        return !addresses.isEmpty();
    }

    private static List<String> addresses(Registry now, Channel failed) {
        return now.all(Person.class).stream()
                .filter(Person::owner)
                .map(owner -> switch (failed) {
                    case MAIL ->
                        now.find(Ways.class, owner.id()).map(Ways::phone).orElse("");
                    case TEXT -> owner.email().toLowerCase(Locale.ROOT);
                })
                .filter(address -> !address.isEmpty())
                .toList();
    }
}
