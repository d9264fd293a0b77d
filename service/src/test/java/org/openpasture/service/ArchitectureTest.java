package org.openpasture.service;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

@AnalyzeClasses(packages = "org.openpasture", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule NOBODY_NEEDS_THE_SERVICE = noClasses()
            .that()
            .resideOutsideOfPackage("org.openpasture.service..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("org.openpasture.service..");

    @ArchTest
    static final ArchRule INLETS_KNOW_THE_CORE_ONLY = noClasses()
            .that()
            .resideInAPackage("org.openpasture.inlets..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.openpasture.store..", "org.openpasture.api..");

    @ArchTest
    static final ArchRule THE_API_IS_MADE_OF_RECORDS_AND_THE_CORE = noClasses()
            .that()
            .resideInAPackage("org.openpasture.api..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.openpasture.store..", "org.openpasture.inlets..", "org.springframework..");

    @ArchTest
    static final ArchRule SQL_STAYS_IN_THE_STORE = noClasses()
            .that()
            .resideInAPackage("org.openpasture.service..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.openpasture.store.generated..", "java.sql..");

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("org.openpasture.service.(*)..").should().beFreeOfCycles();

    private static final Set<String> OF_MODULES = Set.of("core", "store", "inlets", "engine", "api", "service");

    /** The page names each package that exists, and none that does not. */
    @ArchTest
    static void theArchitecturePageListsThePackages(JavaClasses classes) throws IOException {
        Set<String> there = classes.stream()
                .map(JavaClass::getPackageName)
                .map(name -> name.replaceFirst("^org\\.openpasture\\.", ""))
                .filter(name -> name.contains(".") && OF_MODULES.contains(name.substring(0, name.indexOf('.'))))
                .filter(name -> !name.startsWith("store.generated"))
                .collect(Collectors.toCollection(TreeSet::new));
        Matcher row = Pattern.compile("(?m)^\\| `([a-z]+\\.[a-z]+)` \\|")
                .matcher(Files.readString(Path.of("../docs/architecture.md")));
        Set<String> listed = row.results().map(found -> found.group(1)).collect(Collectors.toCollection(TreeSet::new));
        assertThat(listed).isEqualTo(there);
    }

    @ArchTest
    static final ArchRule THE_ENGINE_DOES_NOT_KNOW_ITS_DOORS = noClasses()
            .that()
            .resideInAPackage("org.openpasture.engine..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.openpasture.service..", "org.springframework.web..", "jakarta.servlet..");
}
