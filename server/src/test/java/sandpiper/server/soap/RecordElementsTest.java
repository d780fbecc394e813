package sandpiper.server.soap;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.record.RecordView.ItemView;
import sandpiper.engine.record.RecordView.Link;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.server.service.RecordWriter;
import sandpiper.server.soap.xml.XmlText;

/** How records stand in a message: every value as an element, nothing for what is empty. */
class RecordElementsTest {
    private static final UUID ID = UUID.fromString("01890000-0000-7000-8000-000000000001");
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1.0\nlanguages: [en, de]\n",
                                    "yard/objects/crane.yaml",
                                    "object: Crane\nkey: code\nfields: { code: { type: text,"
                                            + " length: 9 }, name: { type: text, length: 30 } }\n",
                                    "yard/objects/job.yaml",
                                    """
                                    object: Job
                                    key: [place, number]
                                    fields:
                                      place: { type: text, length: 9 }
                                      number: { type: integer }
                                      before: { type: reference, to: Job }
                                      crane: { type: reference, to: Crane }
                                      price: { type: amount }
                                      words: { type: text, length: 40, localised: true }
                                      done: { type: boolean }
                                      took: { type: duration }
                                    parts:
                                      steps: { fields: { what: { type: text, length: 40 }, cost: { type: decimal, scale: 2 } } }
                                    """))
                    .release()
                    .orElseThrow();

    private static FieldPath path(String written) {
        return FieldPath.resolve(RELEASE, RELEASE.object("Job"), List.of(written.split("\\.")))
                .orElseThrow();
    }

    private static FieldTree tree(String... paths) {
        return new FieldTree(
                List.of(paths).stream().map(RecordElementsTest::path).toList(), List.of());
    }

    private static RecordView view(List<List<ItemView>> parts, @Nullable Object... values) {
        return new RecordView(1, ID, 4, false, null, values, parts);
    }

    private static String written(FieldTree tree, RecordView view) {
        var xml = new XmlText().open("job");
        new RecordWriter(tree).write(new XmlSink(xml), view);
        return xml.close().toString();
    }

    private static String around(String members) {
        return "<job><id>%s</id><version>4</version>%s</job>".formatted(ID, members);
    }

    @Test
    void whatIsEmptyHasNoElement() {
        assertThat(
                        written(
                                tree("place", "number", "price", "done"),
                                view(List.of(), "N", null, null, 0L)))
                .isEqualTo(around("<place>N</place><done>false</done>"));
    }

    @Test
    void aReferenceIsItsKeyUnlessMoreOfItIsShown() {
        assertThat(written(tree("crane"), view(List.of(), new Link("K1", "Long arm"))))
                .isEqualTo(around("<crane>K1</crane>"));
        assertThat(
                        written(
                                tree("crane", "crane.name"),
                                view(List.of(), new Link("K1", "Long arm"), "Long arm")))
                .isEqualTo(around("<crane><key>K1</key><name>Long arm</name></crane>"));
    }

    @Test
    void aRecordOfTheSameObjectIsShownInsideItself() {
        assertThat(
                        written(
                                tree("number", "before", "before.number", "before.crane.name"),
                                view(List.of(), 7L, new Link("N,6", null), 6L, "Short arm")))
                .isEqualTo(
                        around(
                                "<number>7</number><before><key>N,6</key><number>6</number>"
                                        + "<crane><name>Short arm</name></crane></before>"));
    }

    @Test
    void behindAReferenceThatIsEmptyThereIsNothing() {
        assertThat(
                        written(
                                tree("before", "before.number", "before.crane.name"),
                                view(List.of(), null, null, null)))
                .isEqualTo(around(""));
    }

    @Test
    void lineItemsStandInTheirListEvenWhereThereIsNone() {
        var part = RELEASE.object("Job").parts().getFirst();
        var paths = new ArrayList<FieldPath>();
        for (Field field : part.fields()) {
            paths.add(FieldPath.of(field));
        }
        var tree =
                new FieldTree(List.of(path("place")), List.of(new FieldTree.PartTree(part, paths)));
        var items =
                List.of(
                        new ItemView(1, new Object[] {"cut", 150L}),
                        new ItemView(3, new @Nullable Object[] {null, null}));

        assertThat(written(tree, view(List.of(items), "N")))
                .isEqualTo(
                        around(
                                "<place>N</place><steps><item><line>1</line><what>cut</what>"
                                    + "<cost>1.50</cost></item><item><line>3</line></item></steps>"));
        assertThat(written(tree, view(List.of(List.of()), "N")))
                .isEqualTo(around("<place>N</place><steps></steps>"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a < b & c > d | a &lt; b &amp; c > d",
                "a]]>b | a]]&gt;b",
                "\"quoted\" 'twice' | \"quoted\" 'twice'",
                "Grüße, 港 | Grüße, 港"
            })
    void textsStayTexts(String text, String escaped) {
        assertThat(written(tree("place"), view(List.of(), text)))
                .isEqualTo(around("<place>%s</place>".formatted(escaped)));
    }

    @Test
    void whatXmlHasNoPlaceForIsReplacedAndAReturnIsKept() {
        assertThat(written(tree("place"), view(List.of(), "a\u0001b\uFFFFc\ud83d\udea4d\re\tf")))
                .isEqualTo(around("<place>a\uFFFDb\uFFFDc\ud83d\udea4d&#13;e\tf</place>"));
        assertThat(written(tree("place"), view(List.of(), "half \ud83d pair")))
                .isEqualTo(around("<place>half \uFFFD pair</place>"));
    }
}
