package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.RecordView.ItemView;
import sandpiper.engine.record.RecordView.Link;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.server.json.JsonText;

/** Writing straight from a record's values gives what its plain form says. */
class RecordWriterTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "marina/package.yaml",
                                    "package: marina\nversion: 1.0\nlanguages: [en, de]\n",
                                    "marina/objects/vessel.yaml",
                                    "object: Vessel\nkey: code\nfields: { code: { type: text,"
                                            + " length: 9 }, name: { type: text, length: 30 } }\n",
                                    "marina/objects/stay.yaml",
                                    """
                                    object: Stay
                                    key: number
                                    fields:
                                      number: { type: text, length: 9 }
                                      vessel: { type: reference, to: Vessel }
                                      arrival: { type: date }
                                      rate: { type: amount }
                                      open: { type: boolean }
                                      note: { type: text, length: 40, localised: true }
                                      remarks: { type: text, length: 40 }
                                    parts:
                                      charges: { fields: { what: { type: text, length: 9 }, net: { type: decimal, scale: 3 } } }
                                    """))
                    .release()
                    .orElseThrow();
    private static final ObjectType STAY = RELEASE.object("Stay");

    private static FieldPath path(String... names) {
        var steps = new java.util.ArrayList<sandpiper.model.release.Field>();
        var at = STAY;
        for (var name : names) {
            steps.add(at.fields().get(name));
            at = name.equals("vessel") ? RELEASE.object("Vessel") : at;
        }
        return new FieldPath(steps);
    }

    private static RecordView view(List<List<ItemView>> parts, @Nullable Object... values) {
        return new RecordView(
                1,
                UUID.fromString("01890000-0000-7000-8000-000000000001"),
                3,
                false,
                null,
                values,
                parts);
    }

    /** The same by way of plain values. */
    private static Map<String, @Nullable Object> plain(FieldTree tree, RecordView view) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.putAll(PlainRecords.of(tree, view));
        return plain;
    }

    private static String written(FieldTree tree, RecordView view) {
        return JsonText.text(to -> new RecordWriter(tree).write(to, view));
    }

    @Test
    void fieldsBehindAReferenceStandWithItsKey() {
        var tree =
                new FieldTree(
                        List.of(path("number"), path("vessel"), path("vessel", "name")), List.of());
        var view = view(List.of(), "S-1", new Link("GH-1", "Sea Pink"), "Sea Pink");

        assertThat(written(tree, view))
                .isEqualTo(
                        """
                        {"id":"01890000-0000-7000-8000-000000000001","version":3,"number":"S-1","vessel":{"key":"GH-1","name":"Sea Pink"}}\
                        """)
                .isEqualTo(JsonText.write(plain(tree, view)));
    }

    @Test
    void onlyWhatIsBehindAReferenceMayBeChosen() {
        var tree = new FieldTree(List.of(path("vessel", "name")), List.of());

        assertThat(written(tree, view(List.of(), "Sea Pink")))
                .endsWith("\"vessel\":{\"name\":\"Sea Pink\"}}")
                .isEqualTo(JsonText.write(plain(tree, view(List.of(), "Sea Pink"))));
    }

    @Test
    void anEmptyReferenceIsNullWhateverWasChosenBehindIt() {
        var withKey = new FieldTree(List.of(path("vessel"), path("vessel", "name")), List.of());
        var without = new FieldTree(List.of(path("vessel", "name")), List.of());

        for (var tree : List.of(withKey, without)) {
            var view = view(List.of(), new @Nullable Object[tree.paths().size()]);
            assertThat(written(tree, view))
                    .endsWith("\"vessel\":null}")
                    .isEqualTo(JsonText.write(plain(tree, view)));
        }
    }

    @Test
    void whatIsEmptyBehindAReferenceThatIsThereStaysAMember() {
        var tree = new FieldTree(List.of(path("vessel"), path("vessel", "name")), List.of());
        var view = view(List.of(), new Link("GH-1", null), null);

        assertThat(written(tree, view))
                .endsWith("\"vessel\":{\"key\":\"GH-1\",\"name\":null}}")
                .isEqualTo(JsonText.write(plain(tree, view)));
    }

    @Test
    void everyTypeAndEveryEmptyValueIsWrittenAsItsPlainForm() {
        var tree = FieldTree.everythingOf(STAY);
        var full =
                view(
                        List.of(
                                List.of(
                                        new ItemView(1, new Object[] {"POWER", 1_500L}),
                                        new ItemView(2, new @Nullable Object[] {null, null}))),
                        "S-1",
                        new Link("GH-1", null),
                        20_000L,
                        1_234L,
                        1L,
                        new sandpiper.model.type.Localised(java.util.Arrays.asList("Mind", null)),
                        "a \"quoted\" ⛵");
        var empty = view(List.of(List.of()), new @Nullable Object[STAY.fields().size()]);

        assertThat(written(tree, full)).isEqualTo(JsonText.write(plain(tree, full)));
        assertThat(written(tree, empty)).isEqualTo(JsonText.write(plain(tree, empty)));
    }
}
