package org.openpasture.store.sqlite;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class NewerFileTest {
    private static final String MIGRATIONS = "org/openpasture/store/registrydb";

    /** Who goes back to the version before must not damage what the newer one wrote. */
    @Test
    void whatANewerVersionWroteIsRefused(@TempDir Path folder) throws Exception {
        Path file = folder.resolve("registry.db");
        SqliteFile.open(file, MIGRATIONS).close();
        SqliteFile.open(file, MIGRATIONS).close();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = connection.createStatement()) {
            statement.execute(
                    "INSERT INTO flyway_schema_history SELECT installed_rank + 900, '900', 'later', type, 'V900__later.sql', checksum, "
                            + "installed_by, installed_on, execution_time, success FROM flyway_schema_history WHERE version = '1'");
        }
        assertThatThrownBy(() -> SqliteFile.open(file, MIGRATIONS))
                .isInstanceOf(CannotOpen.class)
                .hasMessageContaining("newer version")
                .hasMessageContaining("pasture restore BACKUP");
    }
}
