package org.openpasture.acceptance.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.codec.binary.Base32;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.people.SecondFactorView;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.core.people.Right;
import org.openpasture.engine.secret.Totp;
import tools.jackson.databind.JsonNode;

/** Codes at sign-in, and another password by mail. */
class SecondFactorTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final GreenMail MAILBOX = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    private static final Pattern CODE = Pattern.compile("enter this code:\\s+(\\S+)");
    private static Plant plant;

    @BeforeAll
    static void register() {
        MAILBOX.start();
        plant = new Plant(SERVICE.owner());
        SERVICE.owner()
                .put(
                        "api/v1/settings/mail",
                        new MailSettings(
                                "127.0.0.1",
                                MAILBOX.getSmtp().getPort(),
                                "pasture@pasture.example",
                                null,
                                null,
                                false));
    }

    @AfterAll
    static void close() {
        MAILBOX.stop();
    }

    private static ApiClient newcomer(String name) {
        plant.invite(SERVICE.anonymous(), name, Right.EDIT, plant.site);
        return SERVICE.signIn(name);
    }

    private static JsonNode signIn(String name, String password, @Nullable String code) {
        Map<String, String> body = new HashMap<>(Map.of("name", name, "password", password, "client", "test"));
        if (code != null) {
            body.put("code", code);
        }
        return SERVICE.anonymous().post("api/v1/session", body);
    }

    private static String code(byte[] secret, int stepsAhead) {
        return Totp.code(secret, Instant.now().getEpochSecond() / Totp.STEP_SECONDS + stepsAhead);
    }

    /** Sets it up and gives its secret; the step before the present one is used up by that. */
    private static byte[] setUp(ApiClient person) {
        SecondFactorView begun = person.post(
                "api/v1/session/second-factor", Map.of("password", RunningService.PASSWORD), SecondFactorView.class);
        assertThat(begun.uri()).contains(String.valueOf(begun.secret()));
        return new Base32().decode(String.valueOf(begun.secret()));
    }

    private static List<String> switchOn(ApiClient person, byte[] secret) {
        JsonNode on = person.put("api/v1/session/second-factor", Map.of("code", code(secret, -1)));
        assertThat(on.path("on").asBoolean()).isTrue();
        return on.path("recoveryCodes").valueStream().map(JsonNode::asString).toList();
    }

    @Test
    void signInsAskForACodeThatWorksOnce() {
        ApiClient ann = newcomer("ann");
        refused(
                400,
                "password is wrong",
                () -> ann.post("api/v1/session/second-factor", Map.of("password", "no such thing")));
        byte[] secret = setUp(ann);
        assertThat(signIn("ann", RunningService.PASSWORD, null).path("token").asString())
                .as("not before it is confirmed")
                .isNotEmpty();
        refused(400, "not valid", () -> ann.put("api/v1/session/second-factor", Map.of("code", "12")));
        switchOn(ann, secret);
        refused(401, "authenticator app", () -> signIn("ann", RunningService.PASSWORD, null));
        refused(401, "Name or password", () -> signIn("ann", "wrong password", code(secret, 0)));
        String code = code(secret, 0);
        assertThat(signIn("ann", RunningService.PASSWORD, code).path("token").asString())
                .isNotEmpty();
        refused(401, "used already", () -> signIn("ann", RunningService.PASSWORD, code));
        refused(
                400,
                "not valid",
                () -> ann.post(
                        "api/v1/session/second-factor/removal",
                        Map.of("password", RunningService.PASSWORD, "code", code)));
        ann.post(
                "api/v1/session/second-factor/removal",
                Map.of("password", RunningService.PASSWORD, "code", code(secret, 1)));
        assertThat(signIn("ann", RunningService.PASSWORD, null).path("token").asString())
                .isNotEmpty();
    }

    @Test
    void aRecoveryCodeWorksOnceAlsoForSixAtOnce() throws Exception {
        ApiClient bea = newcomer("bea");
        List<String> codes = switchOn(bea, setUp(bea));
        assertThat(codes).hasSize(10).doesNotHaveDuplicates();
        String code = codes.getFirst().toLowerCase(Locale.ROOT);
        try (var pool = Executors.newFixedThreadPool(3)) {
            Callable<Integer> attempt = () -> {
                try {
                    signIn("bea", RunningService.PASSWORD, code);
                    return 200;
                } catch (ServiceProblem problem) {
                    return problem.status();
                }
            };
            List<Integer> answers = new ArrayList<>();
            for (Future<Integer> one : pool.invokeAll(List.of(attempt, attempt, attempt))) {
                answers.add(one.get());
            }
            assertThat(answers).containsExactlyInAnyOrder(200, 401, 401);
        }
        assertThat(bea.get("api/v1/session/second-factor", SecondFactorView.class)
                        .recoveryCodesLeft())
                .isEqualTo(9);
    }

    @Test
    void codesCannotBeGuessed() {
        ApiClient cem = newcomer("cem");
        switchOn(cem, setUp(cem));
        int last = 0;
        for (int i = 0; i < 8 && last != 429; i++) {
            try {
                signIn("cem", RunningService.PASSWORD, i % 2 == 0 ? "00000" + i : null);
            } catch (ServiceProblem problem) {
                last = problem.status();
            }
        }
        assertThat(last).isEqualTo(429);
    }

    /** With the password and an open session, too, codes are looked at ten at a time. */
    @Test
    void codesCannotBeGuessedToSwitchItOffEither() {
        ApiClient gil = newcomer("gil");
        switchOn(gil, setUp(gil));
        int last = 0;
        for (int i = 0; i < 14 && last != 429; i++) {
            try {
                gil.post(
                        "api/v1/session/second-factor/removal",
                        Map.of("password", RunningService.PASSWORD, "code", "0000" + (10 + i)));
            } catch (ServiceProblem problem) {
                last = problem.status();
            }
        }
        assertThat(last).isEqualTo(429);
    }

    @Test
    void anOwnerHelpsWhoHasLostEverythingAndNobodyElseDoes() {
        ApiClient dan = newcomer("dan");
        switchOn(dan, setUp(dan));
        String id = dan.get("api/v1/session").path("person").path("id").asString();
        ApiClient eve = newcomer("eve");
        refused(403, "", () -> eve.delete("api/v1/people/" + id + "/second-factor"));
        SERVICE.owner().delete("api/v1/people/" + id + "/second-factor");
        assertThat(signIn("dan", RunningService.PASSWORD, null).path("token").asString())
                .isNotEmpty();
    }

    @Test
    void aForgottenPasswordIsReplacedByTheCodeFromTheMail() {
        InvitationView invitation = SERVICE.owner()
                .post(
                        "api/v1/invitations",
                        new InvitationRequest("fay", "fay@pasture.example", Right.LOOK, plant.site),
                        InvitationView.class);
        String token = String.valueOf(invitation.link()).replaceFirst("^.*#", "");
        SERVICE.anonymous()
                .post(
                        "api/v1/invitations/taken-up",
                        Map.of("token", token, "name", "fay", "password", RunningService.PASSWORD));
        ApiClient before = SERVICE.signIn("fay");
        SERVICE.anonymous().post("api/v1/password-reset", Map.of("name", "nobody such"));
        SERVICE.anonymous().post("api/v1/password-reset", Map.of("name", "FAY"));
        SERVICE.anonymous().post("api/v1/password-reset", Map.of("name", "fay"));
        String code = await().atMost(15, TimeUnit.SECONDS)
                .until(
                        () -> Arrays.stream(MAILBOX.getReceivedMessages())
                                .map(GreenMailUtil::getBody)
                                .map(CODE::matcher)
                                .filter(Matcher::find)
                                .map(found -> found.group(1))
                                .findFirst()
                                .orElse(""),
                        found -> !found.isEmpty());
        refused(400, "contains the name", () -> SERVICE.anonymous()
                .post("api/v1/password-reset/taken-up", Map.of("token", code, "password", "fay is here 99")));
        SERVICE.anonymous()
                .post("api/v1/password-reset/taken-up", Map.of("token", code, "password", "brook meadow lantern"));
        refused(410, "used already", () -> SERVICE.anonymous()
                .post("api/v1/password-reset/taken-up", Map.of("token", code, "password", "brook meadow two")));
        refused(401, "", () -> before.get("api/v1/session"));
        refused(401, "", () -> signIn("fay", RunningService.PASSWORD, null));
        assertThat(signIn("fay", "brook meadow lantern", null).path("token").asString())
                .isNotEmpty();
        assertThat(MAILBOX.getReceivedMessages())
                .as("the invitation, and one code however often somebody asks")
                .hasSize(2)
                .allMatch(mail -> GreenMailUtil.getHeaders(mail).contains("fay@pasture.example"));
    }
}
