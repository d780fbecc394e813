package sandpiper.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.ReleasePreview.Result;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.example.Examples;
import sandpiper.model.Diagnostic;

/** Records that come with packages, from release to release. */
class SeedsTest {
    private static final String PART =
            """
            object: Part
            key: [maker, number]
            removal: delete
            fields:
              maker: { type: text, required: true }
              number: { type: integer, required: true }
              title: { type: text, localised: true, multiline: true }
              weight: { type: decimal, scale: 2 }
              since: { type: date }
              inside: { type: reference, to: Part }
              heavy: { type: boolean, formula: weight > 10 }
            checks:
              - name: light
                that: weight = null or weight < 100
                say: "{number} weighs {weight}."
                at: weight
            """;
    private static final String ROWS =
            """
            maker,number,title.en,title.de,weight,since,inside
            "A, B",1,"Bolt, long",Bolzen,1.50,2026-02-01,"A\\, B,2"
            "A, B",2,Box,,12,,
            C,1,"two
            lines",,,,
            """;

    @TempDir Path folder;
    private Harness yard;

    @BeforeEach
    void begin() {
        yard = new Harness(folder);
    }

    @AfterEach
    void end() {
        yard.close();
    }

    private static Map<String, String> files(String part, String rows) {
        var files = new HashMap<String, String>();
        files.put("yard/package.yaml", "package: yard\nversion: 1\nlanguages: [en, de]\n");
        files.put("yard/objects/part.yaml", part);
        if (!rows.isEmpty()) {
            files.put("yard/data/Part.csv", rows);
        }
        return files;
    }

    private Map<String, Object> part(String key) {
        return yard.show("Part", key);
    }

    private List<String> wrong(String rows) {
        yard.engine.drafts().push(files(PART, rows), Actor.SYSTEM);
        return yard.engine.drafts().check().errors().stream()
                .map(one -> "%d %s".formatted(one.line(), one.message()))
                .toList();
    }

    @Test
    void theyAreMadeByTheReleaseThatBringsThem() {
        yard.engine.drafts().push(files(PART, ROWS), Actor.SYSTEM);
        assertThat(yard.engine.releases().preview().changes())
                .contains("Records of Part: 3 are brought.");
        yard.release(files(PART, ROWS));

        assertThat(part("A\\, B,1").toString())
                .contains("Bolt, long", "Bolzen", "1.50", "2026-02-01", "A\\, B,2");
        assertThat(part("A\\, B,2")).containsEntry("heavy", true);
        assertThat(part("C,1").toString()).contains("two\nlines");
    }

    @Test
    void whatPeopleDidStaysTheirs() {
        yard.release(files(PART, ROWS));
        yard.change("Part", "A\\, B,2", "weight", new BigDecimal("20"));
        yard.remove("Part", "C,1");
        yard.create("Part", "maker", "D", "number", 9L, "weight", new BigDecimal("5"));

        yard.release(
                files(
                        PART,
                        ROWS.replace("1.50", "2.50").replace(",12,", ",13,").replace("two", "2")
                                + "D,9,Own,,7,,\nE,1,,,,,\n"));

        assertThat(part("A\\, B,1").get("weight")).hasToString("2.50");
        assertThat(part("A\\, B,2").get("weight")).hasToString("20.00");
        assertThat(part("D,9").get("weight")).hasToString("5.00");
        assertThat(part("E,1")).isNotNull();
        assertThat(yard.engine.releases().preview().files()).isEmpty();
        yard.release(files(PART + "label: Piece\n", ROWS));
        assertThat(part("A\\, B,1").get("weight")).hasToString("1.50");
        // Taken away by people, it stays away.
        assertThatThrownBy(() -> part("C,1")).isInstanceOf(NoSuchElementException.class);
    }

    @Test
    void aValueThatIsNoLongerGivenIsEmpty() {
        yard.release(files(PART, ROWS));

        yard.release(files(PART, ROWS.replace("1.50", "")));

        assertThat(part("A\\, B,1").get("weight")).isNull();
    }

