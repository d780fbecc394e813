package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;
import sandpiper.model.type.ParsedValue;

/**
 * Every type of a field becoming every other, over records that have values: either the release is
 * refused with a reason and nothing has changed, or each record has what the new type reads from
 * the old text. Nothing in between.
 */
class TypePairsTest {
    /** Types as they are defined, each with values that it takes. */
    private static final Map<String, List<Object>> TYPES = new LinkedHashMap<>();

    static {
        TYPES.put("{ type: text, length: 40 }", List.of("true", "Open", "a b", "12", "2026-02-03"));
        TYPES.put("{ type: text, length: 4 }", List.of("true", "Open", "12"));
        TYPES.put("{ type: text, length: 40, pattern: '[0-9]+' }", List.of("12", "007"));
        TYPES.put("{ type: text, length: 40, localised: true }", List.of("Open", "a b"));
        TYPES.put("{ type: text, multiline: true }", List.of("two\nlines", "Open"));
        TYPES.put("{ type: integer }", List.of(0L, -7L, 9_007_199_254_740_991L));
        TYPES.put("{ type: decimal, scale: 1 }", decimals("0", "-0.1", "12.5"));
        TYPES.put("{ type: decimal, scale: 4 }", decimals("0", "-0.0001", "12.5", "3"));
        TYPES.put("{ type: percent, scale: 2 }", decimals("0", "12.5", "100"));
        TYPES.put("{ type: amount, currency: EUR }", decimals("0", "-0.01", "19.90"));
        TYPES.put("{ type: amount, currency: SEK }", decimals("7", "19.90"));
        TYPES.put("{ type: boolean }", List.of(true, false));
        TYPES.put("{ type: date }", List.of("2026-02-03", "1969-12-31"));
        TYPES.put("{ type: time }", List.of("23:59", "00:00"));
        TYPES.put("{ type: date-time }", List.of("2026-02-03T10:00:00Z"));
        TYPES.put("{ type: duration }", List.of("PT36H", "PT0S"));
        TYPES.put("{ type: choice, choices: [Open, Shut, '12'] }", List.of("Open", "12"));
        TYPES.put("{ type: choice, choices: [Open] }", List.of("Open"));
        TYPES.put("{ type: uuid }", List.of("018f4e00-0000-7000-8000-000000000001"));
        TYPES.put("{ type: email }", List.of("pier@marina.example"));
    }

    @TempDir Path folder;

    private static List<Object> decimals(String... texts) {
        return Stream.of(texts).<Object>map(BigDecimal::new).toList();
    }

    private static String thing(String type) {
        return "object: Thing\nkey: code\nfields:\n  code: { type: text, length: 8 }\n  value: "
                + type
                + "\n";
    }

    private static Map<String, String> files(String type) {
        return Map.of(
                "marina/package.yaml",
                "package: marina\nversion: 1.0\nlanguages: [en, de]\n",
                "marina/objects/o00.yaml",
                thing(type));
    }

    @TestFactory
    Stream<DynamicTest> everyTypeBecomesEveryOtherOrSaysWhyNot() {
        return TYPES.keySet().stream()
                .map(from ->
                        DynamicTest.dynamicTest(
                                from,
                                () -> {
                                    int place = List.copyOf(TYPES.keySet()).indexOf(from);
                                    for (var to : TYPES.keySet()) {
                                        if (!from.equals(to)) {
                                            check(place + "-" + to.hashCode(), from, to);
                                        }
                                    }
                                }));
    }

    private void check(String name, String from, String to) throws Exception {
        var own = java.nio.file.Files.createDirectory(folder.resolve(name));
        try (var marina = new Harness(own).release(files(from))) {
            var values = TYPES.getOrDefault(from, List.of());
            for (int i = 0; i < values.size(); i++) {
                assertThat(marina.create("Thing", "code", "T" + i, "value", values.get(i)))
                        .as("%s takes %s", from, values.get(i))
                        .isInstanceOf(Outcome.Done.class);
            }
            marina.create("Thing", "code", "none");
            var before = values(marina);
            var texts = texts(marina);

            var result = release(marina, to);

            switch (result) {
                case Result.Refused(var preview, _) -> {
                    assertThat(preview.obstacles()).as("%s to %s", from, to).isNotEmpty();
                    assertThat(values(marina)).as("%s to %s", from, to).isEqualTo(before);
                }
                case Result.Released _ -> {
                    var read = read(marina, texts);
                    assertThat(values(marina)).as("%s to %s", from, to).isEqualTo(read);
                }
            }
        }
    }

    private static Result release(Harness marina, String type) {
        marina.engine.drafts().push(files(type), Actor.SYSTEM);
        return marina.engine
                .releases()
                .release("pair", new Releases.Accepted(true, true), Actor.SYSTEM);
    }

    private static Map<String, @Nullable Object> values(Harness marina) {
        var values = new HashMap<String, @Nullable Object>();
        for (var key : marina.keys("Thing", "code != \"\"")) {
            values.put(key, marina.show("Thing", key).get("value"));
        }
        return values;
    }

    /** What is stored, as the type writes it. */
    private static Map<String, @Nullable String> texts(Harness marina) {
        var texts = new HashMap<String, @Nullable String>();
        marina.engine
                .records()
                .read((live, session) -> {
                    var type = live.release().object("Thing");
                    var field = type.fields().get("value");
                    for (var key : new ArrayList<>(marina.keys("Thing", "code != \"\""))) {
                        var view =
                                marina.engine
                                        .records()
                                        .find(
                                                live,
                                                session,
                                                type,
                                                key,
                                                live.release().everythingOf(type))
                                        .orElseThrow();
                        var stored = view.values()[field.index()];
                        texts.put(key, stored == null ? null : field.type().writeText(stored));
                    }
                    return true;
                });
        return texts;
    }

    /** What the new type makes of texts, in plain form. */
    private static Map<String, @Nullable Object> read(
            Harness marina, Map<String, @Nullable String> texts) {
        var field = marina.engine.live().release().object("Thing").fields().get("value");
        var read = new HashMap<String, @Nullable Object>();
        texts.forEach((key, text) -> {
            if (text == null) {
                read.put(key, null);
                return;
            }
            var parsed = field.type().readText(text);
            assertThat(parsed)
                    .as("%s of %s", text, field.type())
                    .isInstanceOf(ParsedValue.Taken.class);
            read.put(
                    key,
                    sandpiper.engine.read.PlainRecords.write(
                            field, ((ParsedValue.Taken) parsed).value()));
        });
        return read;
    }
}
