package sandpiper.model.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.Diagnostic;
import sandpiper.model.change.ContractBreaks;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;

/** What a service lets callers filter by. */
class FilterListTest {
    private static CheckedDefinitions checked(String lists) {
        return Definitions.check(
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\n",
                        "yard/objects/job.yaml",
                        """
                        object: Job
                        key: code
                        fields:
                          code: { type: text }
                          size: { type: integer }
                          paper: { type: file }
                        parts:
                          steps:
                            fields:
                              minutes: { type: integer }
                              late: { type: boolean, formula: 'today() > @"2026-05-01"' }
                              photo: { type: file }
                          tools:
                            fields:
                              name: { type: text }
                        """,
                        "yard/services/desk.yaml",
                        """
                        service: desk
                        version: 1
                        protocols: [rest, odata]
                        resources:
                          jobs:
                            object: Job
                            query:
                              fields: [code]
                        """
                                + "      "
                                + lists
                                + "\n"));
    }

    private static ResourceType jobs(Release release) {
        return release.service("desk", 1).orElseThrow().resources().getFirst();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    filter: [code, steps(minutes)]     | [code, steps.minutes]
                    filter: [steps, tools]             | [steps.minutes, tools.name]
                    filter: [steps(all)]               | [steps.minutes]
                    filter: [all]                      | [code, size]
                    filter: [all, tools]               | [code, size, tools.name]
                    filter: [all, 'steps( minutes )']  | [code, size, steps.minutes]
                    """)
    void namesFieldsAndThoseOfLineItems(String lists, String names) {
        var checked = checked(lists);
        assertThat(checked.diagnostics()).isEmpty();
        var resource = jobs(checked.release().orElseThrow());
        assertThat(resource.filterNames()).hasToString(names);
        assertThat(resource.isFilterable()).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    filter: [steps(late)]      | steps.late is worked out each time it is read
                    filter: [steps(photo)]     | photo is a file
                    filter: [steps(minuts)]    | steps has no field "minuts".
                    filter: [stepps(minutes)]  | Job has no line items "stepps".
                    sort: [steps(minutes)]     | Line items cannot be used to sort.
                    """)
    void whatCannotBeAskedIsSaid(String lists, String said) {
        assertThat(checked(lists).diagnostics())
                .extracting(Diagnostic::message)
                .singleElement()
                .asString()
                .contains(said);
    }

    @Test
    void takingAFieldOfLineItemsAwayBreaksTheContract() {
        var before = checked("filter: [code, steps(minutes)]").release().orElseThrow();
        var after = checked("filter: [code]").release().orElseThrow();
        assertThat(ContractBreaks.between(before, after).toString())
                .contains("can no longer be filtered by steps.minutes");
        assertThat(jobs(after).filterNames()).containsExactly("code");
    }
}
