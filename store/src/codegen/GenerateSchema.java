import java.nio.file.Files;
import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.jooq.codegen.GenerationTool;
import org.jooq.meta.jaxb.Configuration;
import org.jooq.meta.jaxb.Database;
import org.jooq.meta.jaxb.ForcedType;
import org.jooq.meta.jaxb.Generate;
import org.jooq.meta.jaxb.Generator;
import org.jooq.meta.jaxb.Jdbc;
import org.jooq.meta.jaxb.Target;

/** Migrates an empty file for each database and writes jOOQ's classes from it; run by the build. */
void main(String[] args) throws Exception {
  Path migrations = Path.of(args[0]);
  String target = args[1];
  Files.createDirectories(Path.of(target));
  for (String name : new String[] {"registrydb", "telemetrydb"}) {
    Path file = Files.createTempFile("schema", ".db");
    String url = "jdbc:sqlite:" + file;
    Flyway.configure().dataSource(url, null, null).locations("filesystem:" + migrations.resolve(name)).load().migrate();
    GenerationTool.generate(new Configuration()
        .withJdbc(new Jdbc().withDriver("org.sqlite.JDBC").withUrl(url))
        .withGenerator(new Generator()
            .withDatabase(new Database().withName("org.jooq.meta.sqlite.SQLiteDatabase").withExcludes("flyway_.*|sqlite_.*")
                .withForcedTypes(new ForcedType().withName("BIGINT").withIncludeTypes("INTEGER")))
            .withGenerate(new Generate().withRecords(true).withPojos(false).withDaos(false))
            .withTarget(new Target().withPackageName("org.openpasture.store.generated." + name).withDirectory(target))));
    Files.delete(file);
  }
}
