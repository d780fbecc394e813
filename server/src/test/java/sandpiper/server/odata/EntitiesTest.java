package sandpiper.server.odata;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.apache.olingo.commons.api.format.ContentType;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.engine.record.RecordView;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Format;
import sandpiper.server.problem.ProblemException;

/** Records as entities: how they are written, and that what was read can be sent again. */
class EntitiesTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml",
                                    "package: yard\nversion: 1.0\n",
                                    "yard/objects/job.yaml",
                                    """
                                    object: Job
                                    key: [place, number]
                                    fields:
                                      place: { type: text }
                                      number: { type: integer }
                                      size: { type: integer }
                                      price: { type: decimal, scale: 2 }
                                      due: { type: date }
                                      took: { type: duration }
                                      urgent: { type: boolean }
                                      crane: { type: reference, to: Crane }
                                      twice: { type: integer, formula: size * 2 }
                                    parts:
                                      steps:
                                        fields:
                                          what: { type: text }
                                          cost: { type: decimal, scale: 1 }
                                    """,
                                    "yard/objects/crane.yaml",
                                    """
                                    object: Crane
                                    key: code
                                    fields: { code: { type: text }, reach: { type: integer } }
                                    """,
                                    "yard/objects/note.yaml",
                                    "object: Note\nfields: { text: { type: text } }\n",
                                    "yard/services/desk.yaml",
                                    """
                                    service: desk
                                    version: 1
                                    protocols: [odata]
                                    resources:
                                      jobs:
                                        object: Job
                                        create: { fields: [place, number, size, price, due, took, urgent, crane, steps(what, cost)] }
                                        update: { fields: [size, price, due, took, urgent, crane, steps(what, cost)] }
                                        read: { fields: [all, crane.reach] }
                                      cranes:
                                        object: Crane
                                        read: { fields: [all] }
                                      notes:
                                        object: Note
                                        create: { fields: [text] }
                                        read: { fields: [all] }
                                    """))
                    .release()
                    .orElseThrow();

    private static final UUID ID = UUID.fromString("018f4e00-0000-7000-8000-000000000001");
    private static final ServiceModel MODEL =
            new ServiceModel(RELEASE, RELEASE.service("desk", 1).orElseThrow());
    private static final EntityShape JOBS = MODEL.shape("jobs");

    private static FieldTree tree(String resource) {
        return RELEASE.service("desk", 1).orElseThrow().resources().stream()
                .filter(one -> one.name().equals(resource))
                .findFirst()
                .orElseThrow()
                .tree(Operation.READ)
                .orElseThrow();
    }

    /** A job with values by the names of its fields, in stored form. */
    private static RecordView job(Map<String, @Nullable Object> values) {
        var tree = tree("jobs");
        var all = new @Nullable Object[tree.paths().size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = values.get(tree.paths().get(i).written());
        }
        var items =
                List.of(
                        new RecordView.ItemView(1, new Object[] {"cut", 15L}),
                        new RecordView.ItemView(4, new @Nullable Object[] {null, null}));
        return new RecordView(7, ID, 3, false, null, all, List.of(items));
    }

    private static Map<String, @Nullable Object> stored() {
        var values = new HashMap<String, @Nullable Object>();
        values.put("place", "N'1/2");
        values.put("number", 12L);
        values.put("size", 9_007_199_254_740_991L);
        values.put("price", 1_250L);
        values.put("due", 20_000L);
        values.put("took", 5_400_000_000L);
        values.put("urgent", 1L);
        values.put("crane", new RecordView.Link("K2", null));
        values.put("crane.reach", 30L);
        values.put("twice", 18L);
        return values;
    }

    private static Map<String, @Nullable Object> written(
            String type, Map<String, @Nullable Object> values) {
        var tree = tree("jobs");
        var wanted =
                Projection.of(JOBS, tree, null, null).withItems(java.util.Set.of("steps"), tree);
        var writer = new EntityWriter("jobs", Format.of(ContentType.parse(type)), wanted, tree);
        return new ODataReads.Found(wanted, job(values), writer, "").entity();
    }

    @Test
    void anEntityHasItsVersionAsTagAndItsValuesPlain() {
        var entity = written("application/json", stored());

        assertThat(entity)
                .containsEntry("@odata.etag", "\"3\"")
                .containsEntry("id", ID.toString())
                .containsEntry("version", 3L)
                .containsEntry("place", "N'1/2")
                .containsEntry("number", 12L)
                .containsEntry("price", new BigDecimal("12.50"))
                .containsEntry("due", "2024-10-04")
                .containsEntry("took", "PT1H30M")
                .containsEntry("urgent", true)
                .containsEntry("craneKey", "K2");
        assertThat(entity.get("steps"))
                .isEqualTo(
                        List.of(
                                entry("line", 1L, "what", "cut", "cost", new BigDecimal("1.5")),
                                entry("line", 4L, "what", null, "cost", null)));
    }

    private static Map<String, @Nullable Object> entry(@Nullable Object... namesAndValues) {
        var made = new LinkedHashMap<String, @Nullable Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            made.put(String.valueOf(namesAndValues[i]), namesAndValues[i + 1]);
        }
        return made;
    }

    @Test
    void withoutMetadataThereAreValuesAlone() {
        assertThat(written("application/json;odata.metadata=none", stored()).keySet())
                .noneMatch(name -> name.contains("@"));
    }

    @Test
    void withAllMetadataEachValueSaysWhatJsonDoesNot() {
        var entity = written("application/json;odata.metadata=full", stored());

        assertThat(entity)
                .containsEntry("@odata.type", "#Desk.v1.Job")
                .containsEntry("number@odata.type", "#Int64")
                .containsEntry("price@odata.type", "#Decimal")
                .containsEntry("due@odata.type", "#Date")
                .containsEntry("took@odata.type", "#Duration")
                .containsEntry("id@odata.type", "#Guid")
                .doesNotContainKeys("place@odata.type", "urgent@odata.type");
        assertThat(String.valueOf(entity.get("steps@odata.navigationLink"))).endsWith("/steps");
    }

    @Test
    void aKeyOfSeveralFieldsIsEscapedInItsAddress() {
        var entity = written("application/json;odata.metadata=full", stored());

        assertThat(entity.get("@odata.id")).isEqualTo("jobs(place='N''1%2F2',number=12)");
    }

    @Test
    void numbersAreTextsForThoseWhoWouldLoseDigits() {
        var entity = written("application/json;IEEE754Compatible=true", stored());

        assertThat(entity)
                .containsEntry("size", "9007199254740991")
                .containsEntry("price", "12.50")
                .containsEntry("version", "3")
                .containsEntry("urgent", true);
        assertThat(String.valueOf(entity.get("steps"))).contains("line=1", "cost=1.5");
    }

    @Test
    void whatIsEmptyIsNull() {
        var values = stored();
        values.keySet().removeIf(name -> !List.of("place", "number").contains(name));
        var entity = written("application/json", values);

        assertThat(entity)
                .containsEntry("size", null)
                .containsEntry("due", null)
                .containsEntry("craneKey", null);
    }

    @Test
    void aRecordWithoutAKeyIsKnownByItsId() {
        var tree = tree("notes");
        var view = new RecordView(1, ID, 1, false, null, new Object[] {"hello"}, List.of());
        var wanted = Projection.plain(MODEL.shape("notes"), tree);
        var writer =
                new EntityWriter(
                        "notes", Format.of(ContentType.parse("application/json")), wanted, tree);

        assertThat(writer.address(view)).isEqualTo("notes(" + ID + ")");
    }

    private static EntityReader reader(boolean numbersAsText) {
        return new EntityReader(
                numbersAsText, (one, link) -> link.replaceAll(".*\\('(.*)'\\)", "$1"));
    }

    private static Map<String, @Nullable Object> read(
            boolean creating, @Nullable Object... namesAndValues) {
        return reader(false).values(JOBS, entry(namesAndValues), creating);
    }

    @ParameterizedTest
    @CsvSource({"application/json, false", "application/json;IEEE754Compatible=true, true"})
    void whatWasReadCanBeSentAgain(String type, boolean numbersAsText) {
        var entity = written(type, stored());

        var changed = reader(numbersAsText).values(JOBS, entity, false);
        var made = reader(numbersAsText).values(JOBS, entity, true);

        assertThat(changed.keySet())
                .containsExactlyInAnyOrder(
                        "size", "price", "due", "took", "urgent", "crane", "steps");
        assertThat(made.keySet()).contains("place", "number").doesNotContain("id", "twice");
        assertThat(changed).containsEntry("crane", "K2").containsEntry("due", "2024-10-04");
        assertThat(String.valueOf(changed.get("price"))).isEqualTo("12.50");
        assertThat(changed.get("size")).hasToString("9007199254740991");
        assertThat(changed.get("size")).isInstanceOf(Number.class);
        var steps = (List<?>) changed.get("steps");
        assertThat(steps).hasSize(2);
        assertThat(((Map<?, ?>) steps.getFirst()).get("line")).hasToString("1");
    }

    @Test
    void aReferenceIsGivenByItsKeyOrByALink() {
        assertThat(read(true, "craneKey", "K2")).containsExactly(Map.entry("crane", "K2"));
        assertThat(read(true, "crane@odata.bind", "cranes('K3')"))
                .containsExactly(Map.entry("crane", "K3"));
        assertThat(read(true, "crane@bind", "cranes('K4')"))
                .containsExactly(Map.entry("crane", "K4"));
        assertThat(read(false, "crane@odata.bind", null)).containsEntry("crane", null);
    }

    @Test
    void aRecordBehindAReferenceIsNotWrittenWithIt() {
        assertThatThrownBy(() -> read(true, "crane", Map.of("reach", 4L)))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("give its key as craneKey, or a link as crane@bind");
    }

    @Test
    void whatIsNotKnownIsSaidWithTheNearest() {
        assertThatThrownBy(() -> read(true, "prize", 4L)).hasMessageContaining("price");
        assertThatThrownBy(() -> read(true, "crain@odata.bind", "cranes('K')"))
                .hasMessageContaining("crane");
        assertThatThrownBy(() -> read(true, "steps", List.of(Map.of("wat", 1L))))
                .hasMessageContaining("what");
    }

    @Test
    void otherAnnotationsAreTheSendersOwn() {
        assertThat(read(true, "@odata.type", "#Desk.v1.Job", "due@my.note", "soon")).isEmpty();
    }

    @Test
    void theKeyOfARecordThatIsThereIsNotChanged() {
        assertThat(read(false, "place", "S", "size", 1L)).containsOnlyKeys("size");
        assertThat(read(true, "place", "S", "size", 1L)).containsOnlyKeys("place", "size");
    }

    @Test
    void lineItemsThatAreNoneGoOnAsTheyCame() {
        var odd = new ArrayList<Object>(List.of("text", Map.of("what", "cut")));

        assertThat(read(true, "steps", odd).get("steps"))
                .isEqualTo(List.of("text", Map.of("what", "cut")));
        assertThat(read(true, "steps", "none")).containsEntry("steps", "none");
    }

    @Test
    void aTextThatIsNoNumberGoesOnAsItCame() {
        assertThat(reader(true).values(JOBS, entry("size", "many"), true))
                .containsEntry("size", "many");
        assertThat(read(true, "size", "12")).containsEntry("size", "12");
    }
}
