package sandpiper.engine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;

/** What depends on the clock is worked out on the way out, wherever in a record it stands. */
class OnReadFormulasTest {
    private static final String PIER =
            """
            object: Pier
            key: code
            fields:
              code: { type: text }
              built: { type: date }
              age: { type: integer, formula: (today() - built).days }
            """;

    private static final String BERTH =
            """
            object: Berth
            key: code
            fields:
              code: { type: text }
              pier: { type: reference, to: Pier }
              free: { type: date }
              wait: { type: integer, formula: (free - today()).days }
              soon: { type: boolean, formula: wait < 3 }
            parts:
              visits:
                fields:
                  on: { type: date }
                  ago: { type: integer, formula: (today() - on).days }
            """;

    private static final Instant NOW = Instant.parse("2026-05-11T12:00:00Z");

    private Yard yard;

    @BeforeEach
    void make() {
        yard = new Yard(PIER, BERTH);
        yard.create("Pier", "code", "N", "built", "2026-05-01");
        yard.create(
                "Berth",
                "code",
                "N-1",
                "pier",
                "N",
                "free",
                "2026-05-13",
                "visits",
                List.of(Map.of("on", "2026-05-10"), Map.of("on", "2026-05-01")));
        yard.create("Berth", "code", "N-2");
    }

    private FieldPath path(String... names) {
        return FieldPath.resolve(yard.release, yard.object("Berth"), List.of(names)).orElseThrow();
    }

    /** As the store reads records: with nothing where only the clock tells. */
    private List<RecordView> stored(FieldTree tree) {
        var views = new ArrayList<RecordView>();
        for (var record : yard.records.all(yard.object("Berth"))) {
            var parts = new ArrayList<List<RecordView.ItemView>>();
            for (var part : tree.parts()) {
                parts.add(
                        record.items().get(part.part().index()).stream()
                                .map(item ->
                                        new RecordView.ItemView(
                                                item.line(), new Object[part.paths().size()]))
                                .toList());
            }
            views.add(
                    new RecordView(
                            record.number(),
                            record.id(),
                            record.version(),
                            false,
                            null,
                            new Object[tree.paths().size()],
                            parts));
        }
        return views;
    }

    private List<RecordView> read(FieldTree tree) {
        return OnReadFormulas.in(
                yard.live, yard.transaction, NOW, yard.object("Berth"), tree, stored(tree));
    }

    @Test
    void ownFieldsAreWorkedOutAsOfNow() {
        var views = read(new FieldTree(List.of(path("wait"), path("soon")), List.of()));

        assertThat(views.get(0).values()).containsExactly(2L, 1L);
    }

    @Test
    void whatNothingIsKnownForIsEmpty() {
        var views = read(new FieldTree(List.of(path("wait"), path("pier", "age")), List.of()));

        assertThat(views.get(1).values()).containsExactly(null, null);
    }

    @Test
    void fieldsBehindReferencesAreThoseOfTheOtherRecord() {
        var views = read(new FieldTree(List.of(path("pier", "age")), List.of()));

        assertThat(views.get(0).values()).containsExactly(10L);
    }

    @Test
    void lineItemsAreEachWorkedOut() {
        var part = yard.object("Berth").part("visits").orElseThrow();
        var ago = FieldPath.of(part.fields().get("ago"));
        var views =
                read(new FieldTree(List.of(), List.of(new FieldTree.PartTree(part, List.of(ago)))));

        assertThat(views.get(0).parts().getFirst())
                .extracting(item -> item.values()[0])
                .containsExactly(1L, 10L);
        assertThat(views.get(1).parts().getFirst()).isEmpty();
    }

    @Test
    void whatIsStoredStaysAndLineItemsWithoutClockAreLeftAlone() {
        var part = yard.object("Berth").part("visits").orElseThrow();
        var on = FieldPath.of(part.fields().get("on"));
        var tree =
                new FieldTree(
                        List.of(path("code"), path("wait")),
                        List.of(new FieldTree.PartTree(part, List.of(on))));
        var stored = stored(tree);
        stored.getFirst().values()[0] = "N-1";

        var views =
                OnReadFormulas.in(
                        yard.live, yard.transaction, NOW, yard.object("Berth"), tree, stored);

        assertThat(views.getFirst().values()).containsExactly("N-1", 2L);
        assertThat(views.getFirst().parts().getFirst())
                .isSameAs(stored.getFirst().parts().getFirst());
    }

    @Test
    void withoutAnySuchFieldNothingIsLookedUp() {
        var tree = new FieldTree(List.of(path("code"), path("free")), List.of());
        var stored = stored(tree);
        clearInvocations(yard.records);

        assertThat(
                        OnReadFormulas.in(
                                yard.live,
                                yard.transaction,
                                NOW,
                                yard.object("Berth"),
                                tree,
                                stored))
                .isSameAs(stored);
        verify(yard.records, never()).load(any(), any(), anyLong());
    }
}
