package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.delivery.Backoff;

/** Values that come from a service outside, on shapes of their own. */
class ConnectionsTest {
    private static final String SIGNAL =
            """
            object: Signal
            key: [mast, day]
            fields:
              mast: { type: text, required: true }
              day: { type: date, required: true }
              flag: { type: choice, from: almanac.flags }
              spare: { type: choice, from: almanac.anyFlag }
              after: { type: reference, to: Signal }
              water: { type: decimal, scale: 3 }
              remark: { type: text }
            parts:
              hoists:
                fields:
                  flag: { type: choice, from: almanac.flags, required: true }
            rules:
              keptDepth:
                on: change of remark
                when: remark = "deep"
                then: |
                  let metres = call almanac.depthKept(mast)
                  set water = metres
            functions:
              sound:
                returns: decimal
                external: true
                parameters: { place: { type: text, required: true } }
                body: |
                  let metres = call almanac.depth(place: place, on: day)
                  set water = metres
                  return metres
              tell:
                external: true
                returns: text
                body: |
                  call almanac.note(mast, 2)
                  call almanac.note(mast, 2)
                  let said = call almanac.note(mast, 3)
                  return said
            handlers:
              soundLater:
                on: Signal.changed
                when: remark = "later"
                then: |
                  let metres = call almanac.depth(mast)
                  set water = metres
                  set remark = "sounded"
            """;

    @TempDir Path folder;
    private final Almanac almanac = new Almanac();
    private Harness port;

    private Harness open() {
        return open(Harness.CLOCK);
    }

    private Harness open(Clock clock) {
        port = new Harness(folder, clock, new Backoff(List.of(Duration.ofMillis(1))), almanac);
        return port.engine.live().number() > 0 ? port : port.release(Almanac.files(SIGNAL));
    }

    @AfterEach
    void close() {
        almanac.held.countDown();
        port.close();
    }

    private static void await(BooleanSupplier until) {
        long end = System.nanoTime() + Duration.ofSeconds(20).toNanos();
        while (!until.getAsBoolean()) {
            assertThat(System.nanoTime()).as("waited long enough").isLessThan(end);
            LockSupport.parkNanos(Duration.ofMillis(5).toNanos());
        }
    }

    private Outcome make(Object... more) {
        var all = new Object[more.length + 4];
        System.arraycopy(new Object[] {"mast", "North, 1", "day", "2026-05-01"}, 0, all, 0, 4);
        System.arraycopy(more, 0, all, 4, more.length);
        return port.create("Signal", all);
    }

    private static final String KEY = "North\\, 1,2026-05-01";

    @Test
    void aCodeIsSeenOutsideAndOneThatIsNotThereIsRefusedAtItsPlace() {
        open();

        assertThat(Harness.messages(make("flag", "Z")))
                .containsExactly("Flag: Almanac does not know \"Z\".");
        assertThat(
                        Harness.messages(
                                make(
                                        "hoists",
                                        List.of(
                                                Harness.values("flag", "A"),
                                                Harness.values("flag", "Q")))))
                .containsExactly("Flag: Almanac does not know \"Q\".");
        assertThat(make("flag", "A", "hoists", List.of(Harness.values("flag", "K, 2"))))
                .isInstanceOf(Outcome.Done.class);

        assertThat(port.show("Signal", KEY)).containsEntry("flag", "A");
        assertThat(port.keys("Signal", "flag = \"A\"")).hasSize(1);
        assertThat(port.keys("Signal", "flag = \"B\"")).isEmpty();
        assertThat(almanac.asked).as("kept for an hour").containsExactly("almanac.flags()");
    }

    @Test
    void anOutageLetsThroughWhatIsStoredAndRefusesNewValues() {
        open();
        make("flag", "A");
        almanac.down = true;
        port.engine.outside().forgetOld();
        port.look(session -> 0);

        assertThat(port.change("Signal", KEY, "flag", "A", "remark", "calm"))
                .isInstanceOf(Outcome.Done.class);
        assertThat(port.change("Signal", KEY, "spare", "B")).isInstanceOf(Outcome.Done.class);
        assertThat(port.text("Signal", KEY, "spare")).isEqualTo("B");

        var refused = (Outcome.Refused) port.call("Signal", KEY, "sound", "place", "N");
        assertThat(refused.reason()).isEqualTo(Outcome.Reason.UNAVAILABLE);
        assertThat(Harness.messages(refused))
                .containsExactly("Almanac does not answer: it is down.");
        assertThat(port.show("Signal", KEY).get("water")).isNull();
    }

    @Test
    void aNewValueIsRefusedWhileTheServiceIsDown() {
        open();
        almanac.down = true;

        var refused = (Outcome.Refused) make("flag", "A");

        assertThat(refused.reason()).isEqualTo(Outcome.Reason.UNAVAILABLE);
        assertThat(refused.faults().getFirst().path().toString()).contains("flag");
        assertThat(Harness.messages(refused))
                .containsExactly("Almanac does not answer: it is down.");
    }

