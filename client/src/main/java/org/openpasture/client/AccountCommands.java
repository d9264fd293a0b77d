package org.openpasture.client;

import java.io.Console;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.PasswordRequest;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.client.http.ServiceProblem;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Signing in and out. */
final class AccountCommands {
    private AccountCommands() {}

    @Command(name = "sign-in", mixinStandardHelpOptions = true, description = "Sign in; later commands remember it.")
    static final class SignInCommand implements Callable<Integer> {
        @Mixin
        private Service service;

        @Parameters(paramLabel = "NAME", description = "Who you are.")
        private String name;

        @Option(
                names = "--password",
                paramLabel = "PASSWORD",
                description = "Better left out: it is asked for, or read from PASTURE_PASSWORD.")
        private @Nullable String password;

        @Option(
                names = "--code",
                paramLabel = "CODE",
                description = "Of your authenticator app, if your account has a second factor; asked for if left out.")
        private @Nullable String code;

        @Override
        public Integer call() {
            JsonNode answer = signIn(secret());
            new SignIn(
                            service.address().toString(),
                            answer.at("/person/name").asString(),
                            answer.path("token").asString())
                    .save();
            if (!service.printedJson(answer)) {
                service.out()
                        .println("Signed in at " + service.address() + " as "
                                + answer.at("/person/name").asString() + ".");
            }
            return 0;
        }

        private JsonNode signIn(String secret) {
            try {
                return service.anonymous()
                        .post("api/v1/session", new SignInRequest(name, secret, "command line", code));
            } catch (ServiceProblem problem) {
                if (!problem.type().equals("second-factor") || code != null) {
                    throw problem;
                }
                return service.anonymous()
                        .post(
                                "api/v1/session",
                                new SignInRequest(
                                        name,
                                        secret,
                                        "command line",
                                        AccountCommands.secret("PASTURE_CODE", "Code of your authenticator app: ")));
            }
        }

        private String secret() {
            if (password != null) {
                return password;
            }
            return AccountCommands.secret("PASTURE_PASSWORD", "Password: ");
        }
    }

    @Command(
            name = "sign-out",
            mixinStandardHelpOptions = true,
            description = "Forget the sign-in, here and in the service.")
    static final class SignOutCommand implements Callable<Integer> {
        @Mixin
        private Service service;

        @Override
        public Integer call() {
            service.api().delete("api/v1/session");
            SignIn.forget();
            if (!service.printedJson(
                    tools.jackson.databind.json.JsonMapper.shared().valueToTree(Map.of("signedOut", true)))) {
                service.out().println("Signed out.");
            }
            return 0;
        }
    }

    @Command(
            name = "password",
            mixinStandardHelpOptions = true,
            description = {
                "Change your password; everywhere else you are signed out.",
                "Both are asked for, or read from PASTURE_PASSWORD and PASTURE_NEW_PASSWORD."
            })
    static final class PasswordCommand implements Callable<Integer> {
        @Mixin
        private Service service;

        @Override
        public Integer call() {
            service.api()
                    .put(
                            "api/v1/session/password",
                            new PasswordRequest(
                                    secret("PASTURE_PASSWORD", "Current password: "),
                                    secret("PASTURE_NEW_PASSWORD", "New password: ")));
            if (!service.printedJson(
                    tools.jackson.databind.json.JsonMapper.shared().valueToTree(Map.of("changed", true)))) {
                service.out().println("The password is changed; elsewhere you are signed out.");
            }
            return 0;
        }
    }

    /** A secret from the environment, or typed in at a terminal. */
    static String secret(String variable, String question) {
        Optional<String> given = Surroundings.get(variable);
        if (given.isPresent()) {
            return given.get();
        }
        Console console = System.console();
        if (console == null || !console.isTerminal()) {
            throw new IllegalArgumentException("no password: give it by " + variable + ", or use a terminal");
        }
        return new String(console.readPassword(question));
    }
}
