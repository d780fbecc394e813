package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.logic.condition.Condition;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Release;
import sandpiper.server.problem.ProblemException;

/** What callers may filter by where a key has several fields and an object refers to itself. */
class FilterableRecordTypeTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml", "package: yard\nversion: 1\n",
                                    "yard/objects/slot.yaml",
                                            """
                                            object: Slot
                                            key: [row, number]
                                            fields:
                                              row: { type: text, length: 4 }
                                              number: { type: integer }
                                              beside: { type: reference, to: Slot }
                                              secret: { type: text }
                                            parts:
                                              uses:
                                                fields:
                                                  hours: { type: integer }
                                                  paid: { type: integer }
                                                  by: { type: reference, to: Slot }
                                            """))
                    .release()
                    .orElseThrow();

    private static Condition filter(String text, String... allowed) {
        var slot = RELEASE.object("Slot");
        var paths =
                List.of(allowed).stream()
                        .map(path ->
                                FieldPath.resolve(RELEASE, slot, List.of(path.split("\\.")))
                                        .orElseThrow())
                        .toList();
        var uses = slot.part("uses").orElseThrow();
        var items =
                uses.fields().stream()
                        .filter(field -> !field.name().equals("paid"))
                        .map(FieldPath::of)
                        .toList();
        var type =
                new FilterableRecordType(
                        RELEASE.recordType(slot),
                        paths,
                        List.of(new FieldTree.PartTree(uses, items)));
        return Conditions.read("filter", text, type, Clock.systemUTC());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "beside = \"A,1\"",
                "beside != \"A,1\"",
                "beside in (\"A,1\", \"B,2\")",
                "not(beside = \"A,1\")",
                "beside = \"no key\"",
                "beside = null",
                "beside.row = \"A\" and beside.number > 1",
            })
    void aReferenceIsComparedByItsWholeKey(String text) {
        assertThat(filter(text, "beside")).isNotNull();
    }

    @Test
    void ofLineItemsWhatTheServiceNames() {
        assertThat(filter("some u in uses satisfies u.hours > 2 and u.by = \"A,1\"", "row"))
                .isNotNull();
        assertThat(filter("every u in uses satisfies u.hours > 2")).isNotNull();
        for (var beyond :
                List.of(
                        "some u in uses satisfies u.paid > 2",
                        "some u in uses satisfies u.line > 2",
                        "some u in uses satisfies u.by.secret = \"x\"",
                        "some u in uses satisfies secret = \"x\"",
                        "count(uses) > 2")) {
            assertThatThrownBy(() -> filter(beyond, "row"))
                    .as(beyond)
                    .isInstanceOf(ProblemException.class);
        }
    }

    @Test
    void itsKeyIsReachedOnlyWhereItIs() {
        assertThatThrownBy(() -> filter("beside.row = \"A\"", "row", "beside.number"))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> filter("beside.secret = \"A\"", "beside"))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> filter("beside.beside.row = \"A\"", "beside"))
                .isInstanceOf(ProblemException.class);
    }
}
