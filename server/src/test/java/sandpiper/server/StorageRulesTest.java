package sandpiper.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** A protocol asks the engine: it holds no storage, and writes nothing by itself. */
class StorageRulesTest {
    private static final JavaClasses CLASSES =
            new ClassFileImporter()
                    .withImportOption(new ImportOption.DoNotIncludeTests())
                    .importPackages("sandpiper.server");

    @Test
    void nothingButTheStartKnowsTheStore() {
        noClasses()
                .that()
                .resideOutsideOfPackage("sandpiper.server.config..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("sandpiper.store..")
                .check(CLASSES);
    }

    @Test
    void nothingHoldsATransactionOrAStorage() {
        noClasses()
                .that()
                .resideOutsideOfPackage("sandpiper.server.config..")
                .should()
                .dependOnClassesThat()
                .haveNameMatching(
                        "sandpiper\\.engine\\.port\\.(Transaction|Storage|[A-Z]\\w+Storage)")
                .check(CLASSES);
    }

    @Test
    void nothingWritesButThroughTheEngine() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "sandpiper.engine.write..",
                        "sandpiper.engine.work..",
                        "sandpiper.engine.input..",
                        "sandpiper.engine.derive..",
                        "sandpiper.engine.react..",
                        "sandpiper.engine.check..")
                .check(CLASSES);
    }
}
