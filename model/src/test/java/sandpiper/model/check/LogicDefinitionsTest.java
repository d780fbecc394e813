package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.model.Diagnostic;

/** Logic in definition files: what is wrong with it is told at its place, all of it. */
class LogicDefinitionsTest {
    private static final String PACKAGE = "package: marina\nversion: 1.0\n";

    private static List<Diagnostic> diagnostics(String... objects) {
        var files = new HashMap<>(Map.of("marina/package.yaml", PACKAGE));
        for (int i = 0; i < objects.length; i++) {
            files.put("marina/objects/o%d.yaml".formatted(i), objects[i]);
        }
        return Definitions.check(files).diagnostics();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "formula: lenght * 2",
                "formula: \"lenght * 2\"",
                "formula: 'lenght * 2'",
                "formula: |\n      lenght * 2",
                "formula: >-\n      lenght * 2"
            })
    void aMistakeIsMarkedWhereItStandsHoweverTheTextIsWritten(String written) {
        var text =
                "object: Boat\n"
                        + "fields:\n"
                        + "  length: { type: decimal }\n"
                        + "  double:\n"
                        + "    type: decimal\n"
                        + "    "
                        + written
                        + "\n";

        assertThat(diagnostics(text))
                .singleElement()
                .satisfies(one -> {
                    var line = text.lines().toList().get(one.line() - 1);
                    assertThat(line.substring(one.column() - 1, one.endColumn() - 1))
                            .isEqualTo("lenght");
                    assertThat(one.suggestion()).isEqualTo("length");
                });
    }

    @Test
    void formulasThatNeedEachOtherAreNamed() {
        var found =
                diagnostics(
                        """
                        object: A
                        fields:
                          x: { type: integer, formula: y + 1 }
                          y: { type: integer, formula: sum(bs.z) }
                        """,
                        """
                        object: B
                        fields:
                          a: { type: reference, to: A, inverse: bs }
                          z: { type: integer, formula: a.x }
                        """);

        assertThat(found)
                .singleElement()
                .extracting(Diagnostic::message)
                .asString()
                .contains("A.x needs A.y needs B.z needs A.x");
    }

    @Test
    void checksRulesAndLifecycleAreCheckedAllAtOnce() {
        var found =
                diagnostics(
                        """
                        object: Stay
                        fields:
                          nights: { type: integer, requiredWhen: state = "Gone" }
                          berth: { type: text, offer: open }
                        lifecycle:
                          initial: Open
                          states: [Open, Closed, Lost]
                          transitions:
                            close: { from: Open, to: Closd }
                        checks:
                          - { that: nigths > 0, say: "{nigths} is wrong", at: night, before: closee }
                        rules:
                          long: { on: change of nigths, when: nights > "x", then: set nights = "y" }
                          odd: { on: chnge, then: sett nights = 1 }
                        """);

        assertThat(found)
                .extracting(Diagnostic::message)
                .anyMatch(text -> text.contains("state is never \"Gone\""))
                .anyMatch(text -> text.contains("Only a reference offers"))
                .anyMatch(text -> text.contains("There is no state \"Closd\""))
                .anyMatch(text -> text.contains("No transition leads to the state \"Lost\""))
                .anyMatch(text -> text.contains("at: there is no field \"night\""))
                .anyMatch(text -> text.contains("before: Stay has no transition \"closee\""))
                .anyMatch(text -> text.contains("on: Stay has no field \"nigths\""))
                .anyMatch(text -> text.contains("cannot be compared"))
                .anyMatch(text -> text.contains("This must be a number, but is text"))
                .anyMatch(text -> text.contains("\"chnge\" is nothing that happens"))
                .anyMatch(text -> text.contains("\"sett\" is not a step"));
        assertThat(found)
                .filteredOn(one -> "nights".equals(one.suggestion()))
                .extracting(Diagnostic::message)
                .containsExactlyInAnyOrder(
                        "Stay has no field \"nigths\".",
                        "Stay has no field \"nigths\".",
                        "at: there is no field \"night\".",
                        "on: Stay has no field \"nigths\".");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "rules:\n  half: { on: change }",
                "rules:\n  half:",
                "rules:\n  half: { then: [a] }",
                "checks:\n  - that: name = \"a\"",
                "checks:\n  - say: [x]",
                "lifecycle: { initial: A }",
                "lifecycle:\n  states: A",
                "lifecycle:\n  transitions: { a: { from: x } }"
            })
    void whatIsHalfWrittenIsAnErrorAndStopsNothing(String written) {
        assertThat(diagnostics("object: Boat\nfields:\n  name: { type: text }\n" + written + "\n"))
                .anyMatch(one -> one.severity() == Diagnostic.Severity.ERROR);
    }

    @Test
    void aFormulaOfTheClockIsWorkedOutOnReadAndNoRuleCanWaitForIt() {
        var found =
                diagnostics(
                        """
                        object: Job
                        fields:
                          due: { type: date }
                          late: { type: boolean, formula: due < today() }
                          worse: { type: boolean, formula: late }
                        rules:
                          tell: { on: change of worse, then: note "late" }
                        """);

        assertThat(found)
                .singleElement()
                .extracting(Diagnostic::message)
                .asString()
                .contains("worse is worked out each time it is read");
    }

    private static List<String> ofService(String fields, String resources) {
        return Definitions.check(
                        Map.of(
                                "marina/package.yaml",
                                PACKAGE,
                                "marina/objects/job.yaml",
                                "object: Job\nkey: code\nfields:\n" + fields.indent(2),
                                "marina/services/jobs.yaml",
                                "service: jobs\nversion: 1\nresources:\n" + resources.indent(2)))
                .diagnostics()
                .stream()
                .map(Diagnostic::message)
                .toList();
    }

    @Test
    void aServiceIsFilteredByWhatTheDatabaseCanWorkOutAndRefusesTheRest() {
        var said =
                ofService(
                        """
                        code: { type: text, length: 10, required: true }
                        due: { type: date }
                        late: { type: boolean, formula: due < today() }
                        smallDay: { type: text, formula: if due > today() then day of week(due) else null }
                        """,
                        """
                        jobs:
                          object: Job
                          query: { fields: [all], filter: [code, late, smallDay], sort: [late] }
                        """);

        assertThat(said)
                .singleElement()
                .asString()
                .contains("smallDay is worked out each time it is read");
    }

    @Test
    void aResourceHasACheckedConditionAndPresetsThatNobodyElseGives() {
        var said =
                ofService(
                        """
                        code: { type: text, length: 10, required: true }
                        title: { type: text, required: true }
                        hours: { type: integer }
                        twice: { type: integer, formula: hours * 2 }
                        """,
                        """
                        good:
                          object: Job
                          where: hours > 3 and title != "Test"
                          preset: { title: Reported, hours: 4 }
                          create: { fields: [code] }
                        bad:
                          object: Job
                          where: hour > 3
                          preset: { titel: x, hours: four, code: A, twice: 2 }
                          create: { fields: [code, title] }
                        """);

        assertThat(said)
                .satisfiesExactlyInAnyOrder(
                        one -> assertThat(one).contains("no field \"hour\""),
                        one -> assertThat(one).contains("no field \"titel\""),
                        one -> assertThat(one).contains("The preset must be a number"),
                        one -> assertThat(one).contains("code is preset and also among"),
                        one -> assertThat(one).contains("twice is worked out"));
    }

    @Test
    void anExtensionAddsToAnObjectOfAnotherPackage() {
        var files = new HashMap<String, String>();
        files.put("marina/package.yaml", PACKAGE);
        files.put(
                "marina/objects/owner.yaml",
                "object: Owner\nkey: code\nfields:\n  code: { type: text }\n");
        files.put("more/package.yaml", "package: more\nversion: 1.0\ndepends: [marina]\n");
        files.put(
                "more/extensions/owner.yaml",
                "extend: Owner\nfields:\n  centre: { type: text, length: 4 }\nchecks:\n  - { that:"
                        + " centre = null or string length(centre) = 4, say: Four digits. }\n");

        var checked = Definitions.check(files);

        assertThat(checked.diagnostics()).isEmpty();
        var owner = checked.release().orElseThrow().object("Owner");
        assertThat(owner.fields().names()).containsExactly("code", "centre");
        assertThat(owner.checks()).hasSize(1);

        files.put("more/extensions/owner.yaml", "extend: Ownr\n");
        assertThat(Definitions.check(files).diagnostics())
                .singleElement()
                .extracting(Diagnostic::suggestion)
                .isEqualTo("Owner");
    }
}
