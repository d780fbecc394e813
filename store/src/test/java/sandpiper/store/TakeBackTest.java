package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.store.Harness.values;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.delivery.Backoff;

/** What is removed by a release, and comes back. */
class TakeBackTest {
    private static final String YARD =
            """
            object: Yard
            key: [pier, slot]
            removal: delete
            fields:
              pier: { type: text, required: true }
              slot: { type: integer, required: true }
              beside: { type: reference, to: Yard }
            """;
    private static final String JOB =
            """
            object: Job
            key: code
            removal: delete
            fields:
              code: { type: text, required: true }
              yard: { type: reference, to: Yard }
              title: { type: text, localised: true }
              hours: { type: decimal, scale: 1 }
              double: { type: decimal, scale: 1, formula: hours * 2 }
              hints: { type: decimal, scale: 1, formula: "sum(steps.minutes)" }
            parts:
              steps:
                fields:
                  what: { type: text }
                  minutes: { type: integer }
                  at: { type: reference, to: Yard }
            """;

    @TempDir Path folder;

    private final Instant[] now = {Instant.parse("2026-05-01T10:00:00Z")};
    private Harness yard;

    private final class MovingClock extends Clock {
        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return Clock.fixed(now[0], zone);
        }

        @Override
        public Instant instant() {
            return now[0];
        }
    }

    private static Map<String, String> files(String... texts) {
        var files = new TreeMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\nlanguages: [en, de]\n");
        for (var text : texts) {
            var name = text.lines().findFirst().orElseThrow().substring("object: ".length());
            files.put(
                    "yard/objects/%s.yaml".formatted(name.toLowerCase(java.util.Locale.ROOT)),
                    text);
        }
        return files;
    }

    @BeforeEach
    void begin() {
        yard =
                new Harness(folder, new MovingClock(), Backoff.OF_HANDLERS)
                        .release(files(YARD, JOB));
        done(yard.create("Yard", "pier", "N", "slot", 1L));
        done(yard.create("Yard", "pier", "N", "slot", 2L, "beside", "N,1"));
        done(
                yard.create(
                        "Job",
                        values(
                                        "code",
                                        "J1",
                                        "yard",
                                        "N,2",
                                        "title",
                                        Map.of("en", "Paint", "de", "Anstrich"),
                                        "hours",
                                        new BigDecimal("1.5"),
                                        "steps",
                                        List.of(
                                                values(
                                                        "what", "scrape", "minutes", 30L, "at",
                                                        "N,1"),
                                                values("what", "coat", "minutes", 60L)))
                                .entrySet()
                                .stream()
                                .flatMap(one ->
                                        java.util.stream.Stream.of(one.getKey(), one.getValue()))
                                .toArray()));
        done(yard.create("Job", "code", "J2"));
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private static void done(Outcome outcome) {
        assertThat(outcome).isInstanceOf(Outcome.Done.class);
    }

    private Result takeBack(int number, boolean losses) {
        return yard.engine
                .releases()
                .takeBack(
                        number,
                        new Releases.Order("", new Releases.Accepted(losses, true), false),
                        Actor.SYSTEM)
                .orElseThrow();
    }

    private ReleasePreview preview(int number) {
        return yard.engine.releases().previewOfTakingBack(number, false).orElseThrow();
    }

    private List<String> kept() {
        return yard.engine.releases().kept().all().stream()
                .map(one -> "%s %d".formatted(one.place().written(), one.rows()))
                .toList();
    }

    private Map<String, Object> job(String key) {
        return new TreeMap<>(yard.show("Job", key));
    }

    @Test
    void fieldsOfEveryKindComeBackWithTheirValues() {
        var before = job("J1");
        var other = job("J2");
        yard.release(
                files(
                        YARD,
                        """
                        object: Job
                        key: code
                        removal: delete
                        fields:
                          code: { type: text, required: true }
                        parts:
                          steps:
                            fields:
                              what: { type: text }
                        """));
        assertThat(kept())
                .containsExactlyInAnyOrder(
                        "Job.yard 1",
                        "Job.title 1",
                        "Job.hours 1",
                        "Job.steps.minutes 2",
                        "Job.steps.at 1");

        assertThat(preview(1).losses()).isEmpty();
        assertThat(preview(1).changes())
                .contains(
                        "Job.hours: its values in 1 record come back, kept aside since release 1.",
                        "Job.steps.minutes: its values in 2 line items come back, kept aside since"
                                + " release 1.");
        assertThat(takeBack(1, false)).isInstanceOf(Result.Released.class);

        assertThat(job("J1")).isEqualTo(before);
        assertThat(job("J2")).isEqualTo(other);
        assertThat(kept()).isEmpty();
        assertThat(yard.engine.releases().all().getFirst().note()).isEqualTo("Back to release 1");
        assertThat(yard.engine.drafts().files()).isEqualTo(files(YARD, JOB));
    }

    @Test
    void objectsComeBackWithTheirRecordsAndWhatRefersToThem() {
        var before = job("J1");
        var place = yard.show("Yard", "N,2");
        yard.release(files("object: Buoy\nfields: { name: { type: text } }\n"));
        assertThat(kept()).containsExactlyInAnyOrder("Yard 2", "Job 2", "Job.steps 2");
        assertThat(yard.engine.live().release().find("Job")).isEmpty();

        assertThat(takeBack(1, true)).isInstanceOf(Result.Released.class);

        assertThat(job("J1")).isEqualTo(before);
        assertThat(yard.show("Yard", "N,2")).isEqualTo(place);
        assertThat(kept()).isEmpty();
        done(yard.create("Job", "code", "J3", "yard", "N,1"));
        done(yard.change("Job", "J1", "hours", new BigDecimal("4")));
        assertThat(job("J1")).containsEntry("double", new BigDecimal("8.0"));
    }

    @Test
    void totalsOfWhatComesBackCountWhatHappenedMeanwhile() {
        var counting = YARD + "  jobs: { type: integer, formula: count(works) }\n";
        yard.release(
                files(
                        counting,
                        JOB.replace(
                                "yard: { type: reference, to: Yard }",
                                "yard: { type: reference, to: Yard, inverse: works }")));
        assertThat(yard.show("Yard", "N,2")).containsEntry("jobs", 1L);
        yard.release(
                files(
                        JOB.replace("  yard: { type: reference, to: Yard }\n", "")
                                .replace("      at: { type: reference, to: Yard }\n", "")));
        done(yard.remove("Job", "J1"));

        takeBack(2, true);

        assertThat(yard.show("Yard", "N,2")).containsEntry("jobs", 0L);
    }

    @Test
    void anotherRecordIsNotTakenForOneThatIsGone() {
        yard.release(files(YARD, JOB.replace("  yard: { type: reference, to: Yard }\n", "")));
        done(yard.remove("Job", "J2"));
        done(yard.create("Job", "code", "J9"));
        done(yard.remove("Yard", "N,2"));
        done(yard.create("Yard", "pier", "S", "slot", 5L));

        takeBack(1, false);

        assertThat(job("J1")).containsEntry("yard", null);
        assertThat(job("J9")).containsEntry("yard", null);
    }

    @Test
    void whatWasRenamedGetsItsNameBack() {
        var before = job("J1");
        yard.release(
                files(
                        YARD,
                        JOB.replace("object: Job", "object: Task\nwas: Job")
                                .replace("hours: {", "effort: { was: hours,")
                                .replace("hours * 2", "effort * 2")
                                .replace("steps:\n", "tasks:\n    was: steps\n")
                                .replace("steps.", "tasks.")
                                .replace("minutes: {", "time: { was: minutes,")
                                .replace("tasks.minutes", "tasks.time")));
        yard.release(
                files(
                        YARD,
                        JOB.replace("object: Job", "object: Work\nwas: Task")
                                .replace("hours: {", "labour: { was: effort,")
                                .replace("hours * 2", "labour * 2")
                                .replace("steps:\n", "tasks:\n")
                                .replace("steps.", "tasks.")
                                .replace("minutes: {", "time: {")
                                .replace("tasks.minutes", "tasks.time")));
        done(yard.change("Work", "J2", "labour", new BigDecimal("3")));

        assertThat(preview(1).losses()).isEmpty();
        assertThat(takeBack(1, false)).isInstanceOf(Result.Released.class);

        assertThat(job("J1")).isEqualTo(before);
        assertThat(job("J2")).containsEntry("double", new BigDecimal("6.0"));
    }

    @Test
    void whatIsKeptFollowsItsObjectToANewName() {
        var without =
                JOB.replace("  hours: { type: decimal, scale: 1 }\n", "").replace("hours * 2", "2");
        yard.release(files(YARD, without));
        yard.release(files(YARD, without.replace("object: Job", "object: Task\nwas: Job")));

        takeBack(1, true);

        assertThat(job("J1")).containsEntry("hours", new BigDecimal("1.5"));
        assertThat(job("J1")).containsEntry("double", new BigDecimal("3.0"));
    }

    @Test
    void aRequiredFieldComesBackOnlyWhenAllRecordsHaveIt() {
        var required =
                JOB.replace("hours: { type: decimal", "hours: { required: true, type: decimal");
        done(yard.change("Job", "J2", "hours", new BigDecimal("2")));
        yard.release(files(YARD, required));
        yard.release(
                files(
                        YARD,
                        JOB.replace("  hours: { type: decimal, scale: 1 }\n", "")
                                .replace("hours * 2", "2")));
        assertThat(preview(2).obstacles()).isEmpty();
        done(yard.create("Job", "code", "J3"));

        assertThat(preview(2).obstacles())
                .containsExactly(
                        "Job.hours is required, but what was made since it went, 1 record, has no"
                                + " value for it: give it a default.");
        assertThat(takeBack(2, true)).isInstanceOf(Result.Refused.class);
        done(yard.remove("Job", "J3"));
        assertThat(takeBack(2, true)).isInstanceOf(Result.Released.class);
        assertThat(job("J2")).containsEntry("hours", new BigDecimal("2.0"));
    }

    @Test
    void valuesThatDoNotFitStayAside() {
        yard.release(
                files(
                        YARD,
                        JOB.replace("  hours: { type: decimal, scale: 1 }\n", "")
                                .replace("hours * 2", "2")));
        var whole = JOB.replace("hours: { type: decimal, scale: 1 }", "hours: { type: integer }");
        yard.engine.drafts().push(files(YARD, whole), Actor.SYSTEM);
        assertThat(yard.engine.releases().preview().changes())
                .contains("Job.hours: its values stay aside, because they do not fit integer.");
        yard.release(files(YARD, whole));
        assertThat(job("J1")).containsEntry("hours", null);
        assertThat(kept()).containsExactly("Job.hours 1");

        takeBack(1, true);
        assertThat(job("J1")).containsEntry("hours", null);
    }

    @Test
    void aFieldThatIsAddedAgainByHandHasItsValuesInItsNewForm() {
        yard.release(
                files(
                        YARD,
                        JOB.replace("  hours: { type: decimal, scale: 1 }\n", "")
                                .replace("hours * 2", "2")));
        yard.release(
                files(
                        YARD,
                        JOB.replace("scale: 1 }\n  double", "scale: 3, default: 7 }\n  double")));

        assertThat(job("J1")).containsEntry("hours", new BigDecimal("1.500"));
        assertThat(job("J2")).containsEntry("hours", new BigDecimal("7.000"));
        assertThat(job("J2")).containsEntry("double", new BigDecimal("14.0"));
    }

    @Test
    void anObjectThatNeedsMoreThanItHadStaysAside() {
        yard.release(files(YARD));
        var needs = JOB.replace("hours: { type", "hours: { required: true, type");
        yard.engine.drafts().push(files(YARD, needs), Actor.SYSTEM);

        assertThat(yard.engine.releases().preview().changes())
                .contains(
                        "Job: 2 records stay aside, because hours is required and not all of them"
                                + " have a value.");
    }

    @Test
    void valuesAreForgottenWhenThatIsWantedAndAfterThirtyDays() {
        yard.engine
                .drafts()
                .push(
                        files(YARD, JOB.replace("  title: { type: text, localised: true }\n", "")),
                        Actor.SYSTEM);
        assertThat(yard.engine.releases().preview(true).losses())
                .containsExactly("Job.title is removed, and its value in 1 record is lost.");
        yard.engine
                .releases()
                .release(
                        new Releases.Order("", new Releases.Accepted(true, true), true),
                        Actor.SYSTEM);
        assertThat(kept()).isEmpty();

        yard.release(files(YARD));
        now[0] = now[0].plus(Duration.ofDays(30));
        yard.engine.forgetOld();
        assertThat(kept()).containsExactlyInAnyOrder("Job 2", "Job.steps 2");
        var steps = yard.engine.releases().kept().all().getFirst();
        assertThat(yard.engine.releases().kept().forget(steps.number())).isTrue();
        assertThat(yard.engine.releases().kept().forget(steps.number())).isFalse();
        now[0] = now[0].plusSeconds(1);
        yard.engine.forgetOld();
        assertThat(kept()).isEmpty();
    }

    @Test
    void theDraftFollowsButForWhatWasChangedInIt() {
        yard.release(
                files(
                        YARD,
                        JOB.replace(
                                "fields:\n  code", "describe: What is done.\nfields:\n  code")));
        yard.engine.drafts().put("yard/objects/yard.yaml", YARD + "# mine\n", null, Actor.SYSTEM);
        yard.engine.drafts().put("yard/objects/buoy.yaml", "object: Buoy\n", null, Actor.SYSTEM);

        takeBack(1, true);

        assertThat(yard.engine.drafts().files())
                .containsEntry("yard/objects/job.yaml", JOB)
                .containsEntry("yard/objects/yard.yaml", YARD + "# mine\n")
                .containsEntry("yard/objects/buoy.yaml", "object: Buoy\n");
    }

    @Test
    void thereIsNothingToGoBackToBeforeTheFirstOrBehindTheLast() {
        var releases = yard.engine.releases();
        var order = new Releases.Order("", Releases.Accepted.NOTHING, false);
        for (var number : List.of(-1, 0, 2)) {
            assertThat(releases.previewOfTakingBack(number, false)).isEmpty();
            assertThat(releases.takeBack(number, order, Actor.SYSTEM)).isEmpty();
        }
        assertThat(((Result.Refused) takeBack(1, true)).message())
                .isEqualTo("Release 1 is the same as the live release.");
    }

    @Test
    void whatBecameATextGoesBackWhereItIsStillANumber() {
        var before = job("J1");
        var asText =
                JOB.replace("hours: { type: decimal, scale: 1 }", "hours: { type: text }")
                        .replace("formula: hours * 2", "formula: number(hours) * 2");
        yard.release(files(YARD, asText));
        assertThat(job("J1")).containsEntry("hours", "1.5");
        done(yard.change("Job", "J2", "hours", "two"));
        assertThat(preview(1).obstacles())
                .containsExactly(
                        "Job.hours becomes decimal with 1 place, but 1 record has a text that"
                                + " cannot be read as that: change them first.");

        done(yard.change("Job", "J2", "hours", "2"));
        takeBack(1, false);

        assertThat(job("J1")).isEqualTo(before);
        assertThat(job("J2")).containsEntry("hours", new BigDecimal("2.0"));
    }

    @Test
    void goingThereAndBackManyTimesLosesNothing() {
        var before = new ArrayList<>(List.of(job("J1"), job("J2")));
        yard.release(files(YARD, JOB.replace("  yard: { type: reference, to: Yard }\n", "")));
        yard.release(files(YARD));
        yard.release(files("object: Buoy\nfields: { name: { type: text } }\n"));
        for (var number : List.of(2, 3, 1, 4, 1)) {
            assertThat(takeBack(number, true)).isInstanceOf(Result.Released.class);
        }

        assertThat(List.of(job("J1"), job("J2"))).isEqualTo(before);
    }
}
