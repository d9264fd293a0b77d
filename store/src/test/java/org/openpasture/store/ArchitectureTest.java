package org.openpasture.store;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.openpasture.store", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule THE_STORE_KNOWS_THE_CORE_ONLY = noClasses()
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.openpasture.service..",
                    "org.openpasture.api..",
                    "org.openpasture.inlets..",
                    "org.springframework..");

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("org.openpasture.store.(*)..").should().beFreeOfCycles();
}
