package org.openpasture.engine;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.openpasture.engine", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule THE_ENGINE_KNOWS_NO_DOOR = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.openpasture.service..",
                    "org.springframework.web..",
                    "org.springframework.http..",
                    "org.springframework.security..",
                    "jakarta.servlet..");

    @ArchTest
    static final ArchRule SQL_STAYS_IN_THE_STORE = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("org.openpasture.store.generated..", "java.sql..");

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("org.openpasture.engine.(*)..").should().beFreeOfCycles();
}
