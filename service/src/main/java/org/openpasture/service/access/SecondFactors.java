package org.openpasture.service.access;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Stream;
import org.apache.commons.codec.binary.Base32;
import org.openpasture.api.people.SecondFactorView;
import org.openpasture.core.people.Person;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.engine.secret.Totp;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.people.SecondFactorStore;
import org.openpasture.store.people.SecondFactorStore.SecondFactor;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.stereotype.Component;

/** Second factors: codes of an authenticator app, and recovery codes for the day on which it is lost. */
@Component
class SecondFactors {
    private static final int RECOVERY_CODES = 10;
    private static final String KIND = "second factor";
    private final SecondFactorStore store;
    private final RegistryStore registry;
    private final Clock clock;

    SecondFactors(SecondFactorStore store, RegistryStore registry, Clock clock) {
        this.store = store;
        this.registry = registry;
        this.clock = clock;
    }

    /** Whether sign-ins of a person ask for a code. */
    boolean isOn(Person person) {
        return store.find(person.id()).filter(SecondFactor::confirmed).isPresent();
    }

    SecondFactorView view(Person person) {
        Optional<SecondFactor> found = store.find(person.id()).filter(SecondFactor::confirmed);
        return new SecondFactorView(
                found.isPresent(), found.map(SecondFactor::recoveryCodes).orElse(0), null, null, List.of());
    }

    /** Makes a secret for an authenticator app; sign-ins ask for its codes once one was entered. */
    SecondFactorView begin(Person person) {
        if (isOn(person)) {
            throw Problem.conflict("The second factor is on already.", "Switch it off first to use another app.");
        }
        byte[] secret = Totp.secret();
        store.begin(person.id(), secret);
        String text = new Base32().encodeToString(secret).replace("=", "");
        String label = URLEncoder.encode("Open Pasture:" + person.name(), StandardCharsets.UTF_8)
                .replace("+", "%20");
        return new SecondFactorView(
                false, 0, text, "otpauth://totp/" + label + "?secret=" + text + "&issuer=Open%20Pasture", List.of());
    }

    /** Switches it on with a first code, and gives the recovery codes. */
    SecondFactorView confirm(Person person, String code) {
        SecondFactor factor = store.find(person.id())
                .orElseThrow(() -> Problem.conflict("No app was set up.", "Begin with the secret for the app."));
        if (factor.confirmed()) {
            throw Problem.conflict("The second factor is on already.", "Nothing is left to do.");
        }
        OptionalLong step = Totp.stepOf(factor.secret(), code, clock.instant());
        if (step.isEmpty() || !store.useStep(person.id(), step.getAsLong())) {
            throw Problem.invalid("This code is not valid. Check that the clock of the phone is right.");
        }
        List<String> codes =
                Stream.generate(Tokens::shortCode).limit(RECOVERY_CODES).toList();
        store.confirm(person.id(), codes.stream().map(Tokens::hash).toList());
        registry.note(person.name(), KIND, person.id(), "switched on");
        return new SecondFactorView(true, RECOVERY_CODES, null, null, codes);
    }

    /** Whether a code of the app, or a recovery code, is right; it is used up by this. */
    boolean accepts(Person person, String code) {
        Optional<SecondFactor> factor = store.find(person.id()).filter(SecondFactor::confirmed);
        if (factor.isEmpty()) {
            return false;
        }
        OptionalLong step = Totp.stepOf(factor.get().secret(), code, clock.instant());
        if (step.isPresent()) {
            return store.useStep(person.id(), step.getAsLong());
        }
        boolean recovered =
                store.useRecoveryCode(person.id(), Tokens.hash(code.strip().toUpperCase(Locale.ROOT)));
        if (recovered) {
            registry.note(person.name(), KIND, person.id(), "recovery code used");
        }
        return recovered;
    }

    /** Sign-ins of a person ask for no code any more. */
    void remove(Person person, String by) {
        if (isOn(person)) {
            registry.note(by, KIND, person.id(), "switched off");
        }
        store.remove(person.id());
    }
}
