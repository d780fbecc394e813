package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
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
import sandpiper.model.release.Field;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TextType;

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
        TYPES.put(
                "{ type: text, length: 40, localised: true, pattern: '[A-Za-z ]+' }",
                List.of(Map.of("en", "Open", "de", "Offen")));
        TYPES.put(
                "{ type: text, length: 30, localised: true }",
                List.of(Map.of("en", "Open", "de", "Offen 7")));
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
        var note = Map.of("name", "note.txt", "content", "QWhveSE=");
        TYPES.put(
                "{ type: file }",
                List.of(note, Map.of("name", "lease.pdf", "content", "JVBERi0xLjcK")));
        TYPES.put("{ type: file, accepts: [text/plain], largest: 5 }", List.of(note));
        TYPES.put("{ type: file, accepts: [image/*, text/plain] }", List.of(note));
        TYPES.put("{ type: email }", List.of("pier@marina.example"));
    }

    @TempDir Path folder;

    private static List<Object> decimals(String... texts) {
        return Stream.of(texts).<Object>map(BigDecimal::new).toList();
    }

    private static String thing(int place, String type) {
        return """
        object: Thing%d
        key: code
        fields:
          code: { type: text, length: 8 }
          value: %s
        """
                .formatted(place, type);
    }

    /** An object for each type that shall come of one type, so that they share an instance. */
    private static Map<String, String> files(List<String> types) {
        var files = new HashMap<String, String>();
        files.put("marina/package.yaml", "package: marina\nversion: 1.0\nlanguages: [en, de]\n");
        for (int i = 0; i < types.size(); i++) {
            files.put("marina/objects/o%02d.yaml".formatted(i), thing(i, types.get(i)));
        }
        return files;
    }

    @TestFactory
    Stream<DynamicTest> everyTypeBecomesEveryOtherOrSaysWhyNot() {
        return TYPES.keySet().stream()
                .map(from -> DynamicTest.dynamicTest(from, () -> checkAll(from)));
    }

    private void checkAll(String from) throws Exception {
        var all = List.copyOf(TYPES.keySet());
        var types = new ArrayList<>(Collections.nCopies(all.size(), from));
        var own = Files.createDirectory(folder.resolve("of" + all.indexOf(from)));
        try (var marina = new Harness(own).release(files(types))) {
            for (int i = 0; i < all.size(); i++) {
                if (!all.get(i).equals(from)) {
                    fill(marina, "Thing" + i, from);
                    types.set(i, all.get(i));
                    if (!check(marina, "Thing" + i, types, from + " to " + all.get(i))) {
                        types.set(i, from);
                    }
                }
            }
        }
    }

    private static void fill(Harness marina, String object, String type) {
        var values = TYPES.getOrDefault(type, List.of());
        for (int i = 0; i < values.size(); i++) {
            assertThat(marina.create(object, "code", "T" + i, "value", values.get(i)))
                    .as("%s takes %s", type, values.get(i))
                    .isInstanceOf(Outcome.Done.class);
        }
        marina.create(object, "code", "none");
    }

    /** Whether it became the other type, with values as they must be then. */
    private static boolean check(Harness marina, String object, List<String> types, String pair) {
        var before = values(marina, object);
        var texts = texts(marina, object);
        marina.engine.drafts().push(files(types), Actor.SYSTEM);
        var result =
                marina.engine
                        .releases()
                        .release("pair", new Releases.Accepted(true, true), Actor.SYSTEM);
        return switch (result) {
            case Result.Refused(var preview, _) -> {
                assertThat(preview.obstacles()).as(pair).isNotEmpty();
                assertThat(values(marina, object)).as(pair).isEqualTo(before);
                yield false;
            }
            case Result.Released _ -> {
                assertThat(values(marina, object))
                        .as(pair)
                        .isEqualTo(read(marina, object, before, texts));
                yield true;
            }
        };
    }

    private static Map<String, @Nullable Object> values(Harness marina, String object) {
        var values = new HashMap<String, @Nullable Object>();
        for (var key : marina.keys(object, "code != \"\"")) {
            values.put(key, marina.show(object, key).get("value"));
        }
        return values;
    }

    /** What is stored, as the type writes it. */
    private static Map<String, @Nullable String> texts(Harness marina, String object) {
        var texts = new HashMap<String, @Nullable String>();
        marina.engine
                .records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var field = type.fields().get("value");
                    for (var key : new ArrayList<>(marina.keys(object, "code != \"\""))) {
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
            Harness marina,
            String object,
            Map<String, @Nullable Object> before,
            Map<String, @Nullable String> texts) {
        var field = marina.engine.live().release().object(object).fields().get("value");
        var read = new HashMap<String, @Nullable Object>();
        texts.forEach((key, text) -> {
            if (text == null) {
                read.put(key, null);
                return;
            }
            if (before.get(key) instanceof Map<?, ?> languages
                    && field.type() instanceof TextType type
                    && type.isLocalised()) {
                languages.values().forEach(one -> taken(field, String.valueOf(one)));
                read.put(key, languages);
                return;
            }
            read.put(
                    key,
                    sandpiper.engine.read.PlainRecords.write(field, taken(field, text).value()));
        });
        return read;
    }

    private static ParsedValue.Taken taken(Field field, String text) {
        var parsed = field.type().readText(text);
        assertThat(parsed).as("%s of %s", text, field.type()).isInstanceOf(ParsedValue.Taken.class);
        return (ParsedValue.Taken) parsed;
    }
}
