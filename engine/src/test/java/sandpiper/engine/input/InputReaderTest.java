package sandpiper.engine.input;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.engine.Yard;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;

/** Every wrong shape, with its place. */
class InputReaderTest {
    private static final Yard YARD =
            new Yard(
                    """
                    object: Job
                    key: code
                    fields:
                      code: { type: text, length: 5 }
                      size: { type: integer }
                      price: { type: decimal, scale: 2 }
                      due: { type: date }
                      urgent: { type: boolean }
                      crane: { type: reference, to: Crane }
                      lock: { type: reference, to: Lock }
                      title: { type: text, localised: true }
                    parts:
                      steps:
                        fields:
                          what: { type: text }
                          minutes: { type: integer }
                    """,
                    """
                    object: Crane
                    key: number
                    fields:
                      number: { type: integer }
                    """,
                    """
                    object: Lock
                    key: [canal, place]
                    fields:
                      canal: { type: text }
                      place: { type: integer }
                    """);

    private static RecordInput read(Map<String, @Nullable Object> values) {
        return read(values, false);
    }

    private static RecordInput read(Map<String, @Nullable Object> values, boolean textual) {
        var job = YARD.object("Job");
        return InputReader.read(YARD.release, job, YARD.release.everythingOf(job), values, textual);
    }

    private static List<String> faults(RecordInput input) {
        return input.faults().stream()
                .map(fault -> fault.path() + " " + fault.code() + " " + fault.message())
                .toList();
    }

    private static Field field(String name) {
        return YARD.object("Job").fields().get(name);
    }

    private static @Nullable InputValue one(String name, @Nullable Object plain) {
        var values = new HashMap<String, @Nullable Object>();
        values.put(name, plain);
        return read(values).values().get(field(name));
    }

    @Test
    void valuesAreReadAsTheirTypesStoreThem() {
        assertThat(one("size", 7L)).isEqualTo(new InputValue.Value(7L));
        assertThat(one("urgent", true)).isEqualTo(new InputValue.Value(1L));
        assertThat(one("code", "A")).isEqualTo(new InputValue.Value("A"));
        assertThat(one("due", "2026-05-01")).isInstanceOf(InputValue.Value.class);
    }

    @Test
    void nothingAndBlanksEmptyAField() {
        assertThat(one("size", null)).isEqualTo(new InputValue.Empty());
        assertThat(one("code", "  ")).isEqualTo(new InputValue.Empty());
        assertThat(one("title", Map.of())).isEqualTo(new InputValue.Empty());
    }

