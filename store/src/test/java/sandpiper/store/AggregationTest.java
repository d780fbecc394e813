package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Aggregation.Function;
import sandpiper.engine.record.Aggregation.Measure;
import sandpiper.engine.record.Aggregation.Order;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.Release;

/** Groups of records by several values, and everything that is worked out for them. */
class AggregationTest {
    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void open() {
        yard =
                new Harness(folder)
                        .release(
                                Map.of(
                                        "yard/package.yaml",
                                        "package: yard\nversion: 1\nlanguages: [en, de]\n",
                                        "yard/objects/job.yaml",
                                        """
                                        object: Job
                                        key: [area, place]
                                        fields:
                                          area: { type: text, required: true }
                                          place: { type: integer, required: true }
                                          after: { type: reference, to: Job }
                                          name: { type: text, localised: true }
                                          day: { type: date }
                                          begun: { type: date-time }
                                          cost: { type: decimal, scale: 2 }
                                        """));
    }

    @AfterEach
    void close() {
        yard.close();
    }

    private void make(String area, int place, @Nullable Object... more) {
        var values = Harness.values(more);
        values.put("area", area);
        values.put("place", (long) place);
        values.computeIfPresent("cost", (_, cost) -> new BigDecimal(cost.toString()));
        assertThat(yard.createTogether("Job", List.of(values)))
                .allSatisfy(one -> assertThat(one.getClass().getSimpleName()).isEqualTo("Done"));
    }

    private void makeFour() {
        make("A", 1, "day", "2026-03-02", "cost", "999999999999.99", "name", names("one", "eins"));
        make("A", 2, "after", "A,1", "day", "2026-03-08", "cost", "-0.50");
        make("B", 1, "after", "A,1", "begun", "2026-03-31T22:30:00Z", "cost", "0.01");
        make("B", 2, "after", "A,2", "name", names("one", "eins"));
    }

    private static Map<String, Object> names(String en, String de) {
        return Map.of("en", en, "de", de);
    }

    private static FieldPath path(Release release, String written) {
        return FieldPath.resolve(
                        release, release.object("Job"), Arrays.asList(written.split("\\.")))
                .orElseThrow();
    }

    private List<String> rows(
            List<String> keys, List<String> measures, List<Order> orders, int skip, int limit) {
        return yard.engine
                .records()
                .read((live, session) -> {
                    var release = live.release();
                    var job = release.object("Job");
                    var query =
                            new Query(
                                    job,
                                    release.everythingOf(job),
                                    null,
                                    null,
                                    List.of(),
                                    false,
                                    null,
                                    0,
                                    1,
                                    false,
                                    Query.Retired.WITHOUT);
                    var wanted =
                            new Aggregation(
                                    keys.stream()
                                            .map(key ->
                                                    new Aggregation.Key(path(release, key), false))
                                            .toList(),
                                    measures.stream()
                                            .map(one -> measure(release, one.split(" ")))
                                            .toList(),
                                    orders,
                                    skip,
                                    limit);
                    return yard.engine.records().aggregate(live, session, query, wanted).stream()
                            .map(AggregationTest::text)
                            .toList();
                });
    }

    private List<String> rows(List<String> keys, String... measures) {
        return rows(keys, List.of(measures), List.of(), 0, 100);
    }

    private static Measure measure(Release release, String[] words) {
        var function = Function.valueOf(words[0]);
        return words.length == 1
                ? new Measure(function, null)
                : new Measure(function, path(release, words[1]));
    }

    private static String text(Aggregation.Row row) {
        var all = new ArrayList<String>();
        row.keys()
                .forEach(key ->
                        all.add(key instanceof RecordView.Link link ? link.key() : "" + key));
        row.measures().forEach(measure -> all.add("" + measure));
        return String.join(" ", all);
    }

    @Test
    void nothingComesToOneGroupOfNone() {
        assertThat(rows(List.of(), "COUNT", "SUM cost", "AVERAGE cost", "MIN day", "DISTINCT area"))
                .containsExactly("0 null null null 0");
        assertThat(rows(List.of("area"), "COUNT")).isEmpty();
    }

    @Test
    void emptyValuesPlayNoPart() {
        makeFour();
        assertThat(
                        rows(
                                List.of("area"),
                                "COUNT",
                                "COUNT cost",
                                "SUM cost",
                                "AVERAGE cost",
                                "MIN cost",
                                "MAX begun"))
                .containsExactly(
                        "A 2 2 999999999999.49 499999999999.74500000 -50 null",
                        "B 2 1 0.01 0.01000000 1 1774996200000000");
    }

    @Test
    void bySeveralValuesAndByThoseBehindReferences() {
        makeFour();
        assertThat(rows(List.of("after", "area"), "COUNT"))
                .containsExactly("null A 1", "A,1 A 1", "A,1 B 1", "A,2 B 1");
        assertThat(rows(List.of("after.after"), "COUNT", "DISTINCT after"))
                .containsExactly("null 3 1", "A,1 1 1");
        assertThat(rows(List.of("name"), "COUNT")).hasSize(2);
    }

    @Test
    void sumsAreComparedAsNumbersWhateverTheirHalves() {
        make("A", 1, "cost", "10000.00");
        make("A", 2, "cost", "-0.01");
        make("B", 1, "cost", "9999.98");
        make("C", 1, "cost", "-10000.01");
        make("D", 1, "cost", "-9999.99");
        make("E", 1);
        var sum = List.of("SUM cost");
        assertThat(rows(List.of("area"), sum, List.of(new Order(1, false)), 0, 10))
                .containsExactly("E null", "C -10000.01", "D -9999.99", "B 9999.98", "A 9999.99");
        assertThat(rows(List.of("area"), sum, List.of(new Order(1, true)), 1, 2))
                .containsExactly("B 9999.98", "D -9999.99");
        var average = List.of("AVERAGE cost");
        assertThat(rows(List.of("area"), average, List.of(new Order(1, true)), 0, 2))
                .containsExactly("B 9999.98000000", "A 4999.99500000");
    }
}
