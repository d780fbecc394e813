package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;

class DefinitionsTest {
    private static final String PACKAGE = "package: marina\nversion: 1\n";
    private static final String PIER =
            "object: Pier\nkey: code\nfields:\n  code: { type: text, required: true }\n";

    private static CheckedDefinitions check(String path, String text) {
        var files =
                new TreeMap<>(
                        Map.of("marina/package.yaml", PACKAGE, "marina/objects/pier.yaml", PIER));
        files.put(path, text);
        return Definitions.check(files);
    }

    private static CheckedDefinitions checkBerth(String fields) {
        return check("marina/objects/berth.yaml", "object: Berth\nfields:\n" + fields.indent(2));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    code: { tpye: text }                          | UNKNOWN_KEY       | 3 | 11 | type
                    code: { type: txt }                           | WRONG_VALUE       | 3 | 17 | text
                    code: { type: text, required: yes please }    | WRONG_VALUE       | 3 | 33 |
                    code: { type: text, scale: 2 }                | NOT_FOR_THIS_TYPE | 3 | 23 |
                    code: { type: text, length: 0 }               | WRONG_VALUE       | 3 | 31 |
                    code: { type: text, pattern: "[" }            | BAD_PATTERN       | 3 | 32 |
                    pier: { type: reference, to: Peer }           | UNKNOWN_OBJECT    | 3 | 32 | Pier
                    pier: { type: reference }                     | MISSING_KEY       | 3 | 3  |
                    kind: { type: choice }                        | MISSING_KEY       | 3 | 3  |
                    kind: { type: choice, choices: Kinds }        | UNKNOWN_CHOICES   | 3 | 34 |
                    kind: { type: choice, choices: [a, a] }       | DUPLICATE_NAME    | 3 | 38 |
                    rate: { type: amount, currency: EUX }         | WRONG_VALUE       | 3 | 35 |
                    depth: { type: decimal, scale: 1, default: 2.55 } | BAD_DEFAULT   | 3 | 46 |
                    since: { type: date, default: "2026-13-01" }  | BAD_DEFAULT       | 3 | 33 |
                    null: { type: text }                          | RESERVED_NAME     | 3 | 3  |
                    version: { type: text }                       | RESERVED_NAME     | 3 | 3  |
                    Code: { type: text }                          | BAD_NAME          | 3 | 3  |
                    code: text                                    | WRONG_VALUE       | 3 | 9  |
                    """)
    void saysWhatIsWrongWithAField(
            String field, DefinitionCode code, int line, int column, String suggestion) {
        var diagnostics = checkBerth(field).diagnostics();

        assertThat(diagnostics)
                .anySatisfy(diagnostic -> {
                    assertThat(diagnostic.code()).isEqualTo(code.id());
                    assertThat(diagnostic.file()).isEqualTo("marina/objects/berth.yaml");
                    assertThat(List.of(diagnostic.line(), diagnostic.column()))
                            .containsExactly(line, column);
                    assertThat(diagnostic.suggestion()).isEqualTo(suggestion);
                });
    }

    @Test
    void findsTheMistakesOfAllFilesAtOnce() {
        var files =
                Map.of(
                        "marina/package.yaml", "package: marina\nversion: 1\nzone: Europe/Berlim\n",
                        "marina/objects/pier.yaml",
                                "object: Pier\nfields:\n  a: { type: tex }\n  A: { type: text }\n",
                        "marina/services/desk.yaml",
                                "service: desk\n"
                                        + "version: 1\n"
                                        + "resources:\n"
                                        + "  piers: { object: Pierr, read: { fields: all } }\n");

        var codes = Definitions.check(files).diagnostics().stream().map(Diagnostic::code).toList();

        assertThat(codes)
                .containsExactlyInAnyOrder(
                        DefinitionCode.WRONG_VALUE.id(),
                        DefinitionCode.WRONG_VALUE.id(),
                        DefinitionCode.BAD_NAME.id(),
                        DefinitionCode.UNKNOWN_OBJECT.id());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
                    object: Berth\\nfields:\\n\\tcode: {}                         | NOT_YAML
                    object: Berth\\nfields: {{                                   | NOT_YAML
                    object: Berth\\nobject: Berth\\nfields: { a: { type: text } } | DUPLICATE_KEY
                    object: Pier\\nfields: { a: { type: text } }                 | DUPLICATE_NAME
                    object: Berth\\nkey: cod\\nfields: { code: { type: text } }   | UNKNOWN_FIELD
                    object: Berth\\nkey: b\\nfields: { b: { type: boolean } }     | BAD_KEY
                    object: Berth\\nfields: { a: &x { type: text }, b: *x }      | NOT_YAML
                    object: Berth\\nnumbering: { field: a, pattern: "{year}" }\\nfields: { a: { type: text } } | BAD_NUMBERING
                    object: Berth                                               | MISSING_KEY
                    """)
    void saysWhatIsWrongWithAFile(String text, DefinitionCode code) {
        var checked =
                check("marina/objects/berth.yaml", text.replace("\\n", "\n").replace("\\t", "\t"));

        assertThat(checked.errors()).first().extracting(Diagnostic::code).isEqualTo(code.id());
        assertThat(checked.release()).isEmpty();
    }

