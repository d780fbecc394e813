package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.RunStorage;

/** Functions, called as a protocol calls them, on real tables. */
class FunctionsTest {
    private static final String TARIFF =
            """
            object: Tariff
            key: [code]
            fields:
              code:  { type: text, length: 10 }
              price: { type: amount }
            functions:
              setPrice:
                on: object
                external: true
                rights: own
                parameters:
                  code:  { type: text, required: true }
                  price: { type: amount, required: true }
                returns: { type: reference, to: Tariff }
                body: |
                  save Tariff by key { code: code, price: price } as tariff
                  return tariff
              dearest:
                on: object
                external: true
                parameters: { most: integer }
                returns: { type: text, list: true }
                body: |
                  return (find Tariff order by price descending, code take most).code
            """;

    private static final String STAY =
            """
            object: Stay
            key: [number]
            fields:
              number: { type: text, length: 10 }
              nights: { type: integer, default: 1 }
              total:  { type: amount, formula: sum(charges.price) }
              deposit: { type: amount }
            parts:
              charges:
                fields:
                  tariff: { type: reference, to: Tariff, required: true, fill: { price: price } }
                  price:  { type: amount }
            lifecycle:
              initial: Confirmed
              states: [Confirmed, Alongside]
              transitions: { checkIn: { from: Confirmed, to: Alongside } }
            checks:
              - that: nights > 0
                say: A stay has nights.
                at: nights
            functions:
              checkIn:
                external: true
                parameters: { tariff: { type: reference, to: Tariff, required: true }, meter: decimal }
                returns: { type: context, fields: { total: amount, text: text } }
                body: |
                  require meter = null or meter >= 0 else reject "A meter does not run backwards." at meter
                  create charges { tariff: tariff }
                  transition checkIn
                  note "Total is {total}"
                  return { total: total, text: "Welcome, " + number }
              charge:
                external: true
                parameters:
                  lines: { list: true, type: context, fields: { tariff: { type: reference, to: Tariff, required: true } } }
                returns: amount
                body: |
                  for each line in lines
                    create charges { tariff: line.tariff }
                  end
                  return total
              raise:
                external: true
                parameters: { by: amount }
                body: |
                  for each charge in charges
                    update charge.tariff { price: charge.tariff.price + by }
                  end
              forever:
                external: true
                body: call this.forever()
              busy:
                external: true
                returns: integer
                body: |
                  return count(for a in 1..3000, b in 1..3000 return a * b)
              shorten:
                external: true
                body: |
                  create charges { tariff: "POWER" }
                  set nights = 0
            """;

    @TempDir Path folder;
    private Harness marina;

    @BeforeEach
    void open() {
        marina = new Harness(folder).release(TARIFF, STAY);
        marina.create("Tariff", "code", "POWER", "price", new BigDecimal("10.00"));
        marina.create("Tariff", "code", "WATER", "price", new BigDecimal("3.50"));
        marina.create("Stay", "number", "S-1");
    }

    @AfterEach
    void close() {
        marina.close();
    }

    @Test
    void aFunctionSeesTotalsAsTheyAreAfterItsOwnSteps() {
        var outcome =
                marina.call(
                        "Stay",
                        "S-1",
                        "checkIn",
                        "tariff",
                        "POWER",
                        "meter",
                        new BigDecimal("1.5"));

        assertThat(Harness.result(outcome)).hasToString("{total=10.00, text=Welcome, S-1}");
        assertThat(marina.show("Stay", "S-1")).containsEntry("state", "Alongside");
        assertThat(((Outcome.Done) outcome).version()).isEqualTo(2);
    }

    @Test
    void whatRejectsLeavesNothingBehind() {
        var outcome = marina.call("Stay", "S-1", "checkIn", "tariff", "POWER", "meter", -1L);

        assertThat(((Outcome.Refused) outcome).faults())
                .singleElement()
                .satisfies(fault -> {
                    assertThat(fault.message()).isEqualTo("A meter does not run backwards.");
                    assertThat(fault.path()).hasToString("meter");
                });
        assertThat(marina.show("Stay", "S-1"))
                .containsEntry("state", "Confirmed")
                .containsEntry("charges", List.of());
    }

    @Test
    void checksHoldAfterAFunctionAsAfterAnyChange() {
        var outcome = marina.call("Stay", "S-1", "shorten");

        assertThat(Harness.messages(outcome)).containsExactly("A stay has nights.");
        assertThat(marina.show("Stay", "S-1")).containsEntry("charges", List.of());
    }

    @Test
    void everyWrongArgumentIsNamedWithItsPlace() {
        var outcome =
                marina.call(
                        "Stay",
                        "S-1",
                        "charge",
                        "lines",
                        List.of(Map.of("tariff", "NONE"), Map.of("tarif", "POWER"), 7L),
                        "extra",
                        1L);

        assertThat(((Outcome.Refused) outcome).faults())
                .extracting(fault -> fault.path().toString())
                .contains("lines.0.tariff", "lines.1.tarif", "lines.1.tariff", "lines.2", "extra");
    }

    @Test
    void listsOfContextsAreTaken() {
        var outcome =
                marina.call(
                        "Stay",
                        "S-1",
                        "charge",
                        "lines",
                        List.of(Map.of("tariff", "POWER"), Map.of("tariff", "WATER")));

        assertThat(Harness.result(outcome)).hasToString("13.50");
    }

