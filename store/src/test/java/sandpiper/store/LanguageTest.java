package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.command.Outcome;
import sandpiper.model.type.AskedLanguages;

/** Logic, filters and messages see a text in the language of who asks; what is stored does not. */
class LanguageTest {
    private static final Map<String, String> FILES =
            Map.of(
                    "shop/package.yaml",
                    "package: shop\nversion: 1\nlanguages: [en, de, fr]\n",
                    "shop/objects/ware.yaml",
                    """
                    object: Ware
                    key: code
                    fields:
                      code: { type: text, required: true }
                      name: { type: text, localised: true }
                      kin: { type: reference, to: Ware, inverse: kins }
                      seen: { type: text }
                      note: { type: text, readOnlyWhen: name = "gesperrt" }
                      shown: { type: text, formula: name }
                      german: { type: text, formula: name.de }
                      ofKin: { type: text, formula: kin.name.de }
                      germanKins: { type: integer, formula: 'count(kins[name.de != null])' }
                      tins: { type: integer, formula: 'count(kins[name = "tin"])' }
                    checks:
                      - that: name != "schlecht"
                        say: '"{name}" is no name'
                    rules:
                      look:
                        on: change of note
                        then: set seen = name
                    functions:
                      call:
                        external: true
                        parameters: { to: { type: text } }
                        body: |
                          set name.fr = to
                          set name = "tin"
                      clear:
                        external: true
                        body: set name.de = null
                      ask:
                        external: true
                        returns: { type: integer }
                        body: return count(Ware[name = "Dose"])
                    """);

    @TempDir Path folder;
    private Harness shop;

    @BeforeEach
    void open() throws Exception {
        shop = new Harness(folder).release(FILES);
        shop.create("Ware", "code", "A", "name", Map.of("en", "tin", "de", "Dose"));
        shop.create("Ware", "code", "B", "name", Map.of("en", "box"), "kin", "A");
    }

    @AfterEach
    void close() {
        shop.close();
    }

    private Outcome asked(String language, String code, String field, @Nullable Object value) {
        return AskedLanguages.of(language).in(() -> shop.change("Ware", code, field, value));
    }

    @Test
    void rulesSeeTheLanguageOfWhoAsks() {
        asked("de-CH, en;q=0.5", "A", "note", "x");
        assertThat(shop.text("Ware", "A", "seen")).isEqualTo("Dose");
        asked("fr", "A", "note", "y");
        assertThat(shop.text("Ware", "A", "seen")).isEqualTo("tin");
        asked("de", "B", "note", "x");
        assertThat(shop.text("Ware", "B", "seen")).isEqualTo("box");
    }

    @Test
    void whatIsStoredIsTheSameWhoeverAsks() {
        assertThat(shop.text("Ware", "A", "shown")).isEqualTo("tin");
        asked("de", "A", "name", Map.of("en", "can", "de", "Kanne"));
        assertThat(shop.text("Ware", "A", "shown")).isEqualTo("can");
        assertThat(shop.text("Ware", "A", "german")).isEqualTo("Kanne");
        assertThat(shop.text("Ware", "B", "ofKin")).isEqualTo("Kanne");
        assertThat(shop.text("Ware", "A", "germanKins")).isEqualTo("0");
        asked("de", "B", "name", Map.of("en", "tin", "de", "Schachtel"));
        assertThat(shop.text("Ware", "A", "germanKins")).isEqualTo("1");
        assertThat(shop.text("Ware", "A", "tins")).isEqualTo("1");
        asked("de", "B", "name", Map.of("de", "tin", "en", "b"));
        assertThat(shop.text("Ware", "A", "tins")).isEqualTo("0");
    }

    @Test
    void checksAndTheirMessagesToo() {
        var german = Map.of("en", "bad", "de", "schlecht");
        assertThat(asked("en", "B", "name", german)).isInstanceOf(Outcome.Done.class);
        assertThat(Harness.messages(asked("de", "B", "note", "x")))
                .containsExactly("\"schlecht\" is no name");
        asked("en", "B", "name", Map.of("de", "gesperrt"));
        assertThat(asked("en", "B", "note", "x")).isInstanceOf(Outcome.Done.class);
        assertThat(asked("de", "B", "note", "y")).isInstanceOf(Outcome.Refused.class);
    }

    @Test
    void aLanguageIsSetByItself() {
        shop.call("Ware", "A", "call", "to", "boîte");
        assertThat(shop.show("Ware", "A").get("name"))
                .isEqualTo(Map.of("en", "tin", "de", "Dose", "fr", "boîte"));
        shop.call("Ware", "A", "clear");
        assertThat(shop.show("Ware", "A").get("name"))
                .isEqualTo(Map.of("en", "tin", "fr", "boîte"));
    }

    @Test
    void filtersAndOrderToo() {
        assertThat(found("de", "name = \"Dose\"")).containsExactly("A");
        assertThat(found("en", "name = \"Dose\"")).isEmpty();
        assertThat(found("de", "name = \"box\"")).containsExactly("B");
        assertThat(found("en", "name.de = \"Dose\"")).containsExactly("A");
        assertThat(found("en", "kin.name.de = \"Dose\"")).containsExactly("B");
        assertThat(found("en", "name.de = null")).containsExactly("B");
        assertThat(found("de", "kin.name = \"Dose\"")).containsExactly("B");
        assertThat(AskedLanguages.of("de").in(() -> ask())).hasToString("1");
        assertThat(ask()).hasToString("0");
    }

    private @Nullable Object ask() {
        return Harness.result(shop.call("Ware", "A", "ask"));
    }

    private List<String> found(String language, String filter) {
        return AskedLanguages.of(language).in(() -> shop.keys("Ware", filter));
    }
}
