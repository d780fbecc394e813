package sandpiper.model.brought;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.Diagnostic;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.definition.DeliveredRole;

class RoleReaderTest {
    private static final String JOB =
            """
            object: Job
            key: [yard, number]
            fields:
              yard: { type: text, required: true }
              number: { type: integer, required: true }
              pay: { type: decimal, scale: 2 }
              title: { type: text, localised: true }
            parts:
              steps:
                fields:
                  what: { type: text }
            """;
    private static final String SERVICE =
            """
            service: desk
            version: 1
            resources:
              jobs:
                object: Job
                read: { fields: [all] }
            """;
    private static final String ROLE =
            """
            role: yard-hand
            describe: Works on jobs.
            services: [desk/jobs/read where pay < 100, "*/*/*"]
            objects:
              Job: { actions: [view, edit], where: pay < 100, hidden: "title, steps", readOnly: [pay] }
              "*": { actions: view }
            """;

    private static CheckedDefinitions check(String role) {
        var files =
                new HashMap<>(
                        Map.of(
                                "yard/package.yaml",
                                "package: yard\nversion: 1\nlanguages: [en, de]\n",
                                "yard/objects/job.yaml",
                                JOB,
                                "yard/services/desk.yaml",
                                SERVICE));
        files.put("yard/roles/hand.yaml", role);
        return Definitions.check(files);
    }

    @Test
    void aRoleIsReadWithItsGrants() {
        var checked = check(ROLE);

        assertThat(checked.diagnostics()).isEmpty();
        assertThat(checked.release().orElseThrow().brought().roles())
                .containsExactly(
                        new DeliveredRole(
                                "yard-hand",
                                "yard",
                                "Yard hand",
                                "Works on jobs.",
                                List.of("desk/jobs/read where pay < 100", "*/*/*"),
                                List.of(
                                        new DeliveredRole.Grant(
                                                "Job",
                                                List.of("view", "edit"),
                                                "pay < 100",
                                                List.of("title", "steps"),
                                                List.of("pay")),
                                        new DeliveredRole.Grant(
                                                "*",
                                                List.of("view"),
                                                null,
                                                List.of(),
                                                List.of()))));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Job: {|Jab: {|There is no object \"Jab\".|5",
                "title, steps|titel, steps|Job has no field \"titel\".|5",
                "title, steps|number|number is the key and cannot be hidden.|5",
                "where: pay < 100|where: wage < 100|wage|5",
                "[view, edit]|[view, change]|change|5",
                "actions: view|actions: view, where: true|A grant on every object has no"
                        + " condition|6",
                "desk/jobs/read where|desk/jobs where|is no grant|3",
                "desk/jobs/read where|dsk/jobs/read where|There is no service \"dsk\" to grant.|3",
                "desk/jobs/read where|desk/job/read where|There is no resource \"job\" to grant.|3",
                "desk/jobs/read where|desk/jobs/raed where|There is no operation \"raed\" to"
                        + " grant.|3",
                "where pay < 100,|where wage < 100,|does not fit Job|3",
                "\"*/*/*\"|desk/functions/nothing|There is no function \"nothing\" to grant.|3",
                "desk/jobs/read where|desk/events/read where|A condition is about records|3",
                "describe:|duties: [ACCESS]\\ndescribe:|duties|2",
                "role: yard-hand|role: Yard Hand|Yard Hand|1"
            })
    void whatARoleNamesMustBeThere(String good, String bad, String said, int line) {
        var found = check(ROLE.replace(good, bad.replace("\\n", "\n"))).diagnostics();

        assertThat(found)
                .anySatisfy(one -> {
                    assertThat(one.message()).contains(said);
                    assertThat(one.line()).isEqualTo(line);
                    assertThat(one.severity()).isEqualTo(Diagnostic.Severity.ERROR);
                });
    }

    @Test
    void twoOfOneNameAreRefused() {
        var files = new HashMap<String, String>();
        files.put("a/package.yaml", "package: a\nversion: 1\n");
        files.put("b/package.yaml", "package: b\nversion: 1\n");
        files.put("a/roles/hand.yaml", "role: hand\n");
        files.put("b/roles/hand.yaml", "role: hand\n");

        assertThat(Definitions.check(files).errors())
                .extracting(Diagnostic::message)
                .containsExactly("There is a role \"hand\" already.");
    }
}
