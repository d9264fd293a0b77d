package org.openpasture.store.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.access.Scope;
import org.openpasture.core.people.Right;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.setting.SettingStore;

class CredentialStoreTest {
    private static final Instant NOW = Instant.parse("2026-03-01T08:00:00Z");

    @TempDir
    private Path folder;

    private RegistryDatabase database;
    private CredentialStore credentials;

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        credentials = new CredentialStore(database);
    }

    @AfterEach
    void close() {
        database.close();
    }

    private static CredentialStore.AccessToken token(String hash, String person, Instant until) {
        return new CredentialStore.AccessToken(hash, person, "client", "laptop", Scope.ALL, NOW, until, NOW);
    }

    @Test
    void tokensAreForgottenOneByOneAllOfAPersonAndWhenTheyHaveRunOut() {
        credentials.saveToken(token("h1", "ann", NOW.plusSeconds(60)));
        credentials.saveToken(token("h2", "ann", NOW.plusSeconds(60)));
        credentials.saveToken(token("h3", "bob", NOW.minusSeconds(60)));
        assertThat(credentials.token("h1")).hasValue(token("h1", "ann", NOW.plusSeconds(60)));
        credentials.forgetToken("h1");
        assertThat(credentials.token("h1")).isEmpty();
        credentials.forgetTokensOf("ann");
        assertThat(credentials.token("h2")).isEmpty();
        credentials.saveToken(token("h4", "bob", NOW.plusSeconds(60)));
        assertThat(credentials.token("h3")).as("run out, swept with the next").isEmpty();
    }

    @Test
    void aPasswordIsReplaced() {
        assertThat(credentials.passwordHash("ann")).isEmpty();
        credentials.savePasswordHash("ann", "first");
        credentials.savePasswordHash("ann", "second");
        assertThat(credentials.passwordHash("ann")).hasValue("second");
    }

    @Test
    void anInvitationIsFoundByItsTokenAndWithdrawnByItsId() {
        CredentialStore.Invitation invitation = new CredentialStore.Invitation(
                "i", "hash", "eve", "eve@x.example", Right.OPERATE, "site", "owner", NOW);
        credentials.saveInvitation(invitation);
        assertThat(credentials.takeInvitation("hash", NOW)).as("run out").isEmpty();
        assertThat(credentials.takeInvitation("hash", NOW.minusMillis(1))).hasValue(invitation);
        assertThat(credentials.takeInvitation("hash", NOW.minusMillis(1)))
                .as("taken once")
                .isEmpty();
        credentials.saveInvitation(invitation);
        assertThat(credentials.invitations()).containsExactly(invitation);
        credentials.forgetInvitation("i");
        assertThat(credentials.takeInvitation("hash", NOW.minusMillis(1))).isEmpty();
    }

    @Test
    void secretsAreSealedInTheFileAndReadBackWithTheKeyFile() throws Exception {
        SettingStore settings = new SettingStore(database);
        settings.saveSecret("mail", "password", "correct horse".getBytes(java.nio.charset.StandardCharsets.UTF_8));
        settings.save("mail", java.util.Map.of("host", "mail.example"));
        assertThat(settings.secret("mail", "password"))
                .hasValueSatisfying(secret -> assertThat(new String(secret, java.nio.charset.StandardCharsets.UTF_8))
                        .isEqualTo("correct horse"));
        assertThat(settings.find("mail", java.util.Map.class))
                .hasValueSatisfying(body -> assertThat(body).containsEntry("host", "mail.example"));
        assertThat(Files.getPosixFilePermissions(folder.resolve("secret.key")))
                .isEqualTo(PosixFilePermissions.fromString("rw-------"));
        database.close();
        for (String file : new String[] {"registry.db", "registry.db-wal"}) {
            if (Files.exists(folder.resolve(file))) {
                assertThat(new String(
                                Files.readAllBytes(folder.resolve(file)), java.nio.charset.StandardCharsets.ISO_8859_1))
                        .doesNotContain("correct horse");
            }
        }
        open();
        settings = new SettingStore(database);
        settings.forgetSecrets("mail");
        assertThat(settings.secret("mail", "password")).isEmpty();
    }
}
