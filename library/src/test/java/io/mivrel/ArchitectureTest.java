package io.mivrel;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.testng.annotations.Test;

/** The arrows between the packages go one way, and money is exact. */
public class ArchitectureTest {
    private static final String[] CORE = {
        "io.mivrel.model..",
        "io.mivrel.books..",
        "io.mivrel.money..",
        "io.mivrel.kinds..",
        "io.mivrel.text..",
        "io.mivrel.rows..",
        "io.mivrel.shape..",
        "io.mivrel.layout..",
        "io.mivrel.intake..",
        "io.mivrel.history..",
        "io.mivrel.coding..",
        "io.mivrel.corrections..",
        "io.mivrel.drafting..",
        "io.mivrel.checking..",
        "io.mivrel.delivery..",
        "io.mivrel.run..",
        "io.mivrel.posting.."
    };

    private final JavaClasses classes = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("io.mivrel");

    @Test
    public void theCoreKnowsNoFilesNoScreenAndNoLibrary() {
        noClasses()
                .that()
                .resideInAnyPackage(CORE)
                .should()
                .dependOnClassesThat()
                .resideOutsideOfPackages(concat(CORE, "java..", "com.google.re2j..", "org.jspecify.."))
                .check(classes);
    }

    @Test
    public void stagesFollowOneAnother() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("model")
                .definedBy("io.mivrel.model..")
                .layer("intake")
                .definedBy("io.mivrel.intake..")
                .layer("coding")
                .definedBy("io.mivrel.coding..")
                .layer("drafting")
                .definedBy("io.mivrel.drafting..")
                .layer("checking")
                .definedBy("io.mivrel.checking..")
                .layer("delivery")
                .definedBy("io.mivrel.delivery..")
                .layer("run")
                .definedBy("io.mivrel.run..")
                .layer("kinds")
                .definedBy("io.mivrel.kinds..")
                .whereLayer("run")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("delivery")
                .mayOnlyBeAccessedByLayers("run")
                .whereLayer("checking")
                .mayOnlyBeAccessedByLayers("kinds", "delivery", "run")
                .whereLayer("drafting")
                .mayOnlyBeAccessedByLayers("kinds", "run")
                .whereLayer("kinds")
                .mayOnlyBeAccessedByLayers("intake", "run")
                .whereLayer("coding")
                .mayOnlyBeAccessedByLayers("run")
                .check(classes);
    }

    @Test
    public void packagesHaveNoCycles() {
        slices().matching("io.mivrel.(**)").should().beFreeOfCycles().check(classes);
    }

    @Test
    public void modulesUseOnlyTheCore() {
        noClasses()
                .that()
                .resideInAPackage("io.mivrel.files..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "io.mivrel.survey..",
                        "io.mivrel.likeness..",
                        "io.mivrel.ledger..",
                        "io.mivrel.practice..",
                        "io.mivrel.report..")
                .check(classes);
        noClasses()
                .that()
                .resideInAPackage("io.mivrel.report..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("io.mivrel.ledger..", "io.mivrel.practice..", "io.mivrel.files..")
                .check(classes);
        noClasses()
                .that()
                .resideInAnyPackage("io.mivrel.ledger..", "io.mivrel.practice..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("io.mivrel.report..", "io.mivrel.files..", "io.mivrel.survey..")
                .check(classes);
    }

    @Test
    public void theLibraryKnowsNoLedgerOfItsOwn() {
        noClasses()
                .that()
                .resideOutsideOfPackages("io.mivrel.practice..", "io.mivrel.cli..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("io.mivrel.practice..")
                .check(classes);
    }

    @Test
    public void nothingIsReckonedInBinaryFractions() {
        noFields()
                .should()
                .haveRawType(double.class)
                .orShould()
                .haveRawType(float.class)
                .check(classes);
        noMethods()
                .should()
                .haveRawReturnType(double.class)
                .orShould()
                .haveRawReturnType(float.class)
                .check(classes);
    }

    private static String[] concat(String[] first, String... more) {
        return java.util.stream.Stream.of(first, more)
                .flatMap(java.util.Arrays::stream)
                .toArray(String[]::new);
    }
}