    @Test
    void aFunctionAsksOnceAndWorksWithTheExactAnswer() {
        open();
        make();

        var outcome = port.call("Signal", KEY, "sound", "place", "Pier 3");

        assertThat(String.valueOf(Harness.result(outcome))).isEqualTo("3.14");
        assertThat(port.text("Signal", KEY, "water")).isEqualTo("3.142");
        assertThat(almanac.asked).containsExactly("almanac.depth(Pier 3, 2026-05-01)");
    }

    @Test
    void anAnswerOfTheWrongShapeIsToldAndChangesNothing() {
        open();
        make();
        almanac.depth = List.of("deep");

        assertThat(Harness.messages(port.call("Signal", KEY, "sound", "place", "N")))
                .singleElement()
                .asString()
                .startsWith("Almanac answered something else than its contract says: the answer");
        assertThat(port.show("Signal", KEY).get("water")).isNull();
    }

    @Test
    void whatChangesSomethingOutsideIsSentOnceForEachCall() {
        open();
        make();

        assertThat(Harness.result(port.call("Signal", KEY, "tell"))).isEqualTo("noted");

        assertThat(almanac.asked)
                .containsExactly(
                        "almanac.note(North, 1, 2)",
                        "almanac.note(North, 1, 2)",
                        "almanac.note(North, 1, 3)");
        assertThat(almanac.repeatKeys).doesNotHaveDuplicates();
    }

    @Test
    void aRuleReadsWhatIsKeptAndTheFirstTimeItIsFetchedBeforeTheChange() {
        open();
        make();

        port.change("Signal", KEY, "remark", "deep");
        assertThat(port.text("Signal", KEY, "water")).isEqualTo("3.142");
        almanac.down = true;
        port.change("Signal", KEY, "remark", "calm", "water", null);
        port.change("Signal", KEY, "remark", "deep");

        assertThat(port.text("Signal", KEY, "water")).isEqualTo("3.142");
        assertThat(almanac.asked).containsExactly("almanac.depthKept(North, 1)");
    }

    @Test
    void whatIsKeptOutlivesARestartAndEndsInItsTime() {
        open().close();
        open();
        make("flag", "A");
        port.close();
        open();
        make("mast", "South", "flag", "B");
        assertThat(almanac.asked).containsExactly("almanac.flags()");
        port.close();

        open(Clock.fixed(Instant.parse("2026-05-01T11:30:00Z"), ZoneOffset.UTC));
        make("mast", "West", "flag", "B");

        assertThat(almanac.asked).containsExactly("almanac.flags()", "almanac.flags()");
    }

    @Test
    void aHandlerGetsItsAnswerAfterTheChange() {
        open();
        make();

        port.change("Signal", KEY, "remark", "later");

        await(() -> port.text("Signal", KEY, "remark").equals("sounded"));
        assertThat(port.text("Signal", KEY, "water")).isEqualTo("3.142");
        assertThat(almanac.asked).containsExactly("almanac.depth(North, 1, )");
    }

    @Test
    @Tag("postgres")
    void anAnswerIsNotLostOnAHandlerThatAnotherProcessLooksAt() throws Exception {
        open();
        make();
        almanac.held = new CountDownLatch(1);
        port.change("Signal", KEY, "remark", "later");
        await(() -> almanac.asked.size() == 1);

        try (var other = port.storage.begin(false)) {
            assertThat(port.storage.events().claim(other, 1, Instant.now())).isPresent();
            almanac.held.countDown();
            TimeUnit.MILLISECONDS.sleep(300);
        }

        await(() -> port.text("Signal", KEY, "remark").equals("sounded"));
        assertThat(almanac.asked).hasSize(1);
    }

    @Test
    void nobodyElseWaitsForAServiceThatHangs() throws Exception {
        open();
        make();
        almanac.held = new CountDownLatch(1);
        port.change("Signal", KEY, "remark", "later");
        var caller =
                CompletableFuture.supplyAsync(
                        () -> port.call("Signal", KEY, "sound", "place", "Pier 3"));
        await(() -> almanac.asked.size() == 2);

        for (int i = 0; i < 300; i++) {
            assertThat(port.create("Signal", "mast", "M" + i, "day", "2026-05-02"))
                    .isInstanceOf(Outcome.Done.class);
        }
        assertThat(caller).isNotDone();

        almanac.held.countDown();
        assertThat(caller.get(20, TimeUnit.SECONDS)).isInstanceOf(Outcome.Done.class);
        await(() -> port.text("Signal", KEY, "remark").equals("sounded"));
    }

