package org.openpasture.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.openpasture.api.people.ForgottenRequest;
import org.openpasture.api.people.ResetRequest;
import org.openpasture.api.people.SecondFactorRequest;
import org.openpasture.api.people.SecondFactorView;
import org.openpasture.core.people.Person;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** One's own second factor, and another password by mail. */
@RestController
class SecondFactorController {
    private final SecondFactors factors;
    private final Accounts accounts;
    private final Reader reader;

    SecondFactorController(SecondFactors factors, Accounts accounts, Reader reader) {
        this.factors = factors;
        this.accounts = accounts;
        this.reader = reader;
    }

    /** Whether the reader's sign-ins ask for a code. */
    @GetMapping("/api/v1/session/second-factor")
    SecondFactorView secondFactor() {
        reader.requireSignIn("see the second factor");
        return factors.view(reader.person());
    }

    /** Makes the secret for an authenticator app; needs the password. Sign-ins do not ask for a code yet. */
    @PostMapping("/api/v1/session/second-factor")
    SecondFactorView begin(@RequestBody SecondFactorRequest request, HttpServletRequest http) {
        reader.requireSignIn("set up a second factor");
        accounts.requirePassword(reader.person(), request.password(), http.getRemoteAddr());
        return factors.begin(reader.person());
    }

    /** Switches the second factor on with a first code; the recovery codes are in the answer and nowhere else. */
    @PutMapping("/api/v1/session/second-factor")
    SecondFactorView confirm(@RequestBody SecondFactorRequest request) {
        reader.requireSignIn("set up a second factor");
        return factors.confirm(
                reader.person(),
                Optional.ofNullable(request.code()).orElseThrow(() -> Problem.invalid("The code is missing.")));
    }

    /** Switches the second factor off; needs the password and a code. */
    @PostMapping("/api/v1/session/second-factor/removal")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@RequestBody SecondFactorRequest request, HttpServletRequest http) {
        reader.requireSignIn("switch off the second factor");
        Person person = reader.person();
        accounts.requirePassword(person, request.password(), http.getRemoteAddr());
        accounts.removeSecondFactor(person, request.code());
    }

    /** Sends a code for another password to the address of a person, if there is one; the answer does not say. */
    @PostMapping("/api/v1/password-reset")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void forgotten(@RequestBody ForgottenRequest request, HttpServletRequest http) {
        accounts.forgotPassword(request.name(), http.getRemoteAddr());
    }

    /** Chooses another password with the code from the mail. */
    @PostMapping("/api/v1/password-reset/taken-up")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void reset(@RequestBody ResetRequest request, HttpServletRequest http) {
        accounts.resetPassword(request.token(), request.password(), http.getRemoteAddr());
    }
}
