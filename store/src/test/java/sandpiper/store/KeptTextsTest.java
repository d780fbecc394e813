package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.store.Harness.values;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;

/** Texts in a language that goes are kept aside and come back with it. */
class KeptTextsTest {
    private static final String JOB =
            """
            object: Job
            key: code
            fields:
              code: { type: text, required: true }
              title: { type: text, localised: true }
            parts:
              steps:
                fields:
                  what: { type: text, localised: true, length: 30 }
            """;

    @TempDir Path folder;
    private Harness yard;
    private Map<String, Object> painting;
    private Map<String, Object> empty;

    private static Map<String, String> files(String languages, String job) {
        return Map.of(
                "yard/package.yaml",
                "package: yard\nversion: 1\nlanguages: [%s]\n".formatted(languages),
                "yard/objects/job.yaml",
                job);
    }

    @BeforeEach
    void begin() {
        yard = new Harness(folder).release(files("en, de", JOB));
        var made =
                values(
                        "code",
                        "J1",
                        "title",
                        Map.of("en", "Paint", "de", "Anstrich"),
                        "steps",
                        List.of(
                                values("what", Map.of("en", "scrape", "de", "kratzen")),
                                values("what", Map.of("en", "coat"))));
        assertThat(yard.createTogether("Job", List.of(made, values("code", "J2"))))
                .allSatisfy(one -> assertThat(one).isInstanceOf(Outcome.Done.class));
        painting = job("J1");
        empty = job("J2");
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private Map<String, Object> job(String key) {
        return new TreeMap<>(yard.show("Job", key));
    }

    private void takeBack(int number) {
        var came =
                yard.engine
                        .releases()
                        .takeBack(
                                number,
                                new Releases.Order("", new Releases.Accepted(true, true), false),
                                Actor.SYSTEM);
        assertThat(came.orElseThrow()).isInstanceOf(Result.Released.class);
    }

    private List<String> kept() {
        return yard.engine.releases().kept().all().stream()
                .map(one ->
                        "%s, now %s: %d"
                                .formatted(one.place().written(), one.now().written(), one.rows()))
                .toList();
    }

    @Test
    void comeBackWithTheLanguageOfThePackage() {
        yard.engine.drafts().push(files("en", JOB), Actor.SYSTEM);
        assertThat(yard.engine.releases().preview().losses())
                .containsExactly(
                        "Job.title is no longer kept in de. Its text in 1 record is kept aside for"
                                + " 30 days, and comes back when the language does.",
                        "Job.steps.what is no longer kept in de. Its text in 1 record is kept"
                                + " aside for 30 days, and comes back when the language does.");
        assertThat(yard.engine.releases().preview(true).losses())
                .contains("Job.title is no longer kept in de, and its text in 1 record is lost.");
        yard.release(files("en", JOB));
        assertThat(kept())
                .containsExactlyInAnyOrder(
                        "Job.title.de, now Job.title.de: 1",
                        "Job.steps.what.de, now Job.steps.what.de: 1");

        yard.engine.drafts().push(files("en, de", JOB), Actor.SYSTEM);
        assertThat(yard.engine.releases().preview().changes())
                .contains(
                        "Job.title.de: its values in 1 record come back, kept aside since release"
                                + " 1.");
        takeBack(1);

        assertThat(job("J1")).isEqualTo(painting);
        assertThat(job("J2")).isEqualTo(empty);
        assertThat(kept()).isEmpty();
    }

    @Test
    void comeBackWhenATextIsLocalisedAgain() {
        yard.release(files("en, de", JOB.replace("localised: true", "localised: false")));
        assertThat(job("J1")).containsEntry("title", "Paint");
        takeBack(1);
        assertThat(job("J1")).isEqualTo(painting);
        assertThat(kept()).isEmpty();
    }

    @Test
    void theMainLanguageMayGoToo() {
        yard.release(files("de", JOB));
        assertThat(kept())
                .containsExactlyInAnyOrder(
                        "Job.title.en, now Job.title.en: 1",
                        "Job.steps.what.en, now Job.steps.what.en: 2");
        takeBack(1);
        assertThat(job("J1")).isEqualTo(painting);
    }

    @Test
    void followTheFieldToItsNewName() {
        yard.release(files("en", JOB));
        var renamed =
                JOB.replace("title: { type", "heading: { was: title, type")
                        .replace("object: Job", "object: Work\nwas: Job");
        yard.release(files("en", renamed));
        assertThat(kept()).contains("Job.title.de, now Work.heading.de: 1");
        yard.release(files("en, de", renamed));
        assertThat(new TreeMap<>(yard.show("Work", "J1")))
                .containsEntry("heading", painting.get("title"))
                .containsEntry("steps", painting.get("steps"));
    }

    @Test
    void whatDoesNotFitAnyMoreStaysAside() {
        yard.release(files("en", JOB));
        yard.release(files("en, de", JOB.replace("length: 30", "length: 6")));
        assertThat(job("J1")).containsEntry("title", painting.get("title"));
        assertThat(kept()).containsExactly("Job.steps.what.de, now Job.steps.what.de: 1");
    }

    @Test
    void aTextThatGoesAsAWholeComesBackInItsLanguages() {
        yard.release(
                files("en, de", JOB.replace("  title: { type: text, localised: true }\n", "")));
        takeBack(1);
        assertThat(job("J1")).isEqualTo(painting);
    }
}
