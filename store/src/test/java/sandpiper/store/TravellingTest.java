package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;

/** A field that is sent along a route over records that are there already. */
class TravellingTest {
    private static final int MANY = 4_000;
    private static final int BATCH = 500;
    private static final String CENTRE = "centre: { type: text, length: 10%s }";

    @TempDir Path folder;

    private static Map<String, String> files(String field, boolean routed) {
        var files = new TreeMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\n");
        files.put(
                "yard/objects/payer.yaml",
                """
                object: Payer
                key: code
                fields:
                  code: { type: text, required: true }
                  %s
                """
                        .formatted(field));
        files.put(
                "yard/objects/job.yaml",
                """
                object: Job
                key: [pier, number]
                fields:
                  pier: { type: text, required: true }
                  payer: { type: reference, to: Payer, required: true }
                  number: { type: integer, required: true }
                parts:
                  hours:
                    fields: { count: { type: integer } }
                """);
        files.put(
                "yard/objects/bill.yaml",
                """
                object: Bill
                key: number
                fields:
                  number: { type: integer, required: true }
                  job: { type: reference, to: Job }
                  said: { type: text, formula: '"Bill " + string(number)' }
                """);
        if (routed) {
            files.put(
                    "yard/routes/papers.yaml",
                    """
                    route: papers
                    steps:
                      - { from: Payer, to: Job, through: payer }
                      - { from: Job, to: Bill, through: job }
                      - { from: Job, to: Job.hours }
                    """);
        }
        return files;
    }

    private static void fill(Harness yard, int jobs) {
        yard.create("Payer", "code", "P1", "centre", "4711");
        yard.create("Payer", "code", "P2");
        for (var object : List.of("Job", "Bill")) {
            for (int from = 0; from < jobs; from += BATCH) {
                var rows = new ArrayList<Map<String, @Nullable Object>>();
                for (int i = from; i < Math.min(jobs, from + BATCH); i++) {
                    rows.add(
                            object.equals("Job")
                                    ? Harness.values(
                                            "pier",
                                            "N%d".formatted(i % 2 + 1),
                                            "payer",
                                            i % 2 == 0 ? "P1" : "P2",
                                            "number",
                                            (long) i,
                                            "hours",
                                            List.of(Map.of("count", 1L)))
                                    : Harness.values(
                                            "number",
                                            (long) i,
                                            "job",
                                            "N%d,%d".formatted(i % 2 + 1, i)));
                }
                assertThat(yard.createTogether(object, rows))
                        .allMatch(outcome -> outcome instanceof Outcome.Done);
            }
        }
    }

    private static void await(Harness yard) throws InterruptedException {
        var end = Instant.now().plus(Duration.ofSeconds(60));
        while (!yard.engine.releases().recomputing().isEmpty()) {
            assertThat(Instant.now()).isBefore(end);
            Thread.sleep(20);
        }
    }

    private static final Map<String, String> BEFORE = files(CENTRE.formatted(""), false);
    private static final Map<String, String> AFTER =
            files(CENTRE.formatted(", travels: papers"), true);

    private static void isEverywhere(Harness yard, int number) {
        assertThat(yard.text("Job", "N1," + number, "centre")).isEqualTo("4711");
        assertThat(yard.show("Job", "N1," + number).get("hours").toString())
                .contains("centre=4711");
        assertThat(yard.text("Bill", String.valueOf(number), "centre")).isEqualTo("4711");
        assertThat(yard.show("Job", "N2," + (number + 1)).get("centre")).isNull();
        assertThat(yard.show("Bill", String.valueOf(number + 1)).get("centre")).isNull();
    }

    /** How many changes the history of a bill has. */
    private static int changesOf(Harness yard, String bill) {
        return yard.engine
                .records()
                .read((live, session) -> {
                    var type = live.release().object("Bill");
                    var tree = live.release().everythingOf(type);
                    var record =
                            yard.engine
                                    .records()
                                    .find(live, session, type, bill, tree)
                                    .orElseThrow();
                    return yard.engine.records().history(live, session, type, record, 10).size();
                });
    }

