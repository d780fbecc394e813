package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;

/** What was written out is taken in again: line items, languages, references within the file. */
class ImportTest {
    private static final Map<String, String> FILES =
            Map.of(
                    "marina/package.yaml",
                    "package: marina\nversion: 1\nlanguages: [en, de]\n",
                    "marina/objects/spot.yaml",
                    """
                    object: Spot
                    key: [area, place]
                    fields:
                      area: { type: text, required: true }
                      place: { type: integer, required: true }
                      name: { type: text, localised: true }
                      fee: { type: amount, currency: record }
                      inside: { type: reference, to: Spot, inverse: parts }
                      mark: { type: text, readOnly: true }
                      count: { type: integer, formula: count(parts) }
                    parts:
                      lamps:
                        fields:
                          watts: { type: integer }
                          near: { type: reference, to: Spot }
                    lifecycle:
                      initial: Planned
                      states: [Planned, Built]
                      transitions: { build: { from: Planned, to: Built } }
                    """);

    @TempDir Path folder;

    private Harness harness(String name) throws Exception {
        return new Harness(Files.createDirectory(folder.resolve(name))).release(FILES);
    }

    private static List<Outcome> load(
            Harness marina, List<Map<String, @Nullable Object>> rows, boolean whole) {
        var makers = new ArrayList<Function<LiveRelease, Request>>();
        rows.forEach(row ->
                makers.add(live -> {
                    var type = live.release().object("Spot");
                    var tree = live.release().everythingOf(type);
                    return new Request(
                                    new RecordCommand.Save(
                                            type, tree, tree, null, row, Map.of(), false, null),
                                    new Actor(
                                            Actor.Kind.USER,
                                            "clerk",
                                            java.util.Set.of(),
                                            List.of()),
                                    "import",
                                    true)
                            .with(new Leave(whole, false));
                }));
        return marina.engine.records().write(makers, Grouping.TOGETHER);
    }

    private static Map<String, @Nullable Object> row(@Nullable Object... values) {
        return new LinkedHashMap<>(Harness.values(values));
    }

    @Test
    void aRoundTripGivesEqualRecordsWhateverTheirOrder() throws Exception {
        var keys = List.of("N,1", "N,2", "N,3", "N,4");
        var written = new ArrayList<Map<String, @Nullable Object>>();
        try (var from = harness("from")) {
            var rows =
                    List.of(
                            row(
                                    "area",
                                    "N",
                                    "place",
                                    1L,
                                    "name",
                                    Map.of("en", "one", "de", "eins"),
                                    "inside",
                                    "N,3",
                                    "state",
                                    "Built",
                                    "mark",
                                    "x"),
                            row(
                                    "area",
                                    "N",
                                    "place",
                                    2L,
                                    "inside",
                                    "N,1",
                                    "fee",
                                    Map.of("value", 5L, "currency", "USD"),
                                    "lamps",
                                    List.of(
                                            Map.of("line", 2L, "watts", 40L),
                                            Map.of("line", 5L, "watts", 60L, "near", "N,4"))),
                            row("area", "N", "place", 3L),
                            row("area", "N", "place", 4L, "inside", "N,4", "retired", true));
            assertThat(load(from, rows, true)).allMatch(one -> one instanceof Outcome.Done);
            keys.forEach(key -> written.add(from.show("Spot", key)));
            assertThat(from.text("Spot", "N,3", "count")).isEqualTo("1");
        }
        try (var to = harness("to")) {
            written.get(3).put("retired", true);
            assertThat(load(to, written, true))
                    .as("%s", load(to, List.of(), true))
                    .allMatch(one -> one instanceof Outcome.Done);
            assertThat(load(to, written, true))
                    .as("once more")
                    .allMatch(one -> one instanceof Outcome.Done);
            written.get(3).remove("retired");
            for (int i = 0; i < keys.size(); i++) {
                assertThat(to.show("Spot", keys.get(i))).isEqualTo(written.get(i));
            }
            assertThat(Harness.messages(to.change("Spot", "N,4", "fee", null)))
                    .containsExactly("This Spot is retired; restore it before changing it.");
        }
    }

    @Test
    void rowsThatReferToARowBeforeThemAreCountedOnce() throws Exception {
        try (var marina = harness("order")) {
            var rows = new ArrayList<Map<String, @Nullable Object>>();
            rows.add(row("area", "N", "place", 1L));
            rows.add(row("area", "N", "place", 2L, "inside", "N,1"));
            rows.add(row("area", "N", "place", 3L, "inside", "N,1"));
            rows.add(row("area", "N", "place", 4L, "inside", "N,3"));
            assertThat(load(marina, rows, false)).allMatch(one -> one instanceof Outcome.Done);
            assertThat(marina.text("Spot", "N,1", "count")).isEqualTo("2");
            assertThat(marina.text("Spot", "N,3", "count")).isEqualTo("1");
            marina.change("Spot", "N,4", "inside", "N,1");
            assertThat(marina.text("Spot", "N,1", "count")).isEqualTo("3");
        }
    }

