package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.Figures.Grouping;
import sandpiper.engine.record.Figures.Step;
import sandpiper.engine.record.Query;

/** What records come to, by fields of every kind that can be counted by. */
class FiguresTest {
    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void open() {
        yard =
                new Harness(folder)
                        .release(
                                Map.of(
                                        "yard/package.yaml",
                                        "package: yard\nversion: 1\nzone: Europe/Berlin\n",
                                        "yard/objects/job.yaml",
                                        """
                                        object: Job
                                        key: [area, place]
                                        fields:
                                          area: { type: text, required: true }
                                          place: { type: integer, required: true }
                                          after: { type: reference, to: Job }
                                          urgent: { type: boolean }
                                          day: { type: date }
                                          begun: { type: date-time }
                                          cost: { type: decimal, scale: 2 }
                                        """,
                                        "yard/objects/shed.yaml",
                                        """
                                        object: Shed
                                        fields:
                                          cost: { type: decimal, scale: 2 }
                                        """));
        make("A", 1, "urgent", true, "day", "2026-03-02", "cost", "999999999999.99");
        make("A", 2, "after", "A,1", "day", "2026-03-08", "cost", "-0.50");
        make("B", 1, "after", "A,1", "begun", "2026-03-31T22:30:00Z", "cost", "0.01");
        make("B", 2, "begun", "1969-12-31T22:59:59Z");
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

    private Figures figures(@Nullable String by, @Nullable Step step) {
        return figures("Job", by, step);
    }

    private Figures figures(String of, @Nullable String by, @Nullable Step step) {
        return yard.engine
                .records()
                .read((live, session) -> {
                    var job = live.release().object(of);
                    var query =
                            new Query(
                                    job,
                                    live.release().everythingOf(job),
                                    null,
                                    null,
                                    List.of(),
                                    false,
                                    null,
                                    0,
                                    1,
                                    false,
                                    Query.Retired.WITHOUT);
                    return yard.engine
                            .records()
                            .figures(
                                    live,
                                    session,
                                    query,
                                    List.of(job.fields().get("cost")),
                                    by == null ? null : new Grouping(job.fields().get(by), step));
                });
    }

    private List<String> groups(String by, @Nullable Step step) {
        return figures(by, step).groups().stream()
                .map(one -> one.value().plain() + " " + one.count() + " " + one.sums().getFirst())
                .toList();
    }

    @Test
    void countsAndAddsUpExactly() {
        var all = figures(null, null);
        assertThat(all.count()).isEqualTo(4);
        assertThat(all.sums()).containsExactly(new BigDecimal("999999999999.50"));
        assertThat(all.groups()).isEmpty();
    }

    @Test
    void nothingAddsUpToNothing() {
        var none = figures("Shed", "cost", null);
        assertThat(none.count()).isZero();
        assertThat(none.sums()).containsExactly(new BigDecimal("0.00"));
        assertThat(none.groups()).isEmpty();
    }

    @Test
    void byTextReferenceAndTruth() {
        assertThat(groups("area", null))
                .containsExactlyInAnyOrder("A 2 999999999999.49", "B 2 0.01");
        assertThat(groups("after", null))
                .containsExactlyInAnyOrder("A,1 2 -0.49", "null 2 999999999999.99");
        assertThat(groups("urgent", null)).contains("true 1 999999999999.99");
    }

    @Test
    void byStepsOfTheCalendar() {
        assertThat(groups("day", Step.WEEK))
                .containsExactly("null 2 0.01", "2026-03-02 2 999999999999.49");
        assertThat(groups("day", Step.QUARTER))
                .containsExactly("null 2 0.01", "2026-01-01 2 999999999999.49");
    }

    /** Half past ten in the evening in UTC is the next day in Berlin in summer. */
    @Test
    void momentsBelongToTheDayInTheZoneOfThePackage() {
        assertThat(groups("begun", Step.MONTH))
                .containsExactly(
                        "null 2 999999999999.49", "1969-12-01 1 0.00", "2026-04-01 1 0.01");
        assertThat(groups("begun", Step.DAY)).contains("1969-12-31 1 0.00", "2026-04-01 1 0.01");
    }

    /** However many values there are: the largest groups, and the sums of all records. */
    @Test
    void aFieldWithManyValuesGivesTheLargestGroupsAndTheSumsOfAll() {
        var rows = new ArrayList<Map<String, @Nullable Object>>();
        for (int i = 0; i < 300; i++) {
            rows.add(
                    Harness.values(
                            "area", "Z" + i % 250, "place", (long) i, "cost", new BigDecimal(1)));
        }
        yard.createTogether("Job", rows);
        var figures = figures("area", null);
        assertThat(figures.count()).isEqualTo(304);
        assertThat(figures.sums()).containsExactly(new BigDecimal("1000000000299.50"));
        assertThat(figures.groups()).hasSize(200);
        assertThat(figures.more()).isTrue();
        assertThat(figures.groups().getFirst().count()).isEqualTo(2);
        assertThat(figures("urgent", null).more()).isFalse();
    }
}
