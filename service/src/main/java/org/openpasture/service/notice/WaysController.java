package org.openpasture.service.notice;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.api.people.RecipientView;
import org.openpasture.api.people.WaysView;
import org.openpasture.api.setting.TestResult;
import org.openpasture.core.access.Access;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.notice.Absence;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.notice.Pace;
import org.openpasture.core.notice.QuietHours;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.notice.Mailer;
import org.openpasture.engine.notice.NotDelivered;
import org.openpasture.engine.notice.Pusher;
import org.openpasture.engine.notice.Texter;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** How people are notified, and who can be. */
@RestController
class WaysController {
    private final RegistryStore registry;
    private final Mailer mailer;
    private final Texter texter;
    private final Pusher pusher;
    private final Reader reader;
    private final Clock clock;
    private final Map<String, Pace> paces = new ConcurrentHashMap<>();

    WaysController(RegistryStore registry, Mailer mailer, Texter texter, Pusher pusher, Reader reader, Clock clock) {
        this.registry = registry;
        this.mailer = mailer;
        this.texter = texter;
        this.pusher = pusher;
        this.reader = reader;
        this.clock = clock;
    }

    /** How the reader is notified. */
    @GetMapping("/api/v1/session/notices")
    WaysView mine() {
        return view(PersonWays.of(reader.now(), reader.person()));
    }

    /** Changes how the reader is notified. */
    @PutMapping("/api/v1/session/notices")
    WaysView change(@RequestBody WaysView wished) {
        reader.requireScope(Right.EDIT, "change how you are notified");
        Person person = reader.person();
        Ways ways = new Ways(
                person.id(),
                Objects.requireNonNullElse(wished.email(), ""),
                wished.mailFrom(),
                number(wished.phone()),
                wished.textFrom(),
                wished.browserFrom(),
                wished.digestAt(),
                wished.quietFrom() == null || wished.quietUntil() == null
                        ? null
                        : new QuietHours(wished.quietFrom(), wished.quietUntil()),
                wished.awayFrom() == null || wished.awayUntil() == null
                        ? null
                        : new Absence(wished.awayFrom(), wished.awayUntil()));
        registry.change(person.name(), List.of(new Change.Put(ways)));
        return view(ways);
    }

    /** Sends the reader a test message by each way that they have chosen, and says what came of each. */
    @PostMapping("/api/v1/session/notices/test")
    List<TestResult> test() {
        reader.requireSignIn("send test messages");
        Person person = reader.person();
        Ways always = PersonWays.of(reader.now(), person).always();
        Instant now = clock.instant();
        Pace pace = paces.computeIfAbsent(person.id(), id -> new Pace());
        synchronized (pace) {
            if (pace.next(now).isAfter(now)) {
                throw Problem.tooMany("You have sent many test messages.", "Try again in a minute.");
            }
            pace.sent(now);
        }
        List<Ways.Told> all = PersonWays.told(reader.now(), person, always, Severity.CRITICAL, now, ZoneOffset.UTC);
        return all.stream().map(told -> tested(told.address())).toList();
    }

    private TestResult tested(Recipient address) {
        String words = "Test message from Open Pasture. Notices about alerts will arrive like this one.";
        Optional<NotDelivered> problem =
                switch (address) {
                    case Recipient.Mail(String mail) ->
                        mailer.send(mail, "Test message from Open Pasture", words + "\n");
                    case Recipient.Text(String number) -> texter.send(number, words);
                    case Recipient.OfBrowser browser ->
                        pusher.send(browser.id(), new Pusher.Push("Test message", words, "/settings/notices", ""));
                    case Recipient.OfPerson person ->
                        Optional.of(new NotDelivered("an account has no address of its own", true));
                };
        String name = address instanceof Recipient.OfBrowser(String id)
                ? reader.now()
                        .find(NotifiedBrowser.class, id)
                        .map(NotifiedBrowser::name)
                        .orElse("a browser")
                : address.written();
        return problem.map(why -> new TestResult(false, name + ": not delivered: " + why.reason() + "."))
                .orElseGet(() -> new TestResult(true, name + ": the message was sent."));
    }

    /** Who can be notified of what happens at a place: everybody who may see it. For who may operate there. */
    @GetMapping("/api/v1/places/{id}/recipients")
    List<RecipientView> recipients(@PathVariable String id) {
        String place = reader.place(id).id();
        reader.require(Right.OPERATE, place, "see who can be notified here");
        Registry now = reader.now();
        return now.all(Person.class).stream()
                .filter(person -> new Access(now, person).may(Right.LOOK, place))
                .sorted(Comparator.comparing(Person::name))
                .map(person -> new RecipientView(
                        new Recipient.OfPerson(person.name()).written(),
                        person.name(),
                        PersonWays.told(now, person, Severity.CRITICAL, clock.instant(), ZoneOffset.UTC).stream()
                                .map(told -> way(told.address()))
                                .distinct()
                                .toList()))
                .toList();
    }

    private static String way(Recipient address) {
        return switch (address) {
            case Recipient.Text text -> "text";
            case Recipient.OfBrowser browser -> "browser";
            case Recipient.Mail mail -> "mail";
            case Recipient.OfPerson person -> "none";
        };
    }

    private static String number(@org.jspecify.annotations.Nullable String phone) {
        if (phone == null || phone.isBlank()) {
            return "";
        }
        return Recipient.of(phone) instanceof Recipient.Text(String number) ? number : phone;
    }

    private static WaysView view(Ways ways) {
        return new WaysView(
                ways.email(),
                ways.mailFrom(),
                ways.phone(),
                ways.textFrom(),
                ways.browserFrom(),
                ways.digest(),
                ways.quiet() == null ? null : ways.quiet().from(),
                ways.quiet() == null ? null : ways.quiet().until(),
                ways.absence() == null ? null : ways.absence().from(),
                ways.absence() == null ? null : ways.absence().until());
    }
}