    @Test
    void aRowThatIsRefusedKeepsTheReleaseFromBeingDone() {
        yard.engine.drafts().push(files(PART, ROWS.replace(",12,", ",120,")), Actor.SYSTEM);

        var result =
                yard.engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM);

        assertThat(result).isInstanceOf(Result.Refused.class);
        assertThat(((Result.Refused) result).message())
                .contains("nothing was released", "yard/data/Part.csv:3: 2 weighs 120.");
        assertThat(yard.engine.live().number()).isZero();
        assertThat(yard.engine.live().release().objects()).isEmpty();
    }

    @Test
    void anEarlierReleaseHasItsRecordsAgain() {
        yard.release(files(PART, ROWS));
        yard.release(files(PART, ROWS.replace("1.50", "3")));

        yard.engine
                .releases()
                .takeBack(
                        1,
                        new Releases.Order("", new Releases.Accepted(true, true), false),
                        Actor.SYSTEM);

        assertThat(part("A\\, B,1").get("weight")).hasToString("1.50");
    }

    @Test
    void whatCannotBeReadIsToldWithItsLine() {
        assertThat(wrong(ROWS)).isEmpty();
        assertThat(wrong(ROWS.replace("weight,", "wieght,")))
                .containsExactly("1 Part has no field \"wieght\".");
        assertThat(wrong(ROWS.replace("title.en", "title")))
                .containsExactly("1 title has a text for each language: title.en and so on.");
        assertThat(wrong(ROWS.replace(",inside", ",heavy")))
                .containsExactly("1 heavy is worked out and is not given.");
        assertThat(wrong(ROWS.replace("C,1", "C,"))).containsExactly("4 This row has no key.");
        assertThat(wrong(ROWS + "C,1,,,,,\n"))
                .containsExactly("6 The key \"C,1\" stands in line 4 already.");
        assertThat(wrong(ROWS + "C,1\n"))
                .containsExactly("6 This row has 2 values, and the first line 7 names.");
        assertThat(wrong(ROWS.replace("maker,", "since,")))
                .contains("1 The column \"since\" is there twice.");
        assertThat(wrong("\"")).singleElement().asString().startsWith("1 This is no CSV");
        assertThat(wrong("\n")).containsExactly("1 The first line has the names of fields.");
        var files = files(PART, "");
        files.put("yard/data/Prat.csv", "a\n");
        yard.engine.drafts().push(files, Actor.SYSTEM);
        assertThat(yard.engine.drafts().check().errors())
                .extracting(Diagnostic::suggestion)
                .contains("Part");
    }

    @Test
    void rowsMayReferToEachOtherInACircle() {
        yard.release(
                files(
                        PART,
                        """
                        maker,number,inside
                        C,1,"C,2"
                        C,2,"C,3"
                        C,3,"C,1"
                        C,4,"C,4"
                        """));

        assertThat(part("C,1").toString()).contains("C,2");
        assertThat(part("C,3").toString()).contains("C,1");
        assertThat(part("C,4").toString()).contains("inside=C,4");
    }

    @Test
    void aReferenceToNothingIsToldAsItWasWritten() {
        yard.engine
                .drafts()
                .push(files(PART, "maker,number,inside\nC,1,\"C,9\"\nC,2,\"C,1\"\n"), Actor.SYSTEM);

        var result =
                yard.engine.releases().release("", new Releases.Accepted(true, true), Actor.SYSTEM);

        assertThat(((Result.Refused) result).message())
                .contains("yard/data/Part.csv:2: Inside: there is no Part \"C,9\".");
    }

    @Test
    void examplesBeginWithoutThem() {
        var files = files(PART, ROWS);
        files.put(
                "yard/requirements/r.yaml",
                """
                requirements:
                  R1:
                    text: A part is made.
                    examples:
                      same:
                        when: { create: Part, values: { maker: C, number: 1 } }
                        then: { values: { number: 1 } }
                """);
        assertThat(new Examples(SqliteStorage::temporary).run(files))
                .singleElement()
                .satisfies(one -> assertThat(one.problems()).isEmpty());
    }
}
