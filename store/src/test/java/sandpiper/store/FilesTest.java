package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.store.Harness.messages;
import static sandpiper.store.Harness.values;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.port.FileStorage.Total;
import sandpiper.model.type.FileBytes;

/** Files with records whose key has two fields, and with their line items. */
class FilesTest {
    private static final String CLAIM =
            """
            object: Claim
            key: [year, number]
            removal: delete
            fields:
              year: { type: integer }
              number: { type: text, length: 8 }
              evidence: { type: file, required: true, accepts: [text/plain], largest: 40 }
              letter: { type: file }
              evidenceName: { type: text, length: 255, formula: evidence.name }
              evidenceSize: { type: integer, formula: evidence.size }
            parts:
              expenses:
                fields:
                  what: { type: text }
                  receipt: { type: file }
            checks:
              - name: letterIsShort
                that: letter = null or letter.size <= 30
                say: "{letter.name} is too long."
            functions:
              answer:
                body: |
                  set letter = evidence
            """;

    @TempDir Path folder;

    private Harness claims;

    @BeforeEach
    void begin() {
        claims = new Harness(folder).release(CLAIM);
    }

    @AfterEach
    void end() {
        claims.close();
    }

    private static Map<String, Object> file(String name, String content) {
        var file = new HashMap<String, Object>();
        file.put("name", name);
        file.put(
                "content",
                Base64.getEncoder().encodeToString(content.getBytes(StandardCharsets.UTF_8)));
        return file;
    }

    private static String digest(String content) {
        return new FileBytes(content.getBytes(StandardCharsets.UTF_8)).sha256();
    }

    private void create(String number, String content, Object... more) {
        var all = new ArrayList<@Nullable Object>();
        all.addAll(List.of("year", 2026L, "number", number, "evidence", file("e.txt", content)));
        all.addAll(List.of(more));
        assertThat(claims.create("Claim", all.toArray())).isInstanceOf(Outcome.Done.class);
    }

    private @Nullable String content(String text) {
        return claims.look(session ->
                claims.storage
                        .files()
                        .bytes(session, digest(text))
                        .map(bytes -> new String(bytes.array(), StandardCharsets.UTF_8))
                        .orElse(null));
    }

    private static Object member(@Nullable Object file, String name) {
        return file instanceof Map<?, ?> map ? String.valueOf(map.get(name)) : "";
    }

    @Test
    void whatIsInAFileIsKeptOnceAndItsNameWithEachRecord() {
        create("A", "seen", "letter", file("l.txt", "seen"));
        create("B", "seen", "expenses", List.of(values("receipt", file("r.txt", "paid"))));

        assertThat(content("seen")).isEqualTo("seen");
        assertThat(content("paid")).isEqualTo("paid");
        assertThat(claims.engine.records().files()).isEqualTo(new Total(2, 8));
        assertThat(claims.show("Claim", "2026,A"))
                .containsEntry("evidenceName", "e.txt")
                .containsEntry("evidenceSize", 4L);
        assertThat(member(claims.show("Claim", "2026,A").get("letter"), "name")).isEqualTo("l.txt");
    }

    @Test
    void whatNoRecordHasAnyMoreIsLetGo() {
        create("A", "first", "expenses", List.of(values("receipt", file("r.txt", "paid"))));
        create("B", "second");
        claims.change("Claim", "2026,A", "evidence", file("e.txt", "other"), "expenses", List.of());
        claims.remove("Claim", "2026,B");
        assertThat(content("first")).isNotNull();

        claims.engine.forgetOld();

        assertThat(content("first")).isNull();
        assertThat(content("second")).isNull();
        assertThat(content("paid")).isNull();
        assertThat(content("other")).isEqualTo("other");
        assertThat(claims.engine.records().files()).isEqualTo(new Total(1, 5));
    }

    @Test
    void withoutContentItIsTheFileThatIsThere() {
        create("A", "mine");
        create("B", "yours");
        var mine = claims.show("Claim", "2026,A").get("evidence");
        var yours = claims.show("Claim", "2026,B").get("evidence");

        var renamed = new HashMap<String, Object>();
        ((Map<?, ?>) mine).forEach((name, one) -> renamed.put(String.valueOf(name), one));
        renamed.put("name", "new.txt");
        assertThat(claims.change("Claim", "2026,A", "evidence", renamed))
                .isInstanceOf(Outcome.Done.class);
        assertThat(claims.text("Claim", "2026,A", "evidenceName")).isEqualTo("new.txt");

        assertThat(messages(claims.change("Claim", "2026,A", "evidence", yours)))
                .containsExactly(
                        "Evidence comes without its content, and the record does not have this"
                                + " file; send the content in base64.");
        assertThat(messages(claims.change("Claim", "2026,A", "letter", mine))).hasSize(1);
    }

