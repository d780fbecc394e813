package sandpiper.engine.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.model.release.ResourceType.Operation;

/** What the grants of a client let it do. */
class ActorTest {
    @ParameterizedTest
    @CsvSource({
        "desk/stays/read, desk, stays, READ, true",
        "desk/stays/read, desk, stays, UPDATE, false",
        "desk/*/read, desk, berths, READ, true",
        "desk/*/*, desk, berths, REMOVE, true",
        "*/*/*, yard, jobs, CREATE, true",
        "desk/stays/read, yard, stays, READ, false",
        "desk/stays, desk, stays, READ, false",
        "desk, desk, stays, READ, false"
    })
    void aClientMayWhatItsGrantsSayAndNothingElse(
            String grant, String service, String resource, Operation operation, boolean may) {
        var client =
                new Actor(Actor.Kind.CLIENT, "booking-site", java.util.Set.of(), List.of(grant));

        assertThat(client.may(service, resource, operation)).isEqualTo(may);
    }
}
