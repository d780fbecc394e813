package sandpiper.e2e;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideOutsideOfPackage;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/**
 * The house as a whole: definitions flow up, requests flow down, imports only go down. Each module
 * holds itself to the rest of the rules.
 */
class ArchitectureTest {
    private static final JavaClasses CLASSES =
            new ClassFileImporter()
                    .withImportOption(new ImportOption.DoNotIncludeTests())
                    .importPackages("sandpiper");

    @Test
    void importsOnlyGoDown() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("logic")
                .definedBy("sandpiper.logic..")
                .layer("model")
                .definedBy("sandpiper.model..")
                .layer("engine")
                .definedBy("sandpiper.engine..")
                .layer("store")
                .definedBy("sandpiper.store..")
                .layer("server")
                .definedBy("sandpiper.server..")
                .layer("client")
                .definedBy("sandpiper.client..")
                .layer("demo")
                .definedBy("sandpiper.demo..")
                .layer("cli")
                .definedBy("sandpiper.cli..")
                .whereLayer("logic")
                .mayNotAccessAnyLayer()
                .whereLayer("model")
                .mayOnlyAccessLayers("logic")
                .whereLayer("engine")
                .mayOnlyAccessLayers("model", "logic")
                .whereLayer("store")
                .mayOnlyAccessLayers("engine", "model", "logic")
                .whereLayer("server")
                .mayOnlyAccessLayers("store", "engine", "model", "logic")
                .whereLayer("client")
                .mayNotAccessAnyLayer()
                .whereLayer("demo")
                .mayOnlyAccessLayers("client")
                .whereLayer("cli")
                .mayOnlyAccessLayers("demo", "client", "model", "logic", "server")
                .because(
                        "each floor knows only those below it, so that it can be understood and"
                                + " changed without those above")
                .check(CLASSES);
    }

    @Test
    void onlyTheCommandsThatStartAServiceKnowIt() {
        noClasses()
                .that()
                .resideInAPackage("sandpiper.cli..")
                .and()
                .doNotHaveSimpleName("ServeCommand")
                .and()
                .doNotHaveSimpleName("DemoCommand")
                .and()
                .doNotHaveSimpleName("MarinaExample")
                .and()
                .doNotHaveSimpleName("RestoreCommand")
                .and()
                .doNotHaveSimpleName("MoveCommand")
                .should()
                .dependOnClassesThat(
                        resideInAPackage("sandpiper.server..")
                                .and(resideOutsideOfPackage("sandpiper.server.pack..")))
                .because(
                        "every other command works on a service that runs elsewhere; packages are"
                                + " packed and read alike on both sides")
                .check(CLASSES);
    }
}
