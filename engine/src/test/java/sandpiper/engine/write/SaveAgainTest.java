package sandpiper.engine.write;

import static org.assertj.core.api.Assertions.assertThat;
import static sandpiper.engine.Yard.messages;
import static sandpiper.engine.Yard.values;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Yard;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCommand;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;

/**
 * Creating or changing by key, said once more (RFC 9110 §9.2.2): what a record was made with may be
 * named again, and nothing happens; what cannot be changed stays.
 */
class SaveAgainTest {
    private final Yard yard =
            new Yard(
                    """
                    object: Slot
                    key: [row, number]
                    fields:
                      row: { type: text, length: 4 }
                      number: { type: integer }
                      owner: { type: text, length: 20 }
                      beside: { type: reference, to: Slot }
                      note: { type: text, length: 20 }
                    parts:
                      posts:
                        fields:
                          height: { type: decimal, scale: 1 }
                          made: { type: date }
                    """);

    private final ObjectType slot = yard.object("Slot");

    /** Everything can be given to a new one; of one that is there, note and heights. */
    private RecordCommand save(
            @Nullable Expected expected, String key, @Nullable Object... namesAndValues) {
        var note = FieldPath.of(slot.fields().find("note").orElseThrow());
        var posts = yard.release.everythingOf(slot).parts().getFirst();
        var heights = new FieldTree.PartTree(posts.part(), posts.paths().subList(0, 1));
        return new RecordCommand.Save(
                slot,
                yard.release.everythingOf(slot),
                new FieldTree(List.of(note), List.of(heights)),
                key,
                values(namesAndValues),
                Map.of(),
                false,
                expected);
    }

    private @Nullable Object note() {
        return yard.records
                .all(slot)
                .getFirst()
                .values()[slot.fields().find("note").orElseThrow().index()];
    }

    private static Reason reason(Outcome outcome) {
        return ((Outcome.Refused) outcome).reason();
    }

    @Test
    void theSameTwiceIsRightTwice() {
        var all =
                new Object[] {
                    "owner",
                    "ann",
                    "note",
                    "n",
                    "posts",
                    List.of(values("height", 1L, "made", "2026-05-01"))
                };

        var first = (Outcome.Done) yard.run(save(null, "A,1", all));
        var again = (Outcome.Done) yard.run(save(null, "A,1", all));

        assertThat(first.created()).isTrue();
        assertThat(again.created()).isFalse();
        assertThat(again.version()).isEqualTo(first.version());
    }

    @Test
    void whatCannotBeChangedIsToldWhenItWouldBe() {
        yard.run(save(null, "A,1", "owner", "ann", "note", "n"));

        var refused = yard.run(save(null, "A,1", "owner", "bob", "note", "m"));

        assertThat(messages(refused)).containsExactly("Owner cannot be changed here.");
        assertThat(note()).isEqualTo("n");
    }

    @Test
    void aReferenceThatStaysIsTheSameByItsKey() {
        yard.run(save(null, "A,1"));
        yard.run(save(null, "A,2", "beside", "A,1"));

        assertThat(yard.run(save(null, "A,2", "beside", "A,1", "note", "x")))
                .isInstanceOf(Outcome.Done.class);
        assertThat(messages(yard.run(save(null, "A,2", "beside", "A,2"))))
                .containsExactly("Beside cannot be changed here.");
        assertThat(messages(yard.run(save(null, "A,2", "beside", null))))
                .containsExactly("Beside cannot be changed here.");
    }

    @Test
    void aFieldOfALineItemThatCannotBeChangedStaysButANewItemMayHaveIt() {
        yard.run(save(null, "A,1", "posts", List.of(values("height", 1L, "made", "2026-05-01"))));

        assertThat(
                        messages(
                                yard.run(
                                        save(
                                                null,
                                                "A,1",
                                                "posts",
                                                List.of(
                                                        values(
                                                                "height",
                                                                2L,
                                                                "made",
                                                                "2026-05-02"))))))
                .containsExactly("Made cannot be changed here.");
        assertThat(
                        yard.run(
                                save(
                                        null,
                                        "A,1",
                                        "posts",
                                        List.of(
                                                values("height", 2L, "made", "2026-05-01"),
                                                values("height", 3L, "made", "2026-05-03")))))
                .isInstanceOf(Outcome.Done.class);
    }

    @Test
    void aNewOneIsNotMadeWhereOneWasExpected() {
        for (var expected : List.of(new Expected.There(), Expected.version(1L))) {
            assertThat(reason(yard.run(save(expected, "A,1", "note", "n"))))
                    .isEqualTo(Reason.STALE);
        }
        assertThat(yard.records.all(slot)).isEmpty();
    }

    @Test
    void oneThatIsThereIsNotChangedWhereNoneWasExpected() {
        yard.run(save(new Expected.Absent(), "A,1", "note", "n"));

        var refused = yard.run(save(new Expected.Absent(), "A,1", "note", "m"));

        assertThat(reason(refused)).isEqualTo(Reason.STALE);
        assertThat(messages(refused))
                .containsExactly("This Slot is there already; nothing was done.");
        assertThat(note()).isEqualTo("n");
    }

    @Test
    void oneOfSeveralVersionsIsEnoughAndNoneIsNot() {
        yard.run(save(null, "A,1", "note", "n"));
        var change =
                new RecordCommand.Change(
                        slot,
                        yard.release.everythingOf(slot),
                        "A,1",
                        values("note", "m"),
                        new Expected.Versions(java.util.Set.of(1L, 9L)));

        assertThat(yard.run(change)).isInstanceOf(Outcome.Done.class);
        assertThat(messages(yard.run(change)))
                .singleElement()
                .asString()
                .contains("(version 2, not 1 or 9)");
        assertThat(
                        messages(
                                yard.run(
                                        new RecordCommand.Remove(
                                                slot,
                                                "A,1",
                                                new Expected.Versions(java.util.Set.of())))))
                .singleElement()
                .asString()
                .startsWith("None of the tags that were sent");
    }

    @Test
    void whereAVersionIsNeededAStarIsNotEnough() {
        yard.run(save(null, "A,1", "note", "n"));

        var refused =
                yard.run(
                        save(new Expected.There(), "A,1", "note", "m"),
                        RecordScope.ALL,
                        RecordScope.ALL,
                        true);

        assertThat(reason(refused)).isEqualTo(Reason.UNVERSIONED);
    }
}
