package sandpiper.model.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.Diagnostic;
import sandpiper.model.check.Definitions;

/** Names that would mean two things in a contract are found when definitions are checked. */
class ContractNamesTest {
    private static final Map<String, String> OBJECTS =
            Map.of(
                    "yard/package.yaml", "package: yard\nversion: 1\n",
                    "yard/objects/shelf.yaml",
                            """
                            object: Shelf
                            key: code
                            fields: { code: { type: text }, name: { type: text } }
                            """,
                    "yard/objects/crate.yaml",
                            """
                            object: Crate
                            key: code
                            fields:
                              code: { type: text }
                              shelf: { type: reference, to: Shelf }
                              shelfName: { type: text }
                            parts:
                              slips: { fields: { text: { type: text } } }
                            functions:
                              get: { on: record, external: true, body: 'set this.shelfName = "x"' }
                              batch: { on: record, external: true, body: 'set this.shelfName = "x"' }
                              lift: { on: record, external: true, body: 'set this.shelfName = "x"' }
                            """);

    private static List<Diagnostic> check(String protocols, String resources) {
        var files = new HashMap<>(OBJECTS);
        files.put(
                "yard/services/desk.yaml",
                "service: desk\nversion: 1\nprotocols: [%s]\nresources:\n%s"
                        .formatted(protocols, resources.indent(2)));
        return Definitions.check(files).errors();
    }

    private static final String CRATES =
            "crates: { object: Crate, read: { fields: [code] }, update: { fields: [shelf] }, calls:"
                    + " [%s] }";

    @ParameterizedTest
    @CsvSource({
        "get, reading of crates and the call get of crates would both be called GetCrate",
        "lift, ",
    })
    void aCallIsNotCalledAsWhatIsDoneAnyway(String call, String said) {
        var errors = check("soap", CRATES.formatted(call));

        if (said == null) {
            assertThat(errors).isEmpty();
        } else {
            assertThat(errors)
                    .singleElement()
                    .satisfies(error -> {
                        assertThat(error.code()).isEqualTo("SP3033");
                        assertThat(error.message()).contains(said);
                        assertThat(error.file()).isEqualTo("yard/services/desk.yaml");
                        assertThat(error.line()).isGreaterThan(4);
                    });
        }
    }

    @Test
    void criteriaOverSoapAreToldApart() {
        var resource =
                "crates: { object: Crate, query: { fields: [code], filter: [shelf.name, shelfName]"
                        + " } }";

        assertThat(check("soap", resource))
                .singleElement()
                .extracting(Diagnostic::message)
                .asString()
                .contains("shelf.name and shelfName would both be called shelfName");
        assertThat(check("rest", resource)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"counts, soap, count", "nexts, soap, next", "problems, rest, Problem"})
    void aResourceIsNotCalledAsWhatIsThereAlready(String name, String protocol, String word) {
        var resource = name + ": { object: Crate, query: { fields: [code] } }";

        assertThat(check(protocol, resource))
                .singleElement()
                .extracting(Diagnostic::message)
                .asString()
                .contains(word);
        assertThat(check("odata", resource)).isEmpty();
    }

    @Test
    void twoResourcesAreNotOneInTheSingular() {
        assertThat(
                        check(
                                "rest",
                                """
                                crates: { object: Crate, read: { fields: [code] } }
                                crate: { object: Crate, read: { fields: [code] } }
                                """))
                .extracting(Diagnostic::message)
                .anySatisfy(said ->
                        assertThat(said).contains("records of crates and records of crate"));
    }

    @Test
    void whatAReferenceLeadsToIsNoOtherResource() {
        var resources =
                """
                crates: { object: Crate, read: { fields: [code, shelf.name, "slips(text)"] } }
                crate-shelfs: { object: Shelf, read: { fields: [code] } }
                """;

        for (var protocol : List.of("odata", "soap")) {
            assertThat(check(protocol, resources))
                    .as(protocol)
                    .singleElement()
                    .extracting(Diagnostic::message)
                    .asString()
                    .contains("CrateShelf");
        }
        assertThat(check("rest", resources)).isEmpty();
    }

    @Test
    void theBatchOfAResourceIsNoCallOfAnother() {
        assertThat(
                        check(
                                "rest",
                                """
                                crates: { object: Crate, create: { fields: [code] }, read: { fields: [code] } }
                                crate-creates: { object: Crate, read: { fields: [code] } }
                                """))
                .extracting(Diagnostic::message)
                .anySatisfy(said -> assertThat(said).contains("CrateCreate"));
    }
}
