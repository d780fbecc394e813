package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.store.Harness.values;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;

/**
 * Records found by their line items: what the database finds is what the same expression comes to
 * as a formula, empty values and all.
 */
class OverItemsTest {
    /** Each is a formula as well, called by its letter. */
    private static final Map<String, String> CONDITIONS = new LinkedHashMap<>();

    static {
        CONDITIONS.put("a", "some s in steps satisfies s.minutes > 5");
        CONDITIONS.put("b", "every s in steps satisfies s.minutes > 5");
        CONDITIONS.put("c", "some s in steps satisfies s.urgent");
        CONDITIONS.put("d", "every s in steps satisfies s.urgent");
        CONDITIONS.put("e", "some s in steps satisfies s.what = null");
        CONDITIONS.put("f", "every s in steps satisfies s.what != \"paint\" or s.minutes < 3");
        CONDITIONS.put("g", "some s in steps satisfies s.crane.reach >= 20");
        CONDITIONS.put("h", "some s in steps satisfies s.crane = \"N,2\"");
        CONDITIONS.put("i", "some s in steps satisfies contains(s.what, \"ai\") and s.line > 1");
        CONDITIONS.put("j", "some s in steps satisfies s.minutes * 2 - 1 > 9");
        CONDITIONS.put(
                "k", "some s in steps satisfies s.day in [@\"2026-05-01\"..@\"2026-05-31\"]");
        CONDITIONS.put("l", "every s in steps satisfies true");
        CONDITIONS.put("m", "some s in steps satisfies true");
    }

    @TempDir Path folder;
    private Harness yard;

    private static String job() {
        var text =
                new StringBuilder(
                        """
                        object: Job
                        key: code
                        parts:
                          steps:
                            fields:
                              what: { type: text }
                              minutes: { type: integer }
                              urgent: { type: boolean }
                              day: { type: date }
                              crane: { type: reference, to: Crane }
                        fields:
                          code: { type: text }
                          size: { type: integer }
                        """);
        CONDITIONS.forEach((name, condition) ->
                text.append("  %s: { type: boolean, formula: '%s' }\n".formatted(name, condition)));
        return text.toString();
    }

    @BeforeEach
    void open() {
        yard =
                new Harness(folder)
                        .release(
                                Map.of(
                                        "yard/package.yaml",
                                        "package: yard\nversion: 1\n",
                                        "yard/objects/crane.yaml",
                                        """
                                        object: Crane
                                        key: [pier, place]
                                        fields:
                                          pier: { type: text }
                                          place: { type: integer }
                                          reach: { type: integer }
                                        """,
                                        "yard/objects/job.yaml",
                                        job()));
        done(yard.createTogether("Crane", List.of(crane(1, 10L), crane(2, 20L), crane(3, null))));
        var random = new Random(11);
        var jobs = new ArrayList<Map<String, @Nullable Object>>();
        for (int i = 0; i < 120; i++) {
            var steps = new ArrayList<Object>();
            for (int k = random.nextInt(4); k > 0; k--) {
                steps.add(
                        values(
                                "what",
                                pick(random, null, "paint", "clean"),
                                "minutes",
                                pick(random, null, 2L, 5L, 6L),
                                "urgent",
                                pick(random, null, true, false),
                                "day",
                                pick(random, null, "2026-05-31", "2026-06-01"),
                                "crane",
                                pick(random, null, "N,1", "N,2", "N,3")));
            }
            jobs.add(values("code", "J" + i, "size", (long) random.nextInt(4), "steps", steps));
        }
        done(yard.createTogether("Job", jobs));
    }

    @AfterEach
    void close() {
        yard.close();
    }

    private static Map<String, @Nullable Object> crane(int place, @Nullable Long reach) {
        return values("pier", "N", "place", (long) place, "reach", reach);
    }

    private static @Nullable Object pick(Random random, @Nullable Object... values) {
        return values[random.nextInt(values.length)];
    }

    private static void done(List<Outcome> outcomes) {
        assertThat(outcomes).allSatisfy(one -> assertThat(one).isInstanceOf(Outcome.Done.class));
    }

    @Test
    void theDatabaseFindsWhatTheFormulaSays() {
        CONDITIONS.forEach((name, condition) -> {
            assertThat(yard.keys("Job", condition))
                    .as(condition)
                    .isEqualTo(yard.keys("Job", name + " = true"));
            assertThat(yard.keys("Job", "not(%s)".formatted(condition)))
                    .as("not " + condition)
                    .isEqualTo(yard.keys("Job", name + " = false"));
        });
        assertThat(yard.keys("Job", CONDITIONS.get("a"))).isNotEmpty().hasSizeLessThan(120);
        assertThat(
                        yard.keys(
                                "Job",
                                "(%s) and size > 1 or code = \"J7\""
                                        .formatted(CONDITIONS.get("d"))))
                .isEqualTo(yard.keys("Job", "d and size > 1 or code = \"J7\""));
    }
}
