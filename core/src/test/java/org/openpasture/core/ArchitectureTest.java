package org.openpasture.core;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.equivalentTo;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideOutsideOfPackages;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.net.URI;

@AnalyzeClasses(packages = "org.openpasture.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule THE_CORE_NEEDS_ONLY_THE_JDK_AND_CODECS_OF_JSON_AND_CSV = classes()
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage(
                    "org.openpasture.core..",
                    "java..",
                    "javax.crypto..",
                    "org.jspecify..",
                    "tools.jackson..",
                    "javax.measure..",
                    "systems.uom..",
                    "tech.units..",
                    "org.apache.commons.csv..",
                    "com.fasterxml.jackson.annotation..");

    /** An address is a value; whoever opens it is elsewhere. */
    @ArchTest
    static final ArchRule IT_KNOWS_NO_CLOCK_FILE_OR_SOCKET = classes()
            .should()
            .onlyDependOnClassesThat(
                    resideOutsideOfPackages("java.net..", "java.nio.file..", "java.sql..", "java.util.concurrent..")
                            .or(equivalentTo(URI.class)));

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("org.openpasture.core.(*)..").should().beFreeOfCycles();
}
