package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.engine.record.Query;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.SortKey;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.release.FieldPath;

/**
 * Fields that depend on the clock are not stored; filters and sorts by them are worked out by the
 * database and must come to what the engine comes to.
 */
class WorkedOutInSqlTest {
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              rate: { type: amount }
              mendBy: { type: date }
              unsafe: { type: boolean, formula: mendBy < today() }
            """;
    private static final String BOAT =
            """
            object: Boat
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              berth: { type: reference, to: Berth, inverse: boats }
              due: { type: date }
              state: { type: choice, choices: [Open, Done] }
              price: { type: amount }
              vat: { type: percent, scale: 1 }
              late: { type: boolean, formula: due < today() and state != "Done" }
              daysLate: { type: integer, formula: 'if due < today() then (today() - due).days else 0' }
              dayCount: { type: integer, formula: (today() - due) / duration("P1D") }
              veryLate: { type: boolean, formula: daysLate > 5 }
              fee: { type: amount, formula: 'if late then price * 0.0155 else null' }
              withVat: { type: amount, formula: 'if late then price * vat else price' }
              rounded: { type: integer, formula: 'if today() != null then price * 0.5 else 0' }
              huge: { type: amount, formula: 'if late then price * 1000000000000 else price' }
              remind: { type: date, formula: 'if late then due + @"PT36H" else due - @"PT36H"' }
              word: { type: text, length: 10, formula: 'if late then "late" else "fine"' }
              since: { type: duration, formula: today() - due }
              years: { type: integer, formula: today().year - due.year }
              share: { type: percent, scale: 1, formula: 'if late then vat else 0.05' }
              onUnsafe: { type: boolean, formula: berth.unsafe }
              rate: { type: amount, formula: 'if late then berth.rate + price else berth.rate' }
              trips: { type: integer, formula: 'count(tripsOf[day.year = today().year])' }
              spent: { type: amount, formula: 'sum(tripsOf[day <= today()].cost)' }
              last: { type: date, formula: 'max(tripsOf[day <= today()].day)' }
              shared: { type: integer, formula: 'count(berth.boats[late])' }
            """;
    private static final String TRIP =
            """
            object: Trip
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              boat: { type: reference, to: Boat, inverse: tripsOf }
              day: { type: date }
              cost: { type: amount }
            """;
    private static final List<String> KEYS = new ArrayList<>();
    private static Harness harness;

    @BeforeAll
    static void start() throws IOException {
        harness = new Harness(Files.createTempDirectory("worked-out")).release(BERTH, BOAT, TRIP);
        var random = new Random(5);
        for (int i = 0; i < 3; i++) {
            harness.create(
                    "Berth",
                    "code",
                    "P" + i,
                    "rate",
                    i == 0 ? null : i * 10,
                    "mendBy",
                    day(random));
        }
        for (int i = 0; i < 40; i++) {
            var code = "B%02d".formatted(i);
            KEYS.add(code);
            harness.create(
                    "Boat",
                    "code",
                    code,
                    "berth",
                    random.nextInt(4) == 0 ? null : "P" + random.nextInt(3),
                    "due",
                    day(random),
                    "state",
                    random.nextInt(3) == 0 ? null : random.nextBoolean() ? "Open" : "Done",
                    "price",
                    random.nextInt(5) == 0
                            ? null
                            : BigDecimal.valueOf(random.nextInt(4001) - 2000, 2),
                    "vat",
                    random.nextInt(5) == 0 ? null : BigDecimal.valueOf(random.nextInt(200), 1));
        }
        for (int i = 0; i < 80; i++) {
            harness.create(
                    "Trip",
                    "code",
                    "T" + i,
                    "boat",
                    KEYS.get(random.nextInt(30)),
                    "day",
                    day(random),
                    "cost",
                    random.nextInt(5) == 0 ? null : random.nextInt(100));
        }
    }

    /** Around the first of May, which is today, and around the turn of the year before it. */
    private static @Nullable String day(Random random) {
        return random.nextInt(6) == 0
                ? null
                : (random.nextInt(4) == 0 ? "2025-12-%02d" : "2026-0%d-%02d")
                        .replace("0%d", "0" + (4 + random.nextInt(2)))
                        .formatted(1 + random.nextInt(28));
    }

    @AfterAll
    static void stop() {
        harness.close();
    }

    private static List<String> found(
            @Nullable Condition condition, List<Query.Sort> sorts, int limit) {
        return Pages.keys(harness.engine, "Boat", condition, sorts, limit);
    }

    private static Condition condition(String text) {
        var release = harness.engine.live().release();
        return ((Checked.Accepted)
                        ConditionChecker.check(
                                text, release.recordType(release.object("Boat")), Harness.CLOCK))
                .condition();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "late",
                "lower case(state) = \"open\"",
                "upper case(code) > \"B05\"",
                "contains(lower case(berth.code), \"p1\")",
                "not(ends with(lower case(state), \"ne\"))",
                "starts with(upper case(word), \"LA\")",
                "string length(code) + daysLate > 5",
                "not(late)",
                "late = false",
                "not(late = false)",
                "late = null",
                "late or veryLate",
                "daysLate > 3",
                "daysLate between 1 and 10",
                "daysLate in (0, [5..9])",
                "dayCount = daysLate",
                "dayCount < 0",
                "veryLate",
                "fee > 0.1",
                "fee = null",
                "fee != null and fee < 0",
                "withVat >= price",
                "withVat <= 0.31",
                "rounded in [-3..3]",
                "rounded > price",
                "huge = null and price != null",
                "remind < today()",
                "remind.month = 5",
                "remind.year = 2026",
                "word = \"late\"",
                "since > @\"P2D\"",
                "since.days < -3",
                "years = 1",
                "share >= 5",
                "share > 5.5",
                "onUnsafe",
                "not(onUnsafe)",
                "berth.unsafe",
                "berth.unsafe = null",
                "rate > 12.5",
                "trips > 1",
                "trips = 0",
                "spent >= 100",
                "last < @\"2026-04-20\"",
                "last = null",
                "shared > 1",
                "count(tripsOf[cost > 50]) > 0",
                "price + daysLate > 10",
                "(if late then vat else null) > 5",
                "(if late then vat else null) = share",
                "share * 100 > 5",
                "due + @\"P3D\" < today()",
            })
    void aFilterKeepsWhatTheEngineSaysItKeeps(String text) {
        var kept =
                KEYS.stream()
                        .filter(key -> harness.evaluate("Boat", key, text).equals("true"))
                        .toList();

        assertThat(found(condition(text), List.of(), 500)).containsExactlyElementsOf(kept);
        assertThat(kept).as("a case that says something").isNotEmpty().hasSizeLessThan(KEYS.size());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "late",
                "daysLate",
                "fee",
                "withVat",
                "remind",
                "word",
                "trips",
                "spent",
                "last",
                "share",
                "rate"
            })
    void pagesInItsOrderGiveEveryRecordOnce(String name) {
        var values = new TreeMap<String, @Nullable Object>();
        KEYS.forEach(key -> values.put(key, harness.show("Boat", key).get(name)));
        var release = harness.engine.live().release();
        var type = release.object("Boat");
        var key =
                ConditionChecker.sortKey(release.recordType(type), List.of(name), Harness.CLOCK)
                        .orElseThrow();
        for (boolean descending : new boolean[] {false, true}) {
            var sort = new Query.Sort(FieldPath.of(type.fields().get(name)), key, descending);

            assertThat(found(condition("code != \"B00\""), List.of(sort), 7))
                    .containsExactlyElementsOf(ordered(values, descending));
        }
    }

    @SuppressWarnings({"unchecked", "rawtypes"}) // values of one field are of one class
    private static List<String> ordered(Map<String, @Nullable Object> values, boolean descending) {
        Comparator<String> byValue =
                Comparator.comparing(
                        code -> (Comparable) values.get(code),
                        Comparator.nullsFirst(Comparator.naturalOrder()));
        return values.keySet().stream()
                .filter(code -> !code.equals("B00"))
                .sorted((descending ? byValue.reversed() : byValue).thenComparing(code -> code))
                .toList();
    }

    @Test
    void whatTheDatabaseCannotWorkOutHasNoKey() throws IOException {
        try (var other =
                new Harness(Files.createTempDirectory("worked-out"))
                        .release(
                                """
                                object: Boat
                                key: code
                                fields:
                                  code: { type: text, length: 10, required: true }
                                  due: { type: date }
                                  weekday: { type: text, length: 10, formula: 'if due > today() then day of week(due) else null' }
                                """)) {
            var release = other.engine.live().release();
            var record = release.recordType(release.object("Boat"));

            assertThat(SortKey.of(record, List.of("weekday"))).isEmpty();
            assertThat(ConditionChecker.check("weekday = \"Friday\"", record, Harness.CLOCK))
                    .isInstanceOf(Checked.Rejected.class);
        }
    }
}
