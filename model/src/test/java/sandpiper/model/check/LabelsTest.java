package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.Diagnostic;
import sandpiper.model.type.AskedLanguages;

class LabelsTest {
    private static CheckedDefinitions check(String object) {
        return Definitions.check(
                Map.of(
                        "yard/package.yaml",
                        "package: yard\nversion: 1\nlanguages: [de, en, fr]\n",
                        "yard/choices/urgency.yaml",
                        "choices: Urgency\n"
                                + "codes:\n"
                                + "  low: { en: Can wait, de: Hat Zeit }\n"
                                + "  high: Hoch\n",
                        "yard/objects/job.yaml",
                        object));
    }

    private static final String JOB =
            """
            object: Job
            label: { en: Job, de: Auftrag }
            plural: { de: Aufträge, en: Jobs }
            fields:
              code: { type: text, label: { de: Nummer, en: Number } }
              urgency: { type: choice, choices: Urgency }
              kind: { type: choice, choices: { a: { de: Eins, fr: Un }, b: Zwei } }
            parts:
              lines:
                label: { de: Zeilen, en: Lines }
                fields:
                  text: { type: text, label: { de: Wortlaut, en: Words } }
            lifecycle:
              initial: open
              states: { open: { de: Offen, en: Open }, shut: Zu }
              transitions:
                shut: { from: open, to: shut, label: { de: Schließen, en: Shut } }
            """;

    @Test
    void theMainLanguageIsWhatThingsAreCalled() {
        assertThat(check(JOB).errors()).isEmpty();
        var job = check(JOB).release().orElseThrow().object("Job");
        assertThat(List.of(job.label(), job.plural())).containsExactly("Auftrag", "Aufträge");
        assertThat(job.fields().get("code").label()).isEqualTo("Nummer");
        assertThat(job.parts().getFirst().label()).isEqualTo("Zeilen");
    }

    @Test
    void whoeverAsksGetsTheLanguageThatFits() throws Exception {
        var labels = check(JOB).release().orElseThrow().labels();
        AskedLanguages.of("en-GB")
                .in(() -> {
                    assertThat(labels.object("Job", "Auftrag")).isEqualTo("Job");
                    assertThat(labels.plural("Job", "Aufträge")).isEqualTo("Jobs");
                    assertThat(labels.inside("Job", "lines.text", "Wortlaut")).isEqualTo("Words");
                    assertThat(labels.code("Job", "urgency", "Urgency", "low", "Hat Zeit"))
                            .isEqualTo("Can wait");
                    assertThat(labels.code("Job", "urgency", "Urgency", "high", "Hoch"))
                            .isEqualTo("Hoch");
                    assertThat(labels.code("Job", "kind", "kind", "a", "Eins")).isEqualTo("Eins");
                    assertThat(labels.code("Job", "state", "JobState", "open", "Offen"))
                            .isEqualTo("Open");
                    assertThat(labels.transition("Job", "shut", "Schließen")).isEqualTo("Shut");
                    return null;
                });
        assertThat(
                        AskedLanguages.of("fr")
                                .in(() -> labels.code("Job", "kind", "kind", "a", "Eins")))
                .isEqualTo("Un");
        assertThat(labels.object("Job", "Auftrag")).isEqualTo("Auftrag");
    }

    @Test
    void aLanguageThatIsNoneAndAMissingMainOneAreTold() {
        assertThat(
                        check(
                                        "object: Job\n"
                                                + "label: { en: Job, it: Lavoro }\n"
                                                + "fields: { a: { type: text } }\n")
                                .diagnostics()
                                .stream()
                                .map(Diagnostic::message))
                .containsExactlyInAnyOrder(
                        "\"it\" is no language of the package; there are de, en, fr.",
                        "The label in the main language, de, is missing.");
    }
}
