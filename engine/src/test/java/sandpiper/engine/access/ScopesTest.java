package sandpiper.engine.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import sandpiper.engine.access.ObjectGrant.Action;

/** What a grant reaches beside records, and what fields may be given. */
class ScopesTest {
    private static Actor client(String grant) {
        return new Actor(Actor.Kind.CLIENT, "pilot", Set.of(), List.of(grant));
    }

    @Test
    void aConditionIsAboutRecordsOnly() {
        for (var grant : List.of("desk/*/* where size > 1", "*/*/* where size > 1")) {
            assertThat(client(grant).scope("desk", "jobs", "read")).isPresent();
            assertThat(client(grant).scope("desk", "events", "read")).isEmpty();
            assertThat(client(grant).scope("desk", "functions", "quote")).isEmpty();
        }
        assertThat(client("desk/*/*").scope("desk", "events", "read")).isPresent();
    }

    @Test
    void whoOnlyDesignsCallsNoService() {
        var designer = new Actor(Actor.Kind.USER, "ann", Set.of(Duty.DESIGN), List.of());
        assertThat(designer.scope("desk", "jobs", "read")).isEmpty();
        assertThat(designer.maySee("desk")).isTrue();
        var all =
                new Actor(Actor.Kind.USER, "ann", EnumSet.of(Duty.DESIGN, Duty.RECORDS), List.of());
        assertThat(all.scope("desk", "jobs", "read")).isPresent();
    }

    @Test
    void readOnlyHoldsForTheActionItIsGrantedWith() {
        var grant =
                new ObjectGrant(
                        "Job",
                        Set.of(Action.VIEW, Action.CREATE),
                        null,
                        List.of(),
                        List.of("marker"));
        var access = ObjectAccess.of(false, List.of(grant), "Job");
        assertThat(access.notGiven()).containsExactly("marker");
        assertThat(ObjectAccess.of(true, List.of(grant), "Job").notGiven()).isEmpty();
    }

    @Test
    void aCommentInAConditionEndsWithIt() {
        assertThat(RecordScope.any(List.of("size > 1 // small", "size < 0")).conditions())
                .singleElement()
                .asString()
                .contains("// small\n) or (");
    }
}
