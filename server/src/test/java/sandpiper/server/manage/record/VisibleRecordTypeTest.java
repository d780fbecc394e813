package sandpiper.server.manage.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.logic.condition.Condition;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.Conditions;

/** What a person may filter by: fields that are not hidden, keys of what is not seen whole. */
class VisibleRecordTypeTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "yard/package.yaml", "package: yard\nversion: 1\n",
                                    "yard/objects/pier.yaml",
                                            """
                                            object: Pier
                                            key: [coast, code]
                                            fields:
                                              coast: { type: text, length: 4 }
                                              code: { type: text, length: 4 }
                                              depth: { type: integer }
                                            """,
                                    "yard/objects/slot.yaml",
                                            """
                                            object: Slot
                                            key: code
                                            fields:
                                              code: { type: text, length: 4 }
                                              pier: { type: reference, to: Pier }
                                              fee: { type: decimal, scale: 2 }
                                            """))
                    .release()
                    .orElseThrow();

    private static Condition filter(String text, ObjectGrant... grants) {
        var actor = new Actor(Actor.Kind.USER, "ann", Set.of(), List.of(), List.of(grants));
        var type = new VisibleRecordType(RELEASE.recordType(RELEASE.object("Slot")), actor);
        return Conditions.read("filter", text, type, Clock.systemUTC());
    }

    private static ObjectGrant grant(String object, List<String> hidden) {
        return new ObjectGrant(object, Set.of(ObjectGrant.Action.VIEW), null, hidden, List.of());
    }

    @Test
    void aHiddenFieldCannotBeNamed() {
        var slots = grant("Slot", List.of("fee"));

        assertThat(filter("code = \"A\"", slots)).isNotNull();
        assertThatThrownBy(() -> filter("fee > 5", slots)).isInstanceOf(ProblemException.class);
    }

    @Test
    void ofWhatIsNotSeenTheWholeKeyIsCompared() {
        var slots = grant("Slot", List.of());

        assertThat(filter("pier = \"N,1\"", slots)).isInstanceOf(Condition.All.class);
        assertThat(filter("pier.coast = \"N\"", slots)).isNotNull();
        assertThatThrownBy(() -> filter("pier.depth > 5", slots))
                .isInstanceOf(ProblemException.class);
    }

    @Test
    void aHiddenPartOfAKeyIsNotFoundOutByAsking() {
        var slots = grant("Slot", List.of());
        var piers = grant("Pier", List.of("code"));

        assertThat(filter("pier = \"N,1\"", slots, piers)).isEqualTo(new Condition.Unknown());
    }
}
