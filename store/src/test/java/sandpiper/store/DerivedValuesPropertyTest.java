package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.ShrinkingMode;
import org.jspecify.annotations.Nullable;

/**
 * Whatever happens to records, in whatever order: every derived value is what its formula comes to
 * when it is worked out from scratch.
 */
class DerivedValuesPropertyTest {
    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              capacity: { type: integer, default: 100 }
              drawn: { type: integer, formula: 'sum(berths.stays[state = "Alongside"].vessel.power)' }
              busy: { type: boolean, formula: drawn > 0.5 * capacity }
              berthCount: { type: integer, formula: count(berths) }
              longest: { type: decimal, formula: max(berths.length) }
              strain: { type: decimal, scale: 4, formula: 'if count(berths) = 0 then 0 else (sum(berths.stays[state = "Alongside"].vessel.power) + count(berths.stays[state = "Alongside"])) / count(berths)' }
            """;
    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              pier: { type: reference, to: Pier, required: true, inverse: berths }
              length: { type: decimal }
              crowded: { type: boolean, formula: pier.busy }
            """;
    private static final String VESSEL =
            """
            object: Vessel
            key: code
            fields:
              code: { type: text, length: 10, required: true }
              power: { type: integer }
              nights: { type: integer, formula: sum(stays.nights) }
              newest: { type: date, formula: max(stays.departure) }
              first: { type: date, formula: 'min(stays[nights > 2].arrival)' }
              longStays: { type: integer, formula: 'count(stays[nights > 3])' }
              spent: { type: amount, formula: sum(stays.total) }
              share: { type: decimal, scale: 4, formula: 'if count(stays) = 0 then 0 else count(stays[nights > 3]) / count(stays)' }
            """;
    private static final String STAY =
            """
            object: Stay
            key: number
            fields:
              number: { type: text, length: 10, required: true }
              vessel: { type: reference, to: Vessel, inverse: stays }
              berth: { type: reference, to: Berth, inverse: stays }
              state: { type: text, length: 20, default: Requested }
              arrival: { type: date, required: true }
              departure: { type: date, required: true }
              nights: { type: integer, formula: (departure - arrival) / @"P1D" }
              onPier: { type: text, length: 10, formula: berth.pier.code }
              total: { type: amount, formula: sum(charges.gross) + nights * 10 }
            parts:
              charges:
                fields:
                  quantity: { type: decimal }
                  price: { type: amount }
                  net: { type: amount, formula: quantity * price }
                  gross: { type: amount, formula: net * 1.19 }
            """;
    private static final Map<String, List<String>> DERIVED =
            Map.of(
                    "Pier", List.of("drawn", "busy", "berthCount", "longest"),
                    "Berth", List.of("crowded"),
                    "Vessel", List.of("nights", "newest", "first", "longStays", "spent"),
                    "Stay", List.of("nights", "onPier", "total"));

    private final Map<String, List<String>> keys = new LinkedHashMap<>();
    private final List<String> retired = new ArrayList<>();

    @Property(tries = 25, shrinking = ShrinkingMode.OFF)
    void areWhatTheyWouldBeFromScratch(@ForAll long seed) throws IOException {
        var folder = Files.createTempDirectory("sandpiper-derived");
        try (var harness = new Harness(folder).release(PIER, BERTH, VESSEL, STAY)) {
            var random = new Random(seed);
            for (int step = 0; step < 40; step++) {
                act(harness, random, step);
            }

            assertAllRight(harness, seed);
        } finally {
            delete(folder);
        }
    }

