package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;

/**
 * Work puts records into the tables when it asks the store. One that is in the end what it was in
 * the beginning is that in the tables, too.
 */
class OnTheWayTest {
    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text, length: 20, required: true }
              best: { type: reference, to: Vessel, inverse: bestOf }
              bestName: { type: text, length: 60, formula: best.name }
            """;
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 20, required: true }
              depth: { type: integer }
              taken: { type: integer, formula: sum(vessels.size) }
              seen: { type: integer }
            functions:
              thereAndBack:
                external: true
                body: |
                  set depth = 99
                  set seen = count(Berth[depth = 99])
                  set depth = 5
                  set seen = null
            """;
    private static final String VESSEL =
            """
            object: Vessel
            key: code
            fields:
              code: { type: text, length: 20, required: true }
              size: { type: integer }
              name: { type: text, length: 60 }
              berth: { type: reference, to: Berth, inverse: vessels }
            """;

    @TempDir Path folder;
    private Harness marina;

    @BeforeEach
    void start() {
        marina = new Harness(folder).release(PIER, BERTH, VESSEL);
        marina.create("Berth", "code", "B1", "depth", 5L);
        marina.create("Vessel", "code", "V1", "size", 8L, "name", "Alk", "berth", "B1");
        marina.create("Vessel", "code", "V2", "size", -2L, "name", "Bao", "berth", "B1");
    }

    @AfterEach
    void stop() {
        marina.close();
    }

    private List<Outcome> load(List<Map<String, @Nullable Object>> rows) {
        var makers = new ArrayList<Function<LiveRelease, Request>>();
        rows.forEach(row ->
                makers.add(live -> {
                    var type = live.release().object("Vessel");
                    var tree = live.release().everythingOf(type);
                    return new Request(
                            new RecordCommand.Save(
                                    type, tree, tree, null, row, Map.of(), false, null),
                            Actor.SYSTEM,
                            "import",
                            true);
                }));
        return marina.engine.records().write(makers, Grouping.TOGETHER);
    }

    private static Map<String, @Nullable Object> row(@Nullable Object... values) {
        return new LinkedHashMap<>(Harness.values(values));
    }

    @Test
    void aTotalThatRowsOfAnImportTakeUpAndDownAgain() {
        assertThat(
                        load(
                                List.of(
                                        row("code", "V2", "size", 0L, "name", "Cor"),
                                        row(
                                                "code", "V3", "size", -2L, "name", "D", "berth",
                                                "B1"))))
                .allMatch(one -> one instanceof Outcome.Done);
        assertThat(marina.text("Berth", "B1", "taken")).isEqualTo("6");
        assertThat(marina.keys("Berth", "taken = 6")).containsExactly("B1");
    }

    @Test
    void aFieldThatAFunctionSetsAndSetsBack() {
        assertThat(marina.call("Berth", "B1", "thereAndBack")).isInstanceOf(Outcome.Success.class);
        assertThat(marina.text("Berth", "B1", "depth")).isEqualTo("5");
        assertThat(marina.keys("Berth", "depth = 5")).containsExactly("B1");
        assertThat(marina.keys("Berth", "seen != null")).isEmpty();
    }
}
