package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Predicate;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.lifecycle.AfterContainer;
import net.jqwik.api.lifecycle.BeforeContainer;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.record.Query.Sort;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.release.FieldPath;

/**
 * Conditions and pages in SQL against the same worked out in memory, over records with many empty
 * and equal values.
 */
class QueryPropertyTest {
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, required: true }
              side: { type: choice, choices: [port, starboard] }
              depth: { type: decimal, scale: 1 }
              since: { type: date }
              open: { type: boolean }
              pier: { type: reference, to: Pier }
            """;
    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text, required: true }
              basin: { type: reference, to: Basin }
            """;
    private static final String BASIN =
            """
            object: Basin
            key: name
            fields:
              name: { type: text, required: true }
            """;

    /** The basin of each pier; one has none. */
    private static final Map<String, String> BASINS = Map.of("N", "Inner", "S", "Outer", "W", "");

    private static final int RECORDS = 60;

    private record Berth(
            String code,
            String side,
            BigDecimal depth,
            LocalDate since,
            Boolean open,
            String pier) {
        String basin() {
            return pier == null ? "" : BASINS.get(pier);
        }
    }

    /**
     * A condition as text, with what it means in Java; {@code null} stands for neither true nor
     * false.
     */
    private record Test(String text, java.util.function.Function<Berth, Boolean> truth) {}

    private static final List<Berth> BERTHS = new ArrayList<>();
    private static Engine engine;

    @BeforeContainer
    static void start() throws IOException {
        engine =
                new Engine(
                        Stores.open(
                                Files.createTempDirectory("query").resolve("data.db"),
                                Clock.systemUTC()),
                        Clock.systemUTC());
        engine.drafts()
                .push(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/berth.yaml",
                                BERTH,
                                "m/objects/pier.yaml",
                                PIER,
                                "m/objects/basin.yaml",
                                BASIN),
                        Actor.SYSTEM);
        engine.releases().release("", Releases.Accepted.NOTHING, Actor.SYSTEM);
        List.of("Inner", "Outer").forEach(name -> store("Basin", Map.of("name", name)));
        BASINS.forEach((pier, basin) ->
                store(
                        "Pier",
                        basin.isEmpty()
                                ? Map.of("code", pier)
                                : Map.of("code", pier, "basin", basin)));
        var random = new Random(11);
        for (int i = 0; i < RECORDS; i++) {
            var berth =
                    new Berth(
                            "B-%02d".formatted(i),
                            random.nextInt(3) == 0
                                    ? null
                                    : random.nextBoolean() ? "port" : "starboard",
                            random.nextInt(4) == 0
                                    ? null
                                    : BigDecimal.valueOf(random.nextInt(30), 1),
                            random.nextInt(4) == 0
                                    ? null
                                    : LocalDate.of(2026, 1, 1 + random.nextInt(9)),
                            random.nextInt(4) == 0 ? null : random.nextBoolean(),
                            random.nextInt(4) == 0
                                    ? null
                                    : List.of("N", "S", "W").get(random.nextInt(3)));
            BERTHS.add(berth);
            store(berth);
        }
    }

    private static void store(Berth berth) {
        var values = new HashMap<String, Object>();
        values.put("code", berth.code());
        values.put("side", berth.side());
        values.put("depth", berth.depth());
        values.put("since", berth.since() == null ? null : berth.since().toString());
        values.put("open", berth.open());
        values.put("pier", berth.pier());
        store("Berth", values);
    }

    private static void store(String object, Map<String, ?> values) {
        var outcome =
                engine.records()
                        .write(live -> {
                            var type = live.release().object(object);
                            return new Request(
                                    new RecordCommand.Create(
                                            type,
                                            live.release().everythingOf(type),
                                            new HashMap<String, Object>(values)),
                                    Actor.SYSTEM,
                                    "test",
                                    false);
                        });
        assertThat(outcome).isInstanceOf(Outcome.Done.class);
    }

    @AfterContainer
    static void stop() {
        engine.close();
    }

    private static Test atom(Random random) {
        var depth = BigDecimal.valueOf(random.nextInt(300), 2);
        var day = LocalDate.of(2026, 1, 1 + random.nextInt(9));
        var date = "date(\"" + day + "\")";
        return switch (random.nextInt(13)) {
            case 0 -> new Test("side = \"port\"", berth -> "port".equals(berth.side()));
            case 1 -> new Test("side != \"port\"", berth -> !"port".equals(berth.side()));
            case 2 ->
                    new Test(
                            "depth >= " + depth,
                            berth ->
                                    berth.depth() == null
                                            ? null
                                            : berth.depth().compareTo(depth) >= 0);
            case 3 ->
                    new Test(
                            "depth < " + depth,
                            berth ->
                                    berth.depth() == null
                                            ? null
                                            : berth.depth().compareTo(depth) < 0);
            case 4 ->
                    new Test(
                            "since <= " + date,
                            berth -> berth.since() == null ? null : !berth.since().isAfter(day));
            case 5 -> new Test("since = null", berth -> berth.since() == null);
            case 6 -> new Test("open", Berth::open);
            case 7 -> {
                var end = List.of("3", "", "B-12", "more than the code").get(random.nextInt(4));
                yield new Test(
                        "ends with(code, \"" + end + "\")", berth -> berth.code().endsWith(end));
            }
            case 8 -> new Test("pier = \"N\"", berth -> "N".equals(berth.pier()));
            case 9 -> new Test("pier != \"S\"", berth -> !"S".equals(berth.pier()));
            case 10 -> {
                var basin = List.of("Inner", "Outer", "Nowhere").get(random.nextInt(3));
                yield new Test(
                        "pier.basin = \"" + basin + "\"", berth -> basin.equals(berth.basin()));
            }
            case 11 -> new Test("pier.basin != \"Inner\"", berth -> !"Inner".equals(berth.basin()));
            default -> new Test("side in (\"port\", \"starboard\")", berth -> berth.side() != null);
        };
    }

    private static Test condition(Random random, int depth) {
        if (depth == 0 || random.nextInt(3) == 0) {
            return atom(random);
        }
        var left = condition(random, depth - 1);
        var right = condition(random, depth - 1);
        return switch (random.nextInt(3)) {
            case 0 ->
                    new Test(
                            "(%s) and (%s)".formatted(left.text(), right.text()),
                            berth -> {
                                var a = left.truth().apply(berth);
                                var b = right.truth().apply(berth);
                                return Boolean.FALSE.equals(a) || Boolean.FALSE.equals(b)
                                        ? Boolean.FALSE
                                        : a == null || b == null ? null : Boolean.TRUE;
                            });
            case 1 ->
                    new Test(
                            "(%s) or (%s)".formatted(left.text(), right.text()),
                            berth -> {
                                var a = left.truth().apply(berth);
                                var b = right.truth().apply(berth);
                                return Boolean.TRUE.equals(a) || Boolean.TRUE.equals(b)
                                        ? Boolean.TRUE
                                        : a == null || b == null ? null : Boolean.FALSE;
                            });
            default ->
                    new Test(
                            "not(%s)".formatted(left.text()),
                            berth -> {
                                var a = left.truth().apply(berth);
                                return a == null ? null : !a;
                            });
        };
    }

    private static List<String> found(Condition condition, List<Sort> sorts, int limit) {
        return Pages.keys(engine, "Berth", condition, sorts, limit);
    }

    @Property(tries = 300)
    void aConditionKeepsTheSameRecordsInSqlAsInMemory(@ForAll long seed) {
        var test = condition(new Random(seed), 3);
        Condition condition =
                engine.records()
                        .read((live, session) -> {
                            var checked =
                                    ConditionChecker.check(
                                            test.text(),
                                            live.release()
                                                    .recordType(live.release().object("Berth")),
                                            Clock.systemUTC());
                            return ((Checked.Accepted) checked).condition();
                        });
        Predicate<Berth> kept = berth -> Boolean.TRUE.equals(test.truth().apply(berth));

        assertThat(found(condition, List.of(), 500))
                .as(test.text())
                .containsExactlyElementsOf(BERTHS.stream().filter(kept).map(Berth::code).toList());
    }

    @Property(tries = 60)
    void pagesOfAnySizeAndOrderGiveEveryRecordOnce(@ForAll long seed) {
        var random = new Random(seed);
        boolean down = random.nextBoolean();
        boolean downToo = random.nextBoolean();
        var fields = engine.live().release().object("Berth").fields();
        var sorts =
                List.of(
                        new Sort(FieldPath.of(fields.get("side")), down),
                        new Sort(FieldPath.of(fields.get("depth")), downToo));
        Comparator<Berth> bySide =
                Comparator.comparing(Berth::side, Comparator.nullsFirst(Comparator.naturalOrder()));
        Comparator<Berth> byDepth =
                Comparator.comparing(
                        Berth::depth, Comparator.nullsFirst(Comparator.naturalOrder()));
        var order =
                (down ? bySide.reversed() : bySide)
                        .thenComparing(downToo ? byDepth.reversed() : byDepth)
                        .thenComparing(Berth::code);

        assertThat(found(null, sorts, 1 + random.nextInt(20)))
                .containsExactlyElementsOf(BERTHS.stream().sorted(order).map(Berth::code).toList());
    }
}