    private static void delete(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            for (var file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }

    private void act(Harness harness, Random random, int step) {
        switch (random.nextInt(12)) {
            case 0 -> made(harness, "Pier", step, "capacity", (long) random.nextInt(60));
            case 1 -> made(harness, "Vessel", step, "power", power(random));
            case 2, 3 ->
                    made(
                            harness,
                            "Berth",
                            step,
                            "pier",
                            one("Pier", random),
                            "length",
                            (long) random.nextInt(20));
            case 4, 5, 6 -> stay(harness, random, step);
            case 7 -> changed(harness, "Vessel", random, "power", power(random));
            case 8 -> changed(harness, "Berth", random, "pier", one("Pier", random));
            case 9 ->
                    changed(
                            harness,
                            "Stay",
                            random,
                            "vessel",
                            one("Vessel", random),
                            "berth",
                            one("Berth", random),
                            "state",
                            state(random));
            case 10 ->
                    changed(
                            harness,
                            "Stay",
                            random,
                            "departure",
                            "2026-05-%02d".formatted(10 + random.nextInt(10)),
                            "charges",
                            charges(random));
            default -> comeOrGo(harness, random);
        }
    }

    private static @Nullable Object power(Random random) {
        return random.nextInt(4) == 0 ? null : (Object) (long) random.nextInt(32);
    }

    private static String state(Random random) {
        return random.nextBoolean() ? "Alongside" : "Departed";
    }

    private static List<Map<String, Object>> charges(Random random) {
        var charges = new ArrayList<Map<String, Object>>();
        for (int i = random.nextInt(4); i > 0; i--) {
            charges.add(
                    Map.of(
                            "quantity",
                            (long) random.nextInt(9),
                            "price",
                            (long) random.nextInt(9)));
        }
        return charges;
    }

    private @Nullable String one(String object, Random random) {
        var all = keys.getOrDefault(object, List.of());
        var usable = all.stream().filter(key -> !retired.contains(key)).toList();
        return usable.isEmpty() ? null : usable.get(random.nextInt(usable.size()));
    }

    private void made(
            Harness harness, String object, int step, @Nullable Object... namesAndValues) {
        var key = object.charAt(0) + String.valueOf(step);
        var values = new ArrayList<@Nullable Object>(List.of("code", key));
        values.addAll(java.util.Arrays.asList(namesAndValues));
        if (Harness.messages(harness.create(object, values.toArray())).isEmpty()) {
            keys.computeIfAbsent(object, _ -> new ArrayList<>()).add(key);
        }
    }

    private void stay(Harness harness, Random random, int step) {
        var key = "S" + step;
        int day = 1 + random.nextInt(9);
        var outcome =
                harness.create(
                        "Stay",
                        "number",
                        key,
                        "vessel",
                        one("Vessel", random),
                        "berth",
                        one("Berth", random),
                        "state",
                        state(random),
                        "arrival",
                        "2026-05-%02d".formatted(day),
                        "departure",
                        "2026-05-%02d".formatted(day + random.nextInt(8)),
                        "charges",
                        charges(random));
        if (Harness.messages(outcome).isEmpty()) {
            keys.computeIfAbsent("Stay", _ -> new ArrayList<>()).add(key);
        }
    }

    private void changed(
            Harness harness, String object, Random random, @Nullable Object... values) {
        var key = one(object, random);
        if (key != null) {
            harness.change(object, key, values);
        }
    }

    private void comeOrGo(Harness harness, Random random) {
        if (!retired.isEmpty() && random.nextBoolean()) {
            var back = retired.remove(random.nextInt(retired.size()));
            harness.restore(back.startsWith("S") ? "Stay" : "Berth", back);
            return;
        }
        var object = random.nextBoolean() ? "Stay" : "Berth";
        var key = one(object, random);
        if (key != null) {
            harness.remove(object, key);
            retired.add(key);
        }
    }

    private void assertAllRight(Harness harness, long seed) {
        var release = harness.engine.live().release();
        for (var object : DERIVED.entrySet()) {
            for (var key : keys.getOrDefault(object.getKey(), List.of())) {
                if (retired.contains(key)) {
                    continue;
                }
                for (var field : object.getValue()) {
                    var formula =
                            release.object(object.getKey()).fields().get(field).logic().formula();
                    assertThat(harness.evaluate(object.getKey(), key, field))
                            .as("%s %s.%s after seed %d", object.getKey(), key, field, seed)
                            .isEqualTo(
                                    harness.evaluate(
                                            object.getKey(), key, String.valueOf(formula)));
                }
            }
        }
    }
}
