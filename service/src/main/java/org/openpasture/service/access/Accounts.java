package org.openpasture.service.access;

import com.github.f4b6a3.ulid.UlidCreator;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.Passwords;
import org.openpasture.core.access.Scope;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Change;
import org.openpasture.core.text.PersonName;
import org.openpasture.engine.notice.AccountMails;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.config.PastureProperties;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.people.CredentialStore;
import org.openpasture.store.registry.RegistryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/** Accounts, sign-ins and the ways in when there is no account yet or its password is lost. */
@Component
public class Accounts {
    private static final Logger LOG = LoggerFactory.getLogger(Accounts.class);
    /** The kind of entries in the trail about who comes in. */
    private static final String SIGN_IN = "sign-in";

    /** Written by "pasture owner reset" into the data folder: the hash of a one-time code. */
    static final String RECOVERY_FILE = "owner-recovery";
    /** What is guessed at where it is no person's name: these hold a character that no name may. */
    private static final String SETUP = "\nset-up";

    private static final String RECOVERY = "\nrecovery";
    private static final String RESET = "\nreset";
    private static final Duration RESET_LASTS = Duration.ofHours(1);
    /** Nobody's mailbox is filled by somebody else's asking. */
    private static final Duration RESET_SENT_EVERY = Duration.ofMinutes(5);

    private final PastureProperties.Sessions lasting;
    private final RegistryStore registry;
    private final CredentialStore credentials;
    private final PasswordEncoder passwords;
    private final SignInThrottle throttle;
    private final SecondFactors factors;
    private final AccountMails mails;
    private final Clock clock;
    private final ApplicationEventPublisher events;
    private final Path data;
    private final String unknownHash;
    private volatile @Nullable String setupCode;

    Accounts(
            RegistryStore registry,
            CredentialStore credentials,
            PasswordEncoder passwords,
            SignInThrottle throttle,
            SecondFactors factors,
            AccountMails mails,
            Clock clock,
            ApplicationEventPublisher events,
            PastureProperties properties) {
        this.events = events;
        this.registry = registry;
        this.credentials = credentials;
        this.passwords = passwords;
        this.throttle = throttle;
        this.factors = factors;
        this.mails = mails;
        this.clock = clock;
        this.data = properties.data();
        this.lasting = properties.sessions();
        this.unknownHash = String.valueOf(passwords.encode(Tokens.fresh()));
        if (isSetupNeeded()) {
            setupCode = properties.setupCode() != null ? properties.setupCode() : Tokens.shortCode();
        }
    }

    @EventListener(ApplicationReadyEvent.class)
    void sayCode() {
        if (setupCode != null) {
            LOG.info(
                    "This instance has no owner yet. Open the console and make the owner's account with the one-time code {}",
                    setupCode);
        }
    }

    public boolean isSetupNeeded() {
        return registry.now().all(Person.class).stream().noneMatch(Person::owner);
    }

    /** Makes the owner's account with the one-time code. */
    synchronized Person setUp(String code, String name, String email, String password, String source) {
        String expected = setupCode;
        if (expected == null || !isSetupNeeded()) {
            throw Problem.conflict(
                    "This instance has an owner already.", "Sign in, or ask the owner for an invitation.");
        }
        throttle.attempt(SETUP, source);
        if (!equal(expected, code)) {
            throw Problem.invalid("The one-time code is wrong. It stands in the service's log.");
        }
        Person owner = add(name, email, password, true, List.of());
        throttle.succeeded(SETUP, source);
        setupCode = null;
        return owner;
    }