    @Test
    void rowsKeepTheirOwnValuesWhenTheyReferToRowsBehindThem() throws Exception {
        var spot =
                """
                object: Spot
                key: code
                fields:
                  code: { type: text, required: true }
                  size: { type: integer }
                  day:  { type: date }
                  up:   { type: reference, to: Spot, inverse: kids }
                  last: { type: date, formula: max(kids.kids.day) }
                  seen: { type: date }
                rules:
                  follow: { on: create or change of last, then: set seen = last }
                """;
        var files =
                Map.of(
                        "marina/package.yaml",
                        "package: marina\nversion: 1\n",
                        "marina/objects/spot.yaml",
                        spot);
        try (var marina =
                new Harness(Files.createDirectory(folder.resolve("hops"))).release(files)) {
            var rows = new ArrayList<Map<String, @Nullable Object>>();
            rows.add(row("code", "A", "size", 1L, "day", "2026-05-10", "up", "B"));
            rows.add(row("code", "B", "size", 2L, "day", "2026-05-11"));
            assertThat(load(marina, rows, false)).allMatch(one -> one instanceof Outcome.Done);
            assertThat(marina.text("Spot", "A", "size")).isEqualTo("1");
            assertThat(marina.text("Spot", "B", "size")).isEqualTo("2");
            assertThat(marina.text("Spot", "A", "up")).isEqualTo("B");
            marina.change("Spot", "A", "day", "2026-05-12");
            assertThat(marina.text("Spot", "A", "size")).isEqualTo("1");
        }
    }

    @Test
    void whatOnlyTheServiceSetsIsTakenOnlyWhenAsked() throws Exception {
        try (var marina = harness("plain")) {
            var outcomes =
                    load(
                            marina,
                            List.of(
                                    row("area", "N", "place", 1L, "mark", "x"),
                                    row("area", "N", "place", 2L, "state", "Built"),
                                    row("area", "N", "place", 3L, "inside", "N,9"),
                                    row("area", "N", "place", 4L, "count", 7L)),
                            false);

            assertThat(outcomes.stream().map(Harness::messages))
                    .containsExactly(
                            List.of("Mark is set by the service alone and cannot be given."),
                            List.of(
                                    "State of a new Spot is Planned; it is changed by"
                                            + " transitions."),
                            List.of("Inside: there is no Spot \"N,9\"."),
                            List.of());
        }
    }

    @Test
    void aChangeOfOneLanguageLeavesTheOthers() throws Exception {
        try (var marina = harness("merge")) {
            marina.create(
                    "Spot",
                    "area",
                    "N",
                    "place",
                    1L,
                    "name",
                    Map.of("en", "E", "de", "D"),
                    "fee",
                    Map.of("value", 5L, "currency", "USD"));

            marina.change("Spot", "N,1", "name", Map.of("en", "E2"), "fee", Map.of("value", 6L));
            assertThat(marina.text("Spot", "N,1", "name")).isEqualTo("{en=E2, de=D}");
            assertThat(marina.text("Spot", "N,1", "fee")).isEqualTo("{value=6.00, currency=USD}");
            marina.change("Spot", "N,1", "name", Harness.values("de", null));
            assertThat(marina.text("Spot", "N,1", "name")).isEqualTo("{en=E2}");
            marina.change("Spot", "N,1", "name", Harness.values("en", null));
            assertThat(marina.text("Spot", "N,1", "name")).isEqualTo("null");
        }
    }

    @Test
    void aFilterByAKeyOfTwoFieldsFindsWhatItShould() throws Exception {
        try (var marina = harness("filter")) {
            marina.create("Spot", "area", "a,b", "place", 1L);
            marina.create("Spot", "area", "N", "place", 2L, "inside", "a\\,b,1");
            marina.create("Spot", "area", "N", "place", 3L, "inside", "N,2");
            marina.create("Spot", "area", "N", "place", 4L);

            assertThat(found(marina, "inside = \"a\\\\,b,1\"")).containsExactly(2L);
            assertThat(found(marina, "inside != \"a\\\\,b,1\"")).containsExactly(1L, 3L, 4L);
            assertThat(found(marina, "inside in (\"a\\\\,b,1\", \"N,2\")")).containsExactly(2L, 3L);
            assertThat(found(marina, "inside = \"nonsense\"")).isEmpty();
            assertThat(found(marina, "not(inside = \"N,2\") and inside != null"))
                    .containsExactly(2L);
        }
    }

    private static List<Object> found(Harness marina, String filter) {
        return marina.engine
                .records()
                .read((live, session) -> {
                    var type = live.release().object("Spot");
                    var tree = live.release().everythingOf(type);
                    var condition =
                            ((sandpiper.logic.filter.Checked.Accepted)
                                            sandpiper.logic.filter.ConditionChecker.check(
                                                    filter,
                                                    live.release().recordType(type),
                                                    Harness.CLOCK))
                                    .condition();
                    var query =
                            new Query(
                                    type,
                                    tree,
                                    condition,
                                    null,
                                    List.of(),
                                    false,
                                    null,
                                    0,
                                    50,
                                    false,
                                    Query.Retired.WITHOUT);
                    return engineValues(marina, live, session, query);
                });
    }

    private static List<Object> engineValues(
            Harness marina, LiveRelease live, Session session, Query query) {
        return marina.engine.records().page(live, session, query).records().stream()
                .map(record -> java.util.Objects.requireNonNull(record.values()[1]))
                .toList();
    }
}
