package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.change.ReleaseChange;

/** Mistakes whose place or cause is not where reading stops. */
class HintsTest {
    private static CheckedDefinitions check(String object) {
        return Definitions.check(
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\n",
                        "yard/objects/job.yaml",
                        object));
    }

    private static List<String> said(String fields) {
        return check("object: Job\nkey: code\nfields:\n  code: { type: text }\n" + fields)
                .diagnostics()
                .stream()
                .map(one -> "%d:%d %s".formatted(one.line(), one.column(), one.message()))
                .toList();
    }

    @Test
    void whatIsNeverClosedIsReportedWhereItBegins() {
        assertThat(said("  size: { type: text, describe: \"open }\n  next: { type: date }\n"))
                .containsExactly(
                        "5:33 This is not YAML: the quote that begins here is never closed.");
        assertThat(said("  size: { type: text\n"))
                .containsExactly(
                        "5:9 This is not YAML: the bracket that begins here is never closed.");
    }

    @Test
    void aLineThatIsIndentedDifferentlyIsNamed() {
        assertThat(said("   size: { type: text }\n"))
                .singleElement()
                .asString()
                .startsWith("5:4 This is not YAML: this line is indented differently");
    }

    @Test
    void everyCircleOfFormulasIsTold() {
        assertThat(
                        said(
                                """
                                  a: { type: integer, formula: b + 1 }
                                  b: { type: integer, formula: a + 1 }
                                  c: { type: integer, formula: d + a }
                                  d: { type: integer, formula: e + 1 }
                                  e: { type: integer, formula: c + 1 }
                                """))
                .hasSize(2)
                .anySatisfy(one -> assertThat(one).contains("Job.a needs Job.b needs Job.a"))
                .anySatisfy(one ->
                        assertThat(one).contains("Job.c needs Job.d needs Job.e needs Job.c"));
    }

    @Test
    void aDefaultThatMayBeMeantAsAShareIsWarnedOf() {
        assertThat(said("  vat: { type: percent, default: 0.19 }\n"))
                .containsExactly("5:34 The default 0.19 means 0.19 %; write 19 for 19 %.");
        assertThat(said("  vat: { type: percent, default: 19 }\n")).isEmpty();
        assertThat(said("  vat: { type: percent, default: 0 }\n")).isEmpty();
    }

    @Test
    void aReleaseSaysThatFunctionsChangeOnlyWhenTheyDo() {
        var service =
                """
                service: desk
                version: 1
                functions: [Job.quote]
                resources: { jobs: { object: Job, read: { fields: all } } }
                """;
        var object =
                """
                object: Job
                key: code
                fields:
                  code: { type: text }
                functions:
                  quote:
                    on: object
                    external: true
                    parameters: { by: { type: text } }
                    returns: text
                    body: return by
                """;
        assertThat(changes(service, object, object.replace("fields:", "# moved\n\nfields:")))
                .isEmpty();
        assertThat(
                        changes(
                                service,
                                object,
                                object.replace("{ by: {", "{ to: { type: date }, by: {")))
                .containsExactly(
                        "Job: function quote changes.", "Service desk v1: its functions change.");
    }

    private static List<String> changes(String service, String before, String after) {
        return ReleaseChange.between(
                        check(service, before).release().orElseThrow(),
                        check(service, after).release().orElseThrow())
                .sentences();
    }

    private static CheckedDefinitions check(String service, String object) {
        var checked =
                Definitions.check(
                        Map.of(
                                "yard/package.yaml",
                                "package: yard\nversion: 1\n",
                                "yard/objects/job.yaml",
                                object,
                                "yard/services/desk.yaml",
                                service));
        assertThat(checked.errors()).isEmpty();
        return checked;
    }
}