    /** Gives an owner a new password with the code of "pasture owner reset". */
    synchronized Person recover(String code, String name, String password, String source) {
        Path file = data.resolve(RECOVERY_FILE);
        throttle.attempt(RECOVERY, source);
        try {
            if (!Files.exists(file)
                    || !equal(
                            Files.readString(file).strip(),
                            Tokens.hash(code.strip().toUpperCase(Locale.ROOT)))) {
                throw Problem.invalid("The recovery code is wrong or was used already.");
            }
            Person owner = registry.now()
                    .person(name)
                    .filter(Person::owner)
                    .orElseThrow(() -> Problem.invalid("No owner is called '" + name + "'."));
            Files.delete(file);
            credentials.savePasswordHash(owner.id(), encode(password));
            credentials.forgetTokensOf(owner.id());
            factors.remove(owner, owner.name());
            throttle.succeeded(RECOVERY, source);
            registry.note(owner.name(), "password", owner.id(), "changed with the recovery code");
            return owner;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static boolean equal(String expected, String given) {
        return MessageDigest.isEqual(
                expected.toUpperCase(Locale.ROOT).getBytes(java.nio.charset.StandardCharsets.UTF_8),
                given.strip().toUpperCase(Locale.ROOT).getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }

    /**
     * Makes an account together with other changes, such as its first grant.
     *
     * @param more are made for the id of the new person
     */
    public Person add(
            String name,
            String email,
            String password,
            boolean owner,
            List<java.util.function.Function<Person, Change>> more) {
        Person person = new Person(newId(), name, email, owner);
        credentials.savePasswordHash(person.id(), encode(password));
        registry.change(name, now -> {
            if (now.person(name).isPresent()) {
                throw Problem.conflict(
                        "Somebody called '" + name + "' is here already.", "Choose another name to sign in with.");
            }
            List<Change> changes = new java.util.ArrayList<>();
            changes.add(new Change.Put(person));
            more.forEach(make -> changes.add(make.apply(person)));
            return changes;
        });
        return person;
    }

    private String encode(String password) {
        return String.valueOf(passwords.encode(password));
    }

    /**
     * Checks name, password and, where the person has a second factor, its code; takes as long for a name that does not
     * exist.
     *
     * @param code of the authenticator app, or a recovery code; null if none was entered
     * @param source the address that the attempt comes from
     */
    public Person authenticate(String name, String password, @Nullable String code, String source) {
        throttle.attempt(name, source);
        Optional<Person> person = registry.now().person(name);
        String hash =
                person.flatMap(found -> credentials.passwordHash(found.id())).orElse(unknownHash);
        boolean fits = passwords.matches(password, hash);
        if (person.isEmpty() || !fits) {
            // What was typed for a name may be a password: only names that are somebody's are written down.
            registry.note(
                    person.map(Person::name).orElse(""),
                    SIGN_IN,
                    person.map(Person::id).orElse(""),
                    "refused");
            throw Problem.unauthorised("Name or password is wrong.");
        }
        if (factors.isOn(person.get())) {
            // Until the code is right the attempt counts, so that codes cannot be guessed either.
            requireCode(person.get(), code);
        }
        throttle.succeeded(name, source);
        return person.get();
    }

    private void requireCode(Person person, @Nullable String code) {
        if (code == null || code.isBlank()) {
            throw Problem.secondFactor("Enter the code of your authenticator app, or a recovery code.");
        }
        if (!acceptsCode(person, code)) {
            registry.note(person.name(), SIGN_IN, person.id(), "refused: code");
            throw Problem.secondFactor("This code is not valid, or was used already.");
        }
    }

    private boolean acceptsCode(Person person, String code) {
        throttle.attemptCode(person.id());
        boolean accepted = factors.accepts(person, code);
        if (accepted) {
            throttle.codeSucceeded(person.id());
        }
        return accepted;
    }

    /** Switches the second factor of who is signed in off, with a code of it. */
    void removeSecondFactor(Person person, @Nullable String code) {
        if (factors.isOn(person) && (code == null || !acceptsCode(person, code))) {
            throw Problem.invalid("This code is not valid, or was used already.");
        }
        factors.remove(person, person.name());
    }

    /** Checks the password of who is signed in, before something is changed that protects the account. */
    void requirePassword(Person person, @Nullable String password, String source) {
        throttle.attempt(person.name(), source);
        String hash = credentials.passwordHash(person.id()).orElse(unknownHash);
        if (password == null || !passwords.matches(password, hash)) {
            throw Problem.invalid("The current password is wrong.");
        }
        throttle.succeeded(person.name(), source);
    }

    /** Switches the second factor of somebody else off. */
    public void removeSecondFactorOf(Person person, String by) {
        factors.remove(person, by);
    }

    /**
     * Sends a person a code for another password, if there is such a person with an address. Nobody learns from the
     * answer whether there is.
     */
    void forgotPassword(String name, String source) {
        throttle.attempt(RESET + "\n" + name, source);
        Instant now = clock.instant();
        Instant recent = now.plus(RESET_LASTS).minus(RESET_SENT_EVERY);
        Optional<Person> asked = registry.now()
                .person(name)
                .filter(person -> !person.email().isEmpty())
                .filter(person -> !credentials.hasReset(person.id(), recent));
        asked.ifPresent(person -> {
            String token = Tokens.fresh();
            credentials.saveReset(Tokens.hash(token), person.id(), now, now.plus(RESET_LASTS));
            mails.resetPassword(person, token, (int) RESET_LASTS.toMinutes());
            registry.note(person.name(), "password", person.id(), "code sent by mail");
        });
    }

    /** Gives a person another password with the code from the mail; all sign-ins end. A second factor stays. */
    void resetPassword(String token, String password, String source) {
        throttle.attempt(RESET, source);
        String hash = Tokens.hash(token.strip());
        Person person = credentials
                .reset(hash, clock.instant())
                .flatMap(id -> registry.now().find(Person.class, id))
                .orElseThrow(() -> Problem.gone("This code was used already or has expired.", "Ask for a new one."));
        Passwords.requireNotGuessed(password, person.name());
        if (!credentials.takeReset(hash)) {
            throw Problem.gone("This code was used already or has expired.", "Ask for a new one.");
        }
        throttle.succeeded(RESET, source);
        credentials.savePasswordHash(person.id(), encode(password));
        endSessions(person, kept -> true);
        registry.note(person.name(), "password", person.id(), "changed with a code sent by mail");
    }

    /** How long a sign-in lasts at most. */
    public Duration lasting() {
        return lasting.lasts();
    }

    /** Begins a sign-in and returns its token. */
    public String begin(Person person, String purpose, String note) {
        String token = save(person, purpose, note, Scope.ALL, lasting.lasts());
        registry.note(person.name(), SIGN_IN, person.id(), "signed in");
        return token;
    }

    /** Makes a token by which a program asks in somebody's name. */
    String makeToken(Person person, String name, Scope scope, Duration lasts) {
        String token = save(person, CredentialStore.AccessToken.PROGRAM, name, scope, lasts);
        registry.note(person.name(), "token", person.id(), "made: " + name);
        return token;
    }

    private String save(Person person, String purpose, String note, Scope scope, Duration lasts) {
        String token = Tokens.fresh();
        Instant now = clock.instant();
        credentials.saveToken(new CredentialStore.AccessToken(
                Tokens.hash(token), person.id(), purpose, note, scope, now, now.plus(lasts), now));
        return token;
    }

    void end(String token) {
        String hash = Tokens.hash(token);
        credentials
                .token(hash)
                .flatMap(kept -> registry.now().find(Person.class, kept.personId()))
                .ifPresent(person -> registry.note(person.name(), SIGN_IN, person.id(), "signed out"));
        endHashed(hash);
    }

    /** A program that asks in somebody's name. */
    public record Program(Person person, Scope scope, String tokenHash) {}

    /** The program whose token this is, if it is one of the person with the name, and holds. */
    public Optional<Program> program(String name, String token) {
        return credentials
                .token(Tokens.hash(token))
                .filter(kept -> kept.isProgram() && kept.isOpenAt(clock.instant(), lasting.idle()))
                .flatMap(kept -> registry.now()
                        .find(Person.class, kept.personId())
                        .filter(person -> PersonName.key(person.name()).equals(PersonName.key(name)))
                        .map(person -> new Program(person, kept.scope(), kept.tokenHash())));
    }

    /** The tokens of a person's programs, the newest first. */
    List<CredentialStore.AccessToken> tokens(Person person) {
        return kept(person, true);
    }

    private List<CredentialStore.AccessToken> kept(Person person, boolean programs) {
        return credentials.tokensOf(person.id()).stream()
                .filter(kept -> kept.isOpenAt(clock.instant(), lasting.idle()) && kept.isProgram() == programs)
                .toList();
    }

    /** Withdraws a token of a person's program. */
    void withdraw(Person person, CredentialStore.AccessToken token) {
        endHashed(token.tokenHash());
        registry.note(person.name(), "token", person.id(), "withdrawn: " + token.note());
    }

    private void endHashed(String tokenHash) {
        credentials.forgetToken(tokenHash);
        events.publishEvent(new SessionEnded(tokenHash));
    }

    /** Where a person is signed in, the newest first. */
    List<CredentialStore.AccessToken> sessions(Person person) {
        return kept(person, false);
    }

    /** Ends the sign-ins of a person for which something holds. */
    void endSessions(Person person, Predicate<CredentialStore.AccessToken> which) {
        credentials.tokensOf(person.id()).stream().filter(which).forEach(kept -> endHashed(kept.tokenHash()));
    }

    /**
     * Gives a person another password, and ends all their other sign-ins and the tokens of their programs.
     *
     * @param session the hash of the token of the sign-in that goes on
     */
    void changePassword(Person person, String current, String next, String session, String source) {
        requirePassword(person, current, source);
        Passwords.requireNotGuessed(next, person.name());
        credentials.savePasswordHash(person.id(), encode(next));
        endSessions(person, kept -> !kept.tokenHash().equals(session));
        registry.note(person.name(), "password", person.id(), "changed");
    }

    /** Somebody has no account any more: their sign-ins end, and their password is forgotten. */
    public void forget(Person person) {
        endSessions(person, kept -> true);
        credentials.forgetPassword(person.id());
    }

    /**
     * A sign-in has ended.
     *
     * @param tokenHash of its token
     */
    public record SessionEnded(String tokenHash) {}

    /** What stands for a person's password, and is another once that is another. */
    public String credentialOf(String personId) {
        return credentials.passwordHash(personId).orElse("");
    }

    /** Whether a sign-in still holds. */
    public boolean isOpen(String tokenHash) {
        return credentials
                .token(tokenHash)
                .filter(kept -> kept.isOpenAt(clock.instant(), lasting.idle()))
                .isPresent();
    }

    /** A new id: a ULID in lower case. */
    public static String newId() {
        return UlidCreator.getMonotonicUlid().toLowerCase();
    }
}
