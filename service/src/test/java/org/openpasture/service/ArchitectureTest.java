package org.openpasture.service;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

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
}