    @Test
    void rowsThatComeTogetherAskTogether() {
        open();

        var outcomes =
                port.createTogether(
                        "Signal",
                        List.of(
                                Harness.values("mast", "a", "day", "2026-05-01", "flag", "A"),
                                Harness.values("mast", "b", "day", "2026-05-01", "flag", "X"),
                                Harness.values("mast", "c", "day", "2026-05-01", "spare", "B")));

        assertThat(outcomes.get(0)).isInstanceOf(Outcome.Done.class);
        assertThat(Harness.messages(outcomes.get(1)))
                .containsExactly("Flag: Almanac does not know \"X\".");
        assertThat(outcomes.get(2)).isInstanceOf(Outcome.Done.class);
        assertThat(almanac.asked)
                .containsExactlyInAnyOrder("almanac.flags()", "almanac.anyFlag(B)");
    }

    @Test
    void whatCameBeforeAQuestionIsUndoneWithItAndDoneOnceInTheEnd() {
        open();

        var outcomes =
                port.createInTurn(
                        "Signal",
                        List.of(
                                Harness.values("mast", "a", "day", "2026-05-01"),
                                Harness.values("mast", "b", "day", "2026-05-01", "flag", "A")));

        assertThat(outcomes).allMatch(outcome -> outcome instanceof Outcome.Done);
        assertThat(port.keys("Signal", "mast != \"zz\"")).containsExactlyInAnyOrder("a", "b");
    }

    @Test
    void aTrialShowsWhatComesButSendsNothing() {
        open();

        var preview = port.preview("Signal", "mast", "N", "day", "2026-05-01", "flag", "Z");

        assertThat(preview.faults())
                .extracting(fault -> fault.message())
                .containsExactly("Flag: Almanac does not know \"Z\".");
        make();
        var trial = port.tryCall("Signal", KEY, "tell");
        assertThat(trial.faults())
                .extracting(fault -> fault.message())
                .containsExactly("almanac.note(North, 1, 2) would be sent; a trial sends nothing.");
        assertThat(almanac.asked).containsExactly("almanac.flags()");
    }

    @Test
    void theLabelOfThatMomentStays() {
        open();
        make("spare", "A");
        almanac.rename("A", "Alpha");
        port.engine.outside().forgetOld();

        port.change("Signal", KEY, "spare", "A", "remark", "again");

        assertThat(port.label("Signal", KEY, "spare")).isEqualTo("Alfa");
    }

    private static final String BILL =
            """
            object: Bill
            key: number
            fields:
              number: { type: integer, required: true }
              day: { type: date, default: "2026-05-01" }
              total: { type: amount, currency: %s }
              to: { type: text }
              there: { type: amount, currency: record }
              back: { type: amount, currency: EUR }
            rules:
              abroad:
                on: change of total, to
                when: to != null
                then: |
                  set there = convert(total, to, day)
                  set back = convert(there, "EUR", day)
            """;

    private void openWithRates(String currency) {
        port = new Harness(folder, Harness.CLOCK, new Backoff(List.of()), almanac);
        var files = Almanac.files(BILL.formatted(currency));
        files.put("port/package.yaml", "package: port\nversion: 1\nrates: almanac.rate\n");
        port.release(files);
    }

    @Test
    void amountsAreConvertedAtTheRateOfTheDay() {
        openWithRates("EUR");

        port.create("Bill", "number", 1, "total", new BigDecimal("10.00"), "to", "USD");
        port.create("Bill", "number", 2, "total", new BigDecimal("10.00"), "to", "EUR");

        assertThat(port.text("Bill", "1", "there")).isEqualTo("{value=12.50, currency=USD}");
        assertThat(port.text("Bill", "1", "back")).isEqualTo("10.00");
        assertThat(port.text("Bill", "2", "there")).isEqualTo("{value=10.00, currency=EUR}");
        almanac.down = true;
        port.create("Bill", "number", 3, "total", new BigDecimal("4.00"), "to", "USD");
        assertThat(port.text("Bill", "3", "there")).isEqualTo("{value=5.00, currency=USD}");
        assertThat(almanac.asked).containsExactly("almanac.rate(USD, 2026-05-01)");
    }

    @Test
    void betweenTwoOtherCurrenciesItGoesOverThatOfThePackage() {
        openWithRates("GBP");

        port.create("Bill", "number", 1, "total", new BigDecimal("8.00"), "to", "USD");

        assertThat(port.text("Bill", "1", "there")).isEqualTo("{value=12.50, currency=USD}");
        assertThat(port.text("Bill", "1", "back")).isEqualTo("10.00");
    }

    @Test
    void aCurrencyWithoutARateIsRefused() {
        openWithRates("EUR");

        assertThat(
                        Harness.messages(
                                port.create(
                                        "Bill",
                                        "number",
                                        1,
                                        "total",
                                        new BigDecimal("8.00"),
                                        "to",
                                        "XYZ")))
                .containsExactly("Almanac does not know XYZ.");
    }
}