    @Test
    void recordsThatAreThereGetTheirValuesWithoutBeingChangedByAnybody() {
        try (var yard = new Harness(folder).release(BEFORE)) {
            fill(yard, 10);
            var before = yard.show("Bill", "4");

            yard.release(AFTER);

            isEverywhere(yard, 4);
            var after = yard.show("Bill", "4");
            assertThat(after.get("version")).isEqualTo(before.get("version"));
            assertThat(after.get("changedAt")).isEqualTo(before.get("changedAt"));
            assertThat(yard.text("Bill", "4", "said")).isEqualTo("Bill 4");
            assertThat(changesOf(yard, "4")).isEqualTo(1);
        }
    }

    @Test
    void manyGetThemBitByBitWhileOthersWriteAndAfterAStop() throws InterruptedException {
        try (var yard = new Harness(folder).release(BEFORE)) {
            fill(yard, MANY);
            yard.release(AFTER);
            assertThat(yard.engine.releases().recomputing())
                    .extracting("formula")
                    .contains("Job.hours.centre", "Bill.centre");
            yard.create("Bill", "number", 99_999L, "job", "N1,0");
            yard.change("Bill", "3000", "centre", "mine");
        }
        try (var yard = new Harness(folder)) {
            await(yard);
            isEverywhere(yard, 0);
            isEverywhere(yard, MANY - 2);
            assertThat(yard.text("Bill", "3000", "centre")).isEqualTo("mine");
        }
    }

    @Test
    void aFieldThatIsRenamedOrTakenOffTheRouteKeepsWhatWasToldFirst() {
        try (var yard = new Harness(folder).release(BEFORE)) {
            fill(yard, 10);
            yard.release(AFTER);
            yard.change("Bill", "4", "centre", "mine");

            yard.release(
                    files("costs: { type: text, length: 10, was: centre, travels: papers }", true));
            assertThat(yard.text("Job", "N1,4", "costs")).isEqualTo("4711");
            assertThat(yard.text("Bill", "4", "costs")).isEqualTo("mine");

            var without =
                    files(
                            "costs: { type: text, length: 10, travels: { route: papers, to: [Bill]"
                                    + " } }",
                            true);
            yard.engine.drafts().push(without, Actor.SYSTEM);
            var preview = yard.engine.releases().preview();
            assertThat(preview.losses().toString()).contains("Job.costs", "5 records");
            assertThat(preview.changes().toString()).contains("field costs is removed");
        }
    }

    @Test
    void nobodyHearsOfValuesThatShouldHaveBeenThere() {
        var heard = "handlers: { heard: { on: Bill.changed, then: 'note \"heard\"' } }\n";
        var before = new TreeMap<>(BEFORE);
        var after = new TreeMap<>(AFTER);
        before.merge("yard/objects/bill.yaml", heard, String::concat);
        after.merge("yard/objects/bill.yaml", heard, String::concat);
        try (var yard = new Harness(folder).release(before)) {
            fill(yard, 10);

            yard.release(after);

            isEverywhere(yard, 4);
            assertThat(yard.engine.deliveries().latest("Bill", 10)).isEmpty();
            yard.change("Bill", "4", "centre", "mine");
            yard.untilArrived();
            assertThat(yard.engine.deliveries().latest("Bill", 10)).hasSize(1);
        }
    }

    private static Request row(LiveRelease live, String object, Object... values) {
        var type = live.release().object(object);
        return new Request(
                new RecordCommand.Create(
                        type, live.release().everythingOf(type), Harness.values(values)),
                Actor.SYSTEM,
                "import",
                true);
    }

    @Test
    void rowsOfOneFileGiveEachOtherValuesInWhateverOrderTheyStand() {
        var rows =
                List.<Function<LiveRelease, Request>>of(
                        live -> row(live, "Bill", "number", "1", "job", "N1,7"),
                        live -> row(live, "Job", "pier", "N1", "number", "7", "payer", "P9"),
                        live -> row(live, "Payer", "code", "P9", "centre", "77"));
        for (var order :
                List.of(rows, rows.reversed(), List.of(rows.get(1), rows.get(0), rows.get(2)))) {
            try (var yard = new Harness(folder.resolve("o" + order.hashCode()))) {
                yard.release(AFTER);

                assertThat(yard.engine.records().write(order, Grouping.TOGETHER))
                        .allMatch(outcome -> outcome instanceof Outcome.Done);

                assertThat(yard.text("Job", "N1,7", "centre")).isEqualTo("77");
                assertThat(yard.text("Bill", "1", "centre")).isEqualTo("77");
            }
        }
    }
}
