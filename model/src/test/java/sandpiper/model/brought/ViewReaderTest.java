package sandpiper.model.brought;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;
import sandpiper.model.definition.DeliveredView;

class ViewReaderTest {
    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code: { type: text, required: true }
              due: { type: date }
              pay: { type: decimal, scale: 2 }
              before: { type: reference, to: Job }
            """;
    private static final String VIEW =
            """
            view: Due, dearest first
            object: Job
            filter: due >= today() and before.pay > 0
            sort: -pay
            columns: code, before.due, pay
            chart: { kind: line, by: due, step: month, sum: pay }
            """;

    private static CheckedDefinitions check(String view) {
        return Definitions.check(
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\n",
                        "yard/objects/job.yaml",
                        JOB,
                        "yard/views/due.yaml",
                        view));
    }

    @Test
    void aViewIsReadWhole() {
        var checked = check(VIEW);

        assertThat(checked.diagnostics()).isEmpty();
        assertThat(checked.release().orElseThrow().brought().views())
                .containsExactly(
                        new DeliveredView(
                                "Due, dearest first",
                                "yard",
                                "Job",
                                "due >= today() and before.pay > 0",
                                "-pay",
                                List.of("code", "before.due", "pay"),
                                new DeliveredView.Chart("line", "due", "month", "pay")));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "object: Job|object: Jib|There is no object \"Jib\".|2",
                "due >= today()|dew >= today()|dew|3",
                "-pay|-pey|Job has no field \"pey\".|4",
                "before.due|code.due|Job has no field \"code.due\".|5",
                "by: due|by: dew|Job has no field \"dew\".|6",
                "sum: pay|sum: pey|Job has no field \"pey\".|6",
                "kind: line|kind: cake|cake|6",
                "sort:|sorted:|sorted|4"
            })
    void whatAViewNamesMustBeThere(String good, String bad, String said, int line) {
        assertThat(check(VIEW.replace(good, bad)).errors())
                .anySatisfy(one -> {
                    assertThat(one.message()).contains(said);
                    assertThat(one.line()).isEqualTo(line);
                });
    }

    @Test
    void twoOfOneNameForOneListAreRefused() {
        var files =
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\n",
                        "yard/objects/job.yaml",
                        JOB,
                        "yard/views/a.yaml",
                        "view: All\nobject: Job\n",
                        "yard/views/b.yaml",
                        "view: All\nobject: Job\n");

        assertThat(Definitions.check(files).errors())
                .singleElement()
                .satisfies(one ->
                        assertThat(one.message())
                                .isEqualTo("There is a view \"All\" of Job already."));
    }
}