    @Test
    void packagesMayNotDependOnEachOtherInACircle() {
        var checked =
                Definitions.check(
                        Map.of(
                                "a/package.yaml", "package: a\nversion: 1\ndepends: [b]\n",
                                "b/package.yaml", "package: b\nversion: 1\ndepends: [a]\n"));

        assertThat(checked.errors())
                .singleElement()
                .satisfies(diagnostic -> {
                    assertThat(diagnostic.code()).isEqualTo(DefinitionCode.PACKAGE_CYCLE.id());
                    assertThat(diagnostic.message()).contains("a → b → a");
                });
    }

    @Test
    void anObjectOfAnotherPackageMustBeDependedOn() {
        var checked =
                Definitions.check(
                        Map.of(
                                "marina/package.yaml",
                                PACKAGE,
                                "marina/objects/pier.yaml",
                                PIER,
                                "other/package.yaml",
                                "package: other\nversion: 1\n",
                                "other/objects/lamp.yaml",
                                "object: Lamp\nfields:\n  pier: { type: reference, to: Pier }\n"));

        assertThat(checked.errors())
                .singleElement()
                .satisfies(diagnostic -> {
                    assertThat(diagnostic.code()).isEqualTo(DefinitionCode.NOT_VISIBLE.id());
                    assertThat(diagnostic.message()).contains("depends");
                });
    }

    @Test
    void aServiceMustOfferWhatCreatingNeeds() {
        var service =
                "service: desk\n"
                        + "version: 1\n"
                        + "resources:\n"
                        + "  piers:\n"
                        + "    object: Pier\n"
                        + "    create: { fields: [label] }\n";
        var pier = PIER + "  label: { type: text }\n  fixed: { type: text, readOnly: true }\n";
        var files =
                Map.of(
                        "marina/package.yaml",
                        PACKAGE,
                        "marina/objects/pier.yaml",
                        pier,
                        "marina/services/desk.yaml",
                        service);

        assertThat(Definitions.check(files).errors())
                .singleElement()
                .satisfies(diagnostic -> {
                    assertThat(diagnostic.code()).isEqualTo(DefinitionCode.REQUIRED_NOT_GIVEN.id());
                    assertThat(diagnostic.suggestion()).isEqualTo("code");
                });
    }

    @Test
    void labelsPluralsAndLengthsNeedNotBeSaid() {
        var pier =
                checkBerth("maxLength: { type: decimal }").release().orElseThrow().object("Berth");

        assertThat(pier.plural()).isEqualTo("Berths");
        assertThat(pier.fields().get("maxLength").label()).isEqualTo("Max length");
    }

    @Test
    void aCommaThatCutsATextIsExplained() {
        var said =
                checkBerth("depth: { type: decimal, describe: Below the keel, in metres }")
                        .diagnostics();

        assertThat(said)
                .singleElement()
                .extracting(Diagnostic::message)
                .asString()
                .contains("double quotes");
    }

    @Property(tries = 300)
    void readsAnyTextWithoutThrowing(@ForAll String text) {
        assertThat(check("marina/objects/berth.yaml", text)).isNotNull();
    }
}
