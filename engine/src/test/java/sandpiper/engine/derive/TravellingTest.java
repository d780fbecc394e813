package sandpiper.engine.derive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.trace.TraceStep;

/** What travels along a route when records are made and changed. */
class TravellingTest {
    private static final String PAYER =
            """
            object: Payer
            key: [land, code]
            fields:
              land:    { type: text, required: true }
              code:    { type: text, required: true }
              centre:  { type: text, length: 4, travels: papers }
              mark:    { type: text, length: 4, travels: { route: papers, follows: true } }
              limit:   { type: integer, readOnly: true, default: 7, travels: { route: papers, to: [Bill] } }
              greeting: { type: text, localised: true, travels: { route: papers, to: [Bill] } }
              double:  { type: integer, formula: 2 * limit, travels: { route: papers, to: [Bill] } }
            """;
    private static final String JOB =
            """
            object: Job
            key: number
            fields:
              number: { type: text }
              payer:  { type: reference, to: Payer }
              first:  { type: reference, to: Job }
            parts:
              hours:
                fields:
                  count: { type: integer }
            functions:
              bill:
                describe: Bills it.
                rights: own
                body: |
                  create Bill { number: "B-" + number, job: this, lines: [{ text: "all" }] }
              move:
                describe: Gives it to another payer.
                body: |
                  set payer = "S,c"
              work:
                describe: Notes an hour.
                body: |
                  create hours { count: 1 }
            """;
    private static final String BILL =
            """
            object: Bill
            key: number
            fields:
              number: { type: text }
              job:    { type: reference, to: Job }
            parts:
              lines:
                fields:
                  text: { type: text }
            """;

    private final Yard yard =
            Yard.with(
                    Map.of(
                            "package.yaml",
                            "package: yard\nversion: 1\nlanguages: [en, de]\n",
                            "routes/papers.yaml",
                            """
                            route: papers
                            steps:
                              - { from: Payer, to: Job, through: payer }
                              - { from: Job, to: Job.hours }
                              - { from: Job, to: Bill, through: job }
                              - { from: Bill, to: Bill.lines }
                            """),
                    PAYER,
                    JOB,
                    BILL);

    @BeforeEach
    void somePayers() {
        done(
                yard.create(
                        "Payer",
                        "land",
                        "N",
                        "code",
                        "a,b",
                        "centre",
                        "4711",
                        "mark",
                        "x",
                        "greeting",
                        Map.of("en", "Hello", "de", "Moin")));
        done(yard.create("Payer", "land", "S", "code", "c", "centre", "4800"));
        done(yard.create("Payer", "land", "W", "code", "none"));
    }

    private static void done(Outcome outcome) {
        assertThat(Yard.messages(outcome)).isEmpty();
    }

    private Object value(String object, String key, String field) {
        return yard.value(object, key, field);
    }

    private Object line(String object, String key, int part, int line, String field) {
        var type = yard.object(object).parts().get(part);
        var record =
                yard.records.all(yard.object(object)).stream()
                        .filter(one -> Arrays.asList(one.values()).contains(key))
                        .findFirst()
                        .orElseThrow();
        return record.items().get(part).get(line).values()[type.fields().get(field).index()];
    }

    @Test
    void aValueIsTakenOverWhenTheSourceIsChosenAndStaysWhatItWas() {
        done(yard.create("Job", "number", "1", "payer", "N,a\\,b", "hours", hours(1)));

        assertThat(value("Job", "1", "centre")).isEqualTo("4711");
        assertThat(line("Job", "1", 0, 0, "centre")).isEqualTo("4711");
        assertThat(line("Job", "1", 0, 0, "mark")).isEqualTo("x");

        done(yard.change("Payer", "N,a\\,b", "centre", "9999", "mark", "y"));
        assertThat(value("Job", "1", "centre")).isEqualTo("4711");
        assertThat(value("Job", "1", "mark")).isEqualTo("y");
        assertThat(line("Job", "1", 0, 0, "mark")).isEqualTo("y");

        done(yard.change("Job", "1", "payer", "S,c"));
        assertThat(value("Job", "1", "centre")).isEqualTo("4800");
        assertThat(value("Job", "1", "mark")).isNull();
        assertThat(line("Job", "1", 0, 0, "centre")).isEqualTo("4711");

        done(yard.change("Job", "1", "payer", null));
        assertThat(value("Job", "1", "centre")).isEqualTo("4800");
    }

    @Test
    void whatIsGivenWinsAndWhatIsEmptyTravelsAsThat() {
        done(yard.create("Job", "number", "1", "payer", "N,a\\,b", "centre", "1111"));
        done(yard.create("Job", "number", "2", "payer", "W,none"));
        done(yard.create("Job", "number", "3"));

        assertThat(value("Job", "1", "centre")).isEqualTo("1111");
        assertThat(value("Job", "2", "centre")).isNull();
        assertThat(value("Job", "3", "centre")).isNull();
        done(yard.change("Job", "1", "centre", "2222"));
        assertThat(value("Job", "1", "centre")).isEqualTo("2222");
    }

    @Test
    void aFunctionThatMakesADocumentGivesItWhatTravels() {
        done(yard.create("Job", "number", "1", "payer", "N,a\\,b"));
        done(yard.call("Job", "1", "bill"));
        done(yard.call("Job", "1", "work"));

        assertThat(value("Bill", "B-1", "centre")).isEqualTo("4711");
        assertThat(line("Bill", "B-1", 0, 0, "centre")).isEqualTo("4711");
        assertThat(line("Job", "1", 0, 0, "centre")).isEqualTo("4711");
        assertThat(value("Bill", "B-1", "limit")).isEqualTo(7L);
        assertThat(value("Bill", "B-1", "double")).isEqualTo(14L);
        assertThat(value("Bill", "B-1", "greeting")).isEqualTo(value("Payer", "a,b", "greeting"));
    }

    @Test
    void aStepThatChoosesAnotherSourceTakesItsValueOver() {
        done(yard.create("Job", "number", "1", "payer", "N,a\\,b", "centre", "1111"));
        done(yard.call("Job", "1", "move"));

        assertThat(value("Job", "1", "centre")).isEqualTo("4800");
    }

    @Test
    void whatOnlyTheServiceSetsCannotBeGivenOnTheWayEither() {
        done(yard.create("Job", "number", "1", "payer", "N,a\\,b"));

        assertThat(Yard.messages(yard.create("Bill", "number", "b", "job", "1", "limit", 8)))
                .isNotEmpty();
        assertThat(Yard.messages(yard.create("Job", "number", "2", "mark", "z"))).isNotEmpty();
    }

    @Test
    void theTraceSaysFromWhereAValueCame() {
        var steps =
                yard.steps(
                        yard.creating("Job", "number", "1", "payer", "N,a\\,b"),
                        TraceStep.Kind.SET);

        assertThat(steps)
                .anySatisfy(step -> {
                    assertThat(step.toString())
                            .contains("centre of Payer N,a\\,b, along the route papers")
                            .contains("4711");
                });
    }

    private static List<Map<String, Object>> hours(int count) {
        return List.of(Map.of("count", count));
    }
}