    @Test
    void otherBytesAreAnotherFileWhateverWasSaidOfTheOne() {
        create("A", "mine");

        claims.change("Claim", "2026,A", "letter", file("l.txt", "Ahoy"));
        assertThat(messages(claims.change("Claim", "2026,A", "letter", file("p", "%PDF-1.7"))))
                .isEmpty();

        assertThat(member(claims.show("Claim", "2026,A").get("letter"), "type"))
                .isEqualTo("application/pdf");
    }

    @Test
    void checksAndFormulasAskForNameAndSize() {
        create("A", "mine");

        assertThat(
                        messages(
                                claims.change(
                                        "Claim",
                                        "2026,A",
                                        "letter",
                                        file("long.txt", "x".repeat(31)))))
                .containsExactly("long.txt is too long.");
        assertThat(
                        claims.evaluate(
                                "Claim", "2026,A", "evidence.type + \" \" + string(letter = null)"))
                .isEqualTo("text/plain true");
    }

    @Test
    void filtersAskWhetherThereIsOneAndWhatItIsCalled() {
        create("A", "mine", "letter", file("l.txt", "Ahoy"));
        create("B", "yours");

        assertThat(claims.keys("Claim", "letter = null")).hasSize(1);
        assertThat(claims.keys("Claim", "letter != null")).hasSize(1);
        assertThat(claims.keys("Claim", "letter.name = \"l.txt\"")).hasSize(1);
        assertThat(claims.keys("Claim", "evidence.size > 4")).hasSize(1);
        assertThat(claims.keys("Claim", "evidenceSize > 3")).hasSize(2);
        assertThat(claims.keys("Claim", "letter.name != \"l.txt\"")).hasSize(1);
        assertThat(claims.keys("Claim", "starts with(letter.type, \"text/\")")).hasSize(1);
        assertThat(claims.keys("Claim", "evidence.sha256 = \"%s\"".formatted(digest("mine"))))
                .hasSize(1);
        assertThat(claims.evaluate("Claim", "2026,A", "count(Claim[letter.size = 4])"))
                .isEqualTo("1");
    }

    @Test
    void aFunctionGivesOneFieldTheFileOfAnother() {
        create("A", "mine");

        assertThat(claims.call("Claim", "2026,A", "answer")).isInstanceOf(Outcome.Success.class);
        claims.change("Claim", "2026,A", "evidence", file("e.txt", "other"));
        claims.engine.forgetOld();

        assertThat(content("mine")).isEqualTo("mine");
        assertThat(member(claims.show("Claim", "2026,A").get("letter"), "name")).isEqualTo("e.txt");
    }

    @Test
    void aTrialNeedsNoContentAndKeepsNone() {
        var supposed =
                Map.of(
                        "name",
                        "e.txt",
                        "type",
                        "text/plain",
                        "size",
                        12L,
                        "sha256",
                        "0".repeat(64));

        var preview = claims.preview("Claim", "year", 1L, "number", "A", "evidence", supposed);

        assertThat(preview.faults()).isEmpty();
        assertThat(preview.values()).containsEntry("evidenceSize", 12L);
        assertThat(claims.engine.records().files()).isEqualTo(new Total(0, 0));
    }

    @Test
    void whatARecordThatIsRefusedBringsIsNotKept() {
        claims.create(
                "Claim", "year", 1L, "evidence", file("e.txt", "x"), "letter", file("l", "%PDF"));

        assertThat(claims.engine.records().files()).isEqualTo(new Total(0, 0));
    }

    @Test
    void filesOfAFieldThatComesBackAreThere() {
        create("A", "mine", "letter", file("l.txt", "Ahoy"));
        claims.release(
                CLAIM.replace("  letter: { type: file }\n", "")
                        .replace(
                                "that: letter = null or letter.size <= 30",
                                "that: evidence.size < 50")
                        .replace("{letter.name}", "It")
                        .replace("set letter = evidence", "let size = evidence.size"));
        claims.engine.forgetOld();
        assertThat(content("Ahoy")).as("kept aside").isNotNull();

        claims.engine
                .releases()
                .takeBack(
                        1,
                        new Releases.Order("", new Releases.Accepted(true, true), false),
                        Actor.SYSTEM);

        assertThat(member(claims.show("Claim", "2026,A").get("letter"), "sha256"))
                .isEqualTo(digest("Ahoy"));
    }

    @Tag("sqlite")
    @Test
    void aCopyHasTheFilesOfItsMoment() {
        create("A", "mine");
        var copy = folder.resolve("copy.db");

        claims.engine.backUp(copy);

        try (var storage = SqliteStorage.open(copy, Clock.systemUTC());
                var session = storage.snapshot()) {
            assertThat(storage.files().bytes(session, digest("mine"))).isPresent();
        }
    }
}
