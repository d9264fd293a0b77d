package org.openpasture.acceptance.alert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.RuleFileView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** Rules as a file: written, edited, tried, applied. */
class RuleFilesTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static final String FILE = """
            rules:
              - name: Loud from file
                target: {kind: point, pointId: Whey pump/Axial vibration}
                condition: {kind: above, limit: 7.5}
                severity: warning
            """;

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
        plant.invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
    }

    private static RuleFileView apply(ApiClient who, String text, boolean dryRun) {
        return who.post("api/v1/rules/file", Map.of("text", text, "dryRun", dryRun), RuleFileView.class);
    }

    private static String written() throws IOException {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        SERVICE.owner().download("api/v1/rules/file?place=" + plant.site, text);
        return text.toString(StandardCharsets.UTF_8);
    }

    @Test
    void aFileIsTriedAppliedAndWrittenAgain() throws IOException {
        RuleFileView tried = apply(SERVICE.owner(), FILE, true);
        assertThat(tried.applied()).isFalse();
        assertThat(tried.rules()).singleElement().satisfies(rule -> assertThat(rule.fate())
                .isEqualTo("added"));
        assertThat(written()).doesNotContain("Loud from file");

        assertThat(apply(SERVICE.owner(), FILE, false).applied()).isTrue();
        assertThat(written()).contains("Loud from file").contains("pointId: Whey pump/Axial vibration");

        RuleFileView changed = apply(SERVICE.owner(), written().replace("7.5", "8.5"), false);
        assertThat(changed.rules())
                .filteredOn(rule -> rule.name().equals("Loud from file"))
                .singleElement()
                .satisfies(rule -> assertThat(rule.changed()).containsExactly("condition"));
        assertThat(apply(SERVICE.owner(), written(), true).rules())
                .allSatisfy(rule -> assertThat(rule.fate()).isEqualTo("same"));
    }

    @Test
    void whatIsWrongIsSaidAndNothingIsDone() throws IOException {
        String before = written();
        String half = FILE.replace("Loud from file", "First of two") + """
                  - name: Second of two
                    target: {kind: point, pointId: Whey pump/Axial vibration}
                    condition: {kind: above, limit: 5}
                    severity: warning
                    recipients: [nobody at all]
                """;
        refused(400, "Second of two", () -> apply(SERVICE.owner(), half, false));
        refused(400, "YAML in line", () -> apply(SERVICE.owner(), "rules: [", false));
        assertThat(written()).isEqualTo(before);
    }

    @Test
    void whoMayOnlyLookChangesNothingAndLearnsNoNames() {
        ApiClient reader = SERVICE.signIn("reader");
        String own = FILE.replace("Loud from file", "By a reader");
        refused(400, "no point 'Whey pump/Axial vibration' that you may see", () -> apply(reader, own, true));
        plant.release("Axial vibration");
        refused(403, "rules", () -> apply(reader, own, false));
    }
}