    @Test
    void aFunctionOfTheObjectNeedsNoRecord() {
        var outcome =
                marina.call(
                        "Tariff", null, "setPrice", "code", "ICE", "price", new BigDecimal("2.00"));

        assertThat(Harness.result(outcome)).isEqualTo("ICE");
        assertThat(marina.text("Tariff", "ICE", "price")).isEqualTo("2.00");
        Harness.result(
                marina.call(
                        "Tariff",
                        null,
                        "setPrice",
                        "code",
                        "ICE",
                        "price",
                        new BigDecimal("2.50")));
        assertThat(marina.text("Tariff", "ICE", "price")).isEqualTo("2.50");
    }

    @Test
    void findPutsInOrderAndTakesInTheStore() {
        assertThat(Harness.result(marina.call("Tariff", null, "dearest", "most", 1L)))
                .isEqualTo(List.of("POWER"));
        assertThat(Harness.result(marina.call("Tariff", null, "dearest", "most", 5L)))
                .isEqualTo(List.of("POWER", "WATER"));
    }

    @Test
    void endlessRecursionIsStopped() {
        assertThat(Harness.messages(marina.call("Stay", "S-1", "forever")))
                .singleElement()
                .asString()
                .contains("call each other more than 100 deep");
    }

    @Test
    void tooMuchWorkIsStopped() {
        assertThat(Harness.messages(marina.call("Stay", "S-1", "busy")))
                .singleElement()
                .asString()
                .contains("was stopped");
    }

    @Test
    void otherRecordsAreChangedWithTheCallersRightsOnly() {
        marina.call("Stay", "S-1", "charge", "lines", List.of(Map.of("tariff", "POWER")));
        var clerk =
                new Actor(
                        Actor.Kind.USER,
                        "clerk",
                        Set.of(),
                        List.of(),
                        List.of(
                                new ObjectGrant(
                                        "Stay",
                                        Set.of(ObjectGrant.Action.EDIT),
                                        null,
                                        List.of(),
                                        List.of())));

        var refused = marina.call(clerk, "Stay", "S-1", "raise", "by", new BigDecimal("1.00"));
        var own =
                marina.call(
                        clerk,
                        "Tariff",
                        null,
                        "setPrice",
                        "code",
                        "POWER",
                        "price",
                        new BigDecimal("11.00"));

        assertThat(Harness.messages(refused))
                .containsExactly(
                        "Tariff POWER cannot be changed on behalf of clerk: that is not granted.");
        assertThat(Harness.result(own)).isEqualTo("POWER");
    }

    @Test
    void runsAreLoggedWithWhatCameOfThem() {
        marina.call("Stay", "S-1", "charge", "lines", List.of(Map.of("tariff", "WATER")));
        marina.call("Stay", "S-1", "forever");

        var runs =
                marina.engine.deliveries().runs(new RunStorage.RunFilter("stay.", "s-1", null, 9));

        assertThat(runs)
                .extracting(RunStorage.Run::name, RunStorage.Run::done)
                .contains(tuple("Stay.charge", true));
        assertThat(marina.engine.deliveries().runs(new RunStorage.RunFilter("charge", "", true, 9)))
                .singleElement()
                .satisfies(run -> assertThat(run.said()).isEqualTo("3.50"));
    }

    @Test
    void saveFindsARecordByAKeyOfTwoFields() {
        marina.release(
                """
                object: Fee
                key: [season, length]
                fields:
                  season: { type: text, required: true }
                  length: { type: integer, required: true }
                  price: { type: amount }
                functions:
                  put:
                    on: object
                    external: true
                    parameters: { price: amount }
                    body: 'save Fee by key { season: "a,b", length: 12, price: price }'
                """);
        marina.call("Fee", null, "put", "price", 5L);
        assertThat(Harness.messages(marina.call("Fee", null, "put", "price", 7L))).isEmpty();

        assertThat(marina.text("Fee", "a\\,b,12", "price")).isEqualTo("7.00");
    }

    @Test
    void twoSecondsOfAFunctionAreTwoSecondsWhateverItDoes() {
        marina.release(
                """
                object: Log
                fields:
                  text: { type: text }
                functions:
                  fill:
                    on: object
                    external: true
                    parameters: { count: integer }
                    body: |
                      for each i in 1..count
                        create Log { text: "Line " + string(i) }
                      end
                """);
        long start = System.nanoTime();
        var outcome = marina.call("Log", null, "fill", "count", 60_000L);

        assertThat(Harness.messages(outcome))
                .containsExactly("This takes longer than 2,000 milliseconds and was stopped.");
        // Half a second for what was begun when the time was over; it is not run a second time.
        assertThat(java.time.Duration.ofNanos(System.nanoTime() - start))
                .isLessThan(java.time.Duration.ofMillis(3_500));
        assertThat(((Outcome.Refused) outcome).trace()).isNotNull();
    }

    @Test
    void aLoopRunsOverNumbersAndDaysAndReturnsByACondition() {
        marina.release(
                """
                object: Sum
                functions:
                  told:
                    on: object
                    external: true
                    parameters: { count: integer }
                    returns: text
                    body: |
                      let days = for d in @"2026-05-01"..@"2026-05-02" return string(d)
                      for each i in 1..count
                        note string(i)
                        if i = 3 then
                          return if i > 2 then "three " + days[1] else "less"
                        end
                      end
                      return for i in 1..1 return "none"
                fields: { x: { type: integer } }
                """
                        .replace(
                                "return for i in 1..1 return \"none\"",
                                "return (for i in 1..1 return \"none\")[1]"));
        assertThat(Harness.result(marina.call("Sum", null, "told", "count", 5L)))
                .isEqualTo("three 2026-05-01");
        assertThat(Harness.result(marina.call("Sum", null, "told", "count", 1L))).isEqualTo("none");
    }
}