    @Test
    void aBlankIsNoNumberAndNoTruthButInAFile() {
        assertThat(read(Map.of("size", "", "urgent", " ")).faults()).hasSize(2);
        assertThat(read(Map.of("size", "", "urgent", " "), true).values().values())
                .containsOnly(new InputValue.Empty());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    size   | many        | SP42
                    due    | tomorrow    | SP42
                    urgent | yes         | SP42
                    code   | much too long | SP42
                    """)
    void whatHasAnotherFormIsSaidAtItsField(String name, String text, String code) {
        var input = read(Map.of(name, text));

        assertThat(input.values()).isEmpty();
        assertThat(input.faults()).hasSize(1);
        assertThat(input.faults().getFirst().path()).hasToString(name);
        assertThat(input.faults().getFirst().code().id()).startsWith(code.substring(0, 2));
        assertThat(input.faults().getFirst().message()).startsWith(field(name).label());
    }

    @Test
    void allThatIsWrongIsFound() {
        assertThat(read(Map.of("size", "x", "due", "y", "urgent", "z")).faults()).hasSize(3);
    }

    @Test
    void aNumberMayComeAsTextFromAFileAlone() {
        assertThat(read(Map.of("size", "7")).faults()).hasSize(1);

        var fromFile = read(Map.of("size", "7"), true);
        assertThat(fromFile.faults()).isEmpty();
        assertThat(fromFile.values()).containsEntry(field("size"), new InputValue.Value(7L));
    }

    @Test
    void aNameThatIsNoneIsAnsweredWithTheNearest() {
        assertThat(faults(read(Map.of("prise", 1L))))
                .singleElement()
                .asString()
                .contains("prise", "Job has no field \"prise\" here. Did you mean price?");
        assertThat(faults(read(Map.of("zzzzzz", 1L))))
                .singleElement()
                .asString()
                .contains("There can be code, size, price");
    }

    @Test
    void whatTheServiceKeepsOfEveryRecordIsLeftOut() {
        assertThat(read(Map.of("id", "x", "version", 3L)).faults()).isEmpty();
    }

    @Test
    void whatMayNotBeWrittenHereSaysSo() {
        var job = YARD.object("Job");
        var code = YARD.release.everythingOf(job).paths().getFirst();
        var input =
                InputReader.read(
                        YARD.release,
                        job,
                        new FieldTree(List.of(code), List.of()),
                        Map.of("size", 7L),
                        false);

        assertThat(faults(input))
                .singleElement()
                .asString()
                .endsWith("Size cannot be written here.");
    }

    @Test
    void aReferenceIsAKeyInAnyOfItsForms() {
        assertThat(one("crane", "7")).isEqualTo(new InputValue.Target("7"));
        assertThat(one("crane", 7L)).isEqualTo(new InputValue.Target("7"));
        assertThat(one("crane", Map.of("key", "7"))).isEqualTo(new InputValue.Target("7"));
        assertThat(one("crane", Map.of("number", 7L))).isEqualTo(new InputValue.Target("7"));
        assertThat(one("lock", Map.of("canal", "Old", "place", 2L)))
                .isEqualTo(new InputValue.Target("Old,2"));
    }

    @Test
    void aReferenceThatIsNoKeySaysWhatOneIs() {
        assertThat(faults(read(Map.of("lock", Map.of("canal", "Old")))))
                .singleElement()
                .asString()
                .endsWith("Lock must be the key of a Lock (canal, place) as text.");
        assertThat(faults(read(Map.of("lock", 7L)))).hasSize(1);
        assertThat(faults(read(Map.of("crane", true)))).hasSize(1);
    }

    @Test
    void linesAreReadInTheirOrderWithTheirNumbers() {
        var input =
                read(
                        Map.of(
                                "steps",
                                List.of(
                                        Map.of("line", 3L, "what", "lift"),
                                        Map.of("what", "lower", "minutes", 5L))));

        var steps = input.parts().get(YARD.object("Job").parts().getFirst());
        assertThat(steps).extracting(RecordInput.Item::line).containsExactly(3L, null);
        assertThat(steps.get(1).values()).hasSize(2);
    }

    @Test
    void noLinesAtAllEmptyThePart() {
        var values = new HashMap<String, @Nullable Object>();
        values.put("steps", null);

        assertThat(read(values).parts()).containsValue(List.of());
        assertThat(read(Map.of()).parts()).isEmpty();
    }

    @Test
    void linesOfAnotherShapeAreSaidAtTheirPlaces() {
        assertThat(faults(read(Map.of("steps", "x"))))
                .singleElement()
                .asString()
                .endsWith("Steps must be a list.");
        var items = new ArrayList<@Nullable Object>(List.of("x", Map.of("minutes", "y")));
        items.add(Map.of("line", "first"));
        items.add(Map.of("howLong", 1L));
        var values = new HashMap<String, @Nullable Object>();
        values.put("steps", items);

        assertThat(read(values).faults())
                .extracting(fault -> fault.path().toString())
                .containsExactlyInAnyOrder(
                        "steps.0", "steps.1.minutes", "steps.2.line", "steps.3.howLong");
    }

    @Test
    void thereIsAnEndToLines() {
        var many = Collections.nCopies(1_001, Map.of("what", "x"));

        assertThat(faults(read(Map.of("steps", many))))
                .singleElement()
                .asString()
                .endsWith("Steps may have 1,000 items in one request, but has 1,001.");
        assertThat(read(Map.of("steps", many.subList(0, 1_000))).faults()).isEmpty();
    }

    @Test
    void aKeyAmongValuesIsFoundWhenItIsWhole() {
        var lock = YARD.object("Lock");

        assertThat(InputReader.keyAmong(lock, Map.of("canal", "Old", "place", 2L)))
                .isEqualTo("Old,2");
        assertThat(InputReader.keyAmong(lock, Map.of("canal", "Old", "place", "2")))
                .isEqualTo("Old,2");
        assertThat(InputReader.keyAmong(lock, Map.of("canal", "Old"))).isNull();
        assertThat(InputReader.keyAmong(lock, Map.of("canal", "Old", "place", "x"))).isNull();
    }
}
