package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;

class RateLimitsTest {
    private static final Actor FERRY = new Actor(Actor.Kind.CLIENT, "ferry", Set.of(), List.of());

    private final SimpleMeterRegistry meters = new SimpleMeterRegistry();

    private static Map<String, String> call(RateLimits limits, Actor actor) {
        var headers = new HashMap<String, String>();
        limits.count(actor, headers::put);
        return headers;
    }

    @Test
    void withoutALimitNothingIsCountedOrSaid() {
        var limits = new RateLimits(0, meters);
        limits.keep("ferry", 0);

        assertThat(call(limits, FERRY)).isEmpty();
    }

    @Test
    void theUsualLimitHoldsForClientsWithoutOneOfTheirOwn() {
        var limits = new RateLimits(1, meters);
        limits.keep("ferry", 0);

        assertThat(call(limits, FERRY).get("RateLimit")).startsWith("\"client\";r=0;t=");
        assertThatThrownBy(() -> call(limits, FERRY))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("ferry may call 1 times a minute");
        assertThat(meters.counter("sandpiper.calls.limited", "client", "ferry").count()).isOne();
    }

    @Test
    void anotherLimitHoldsFromTheNextCallOn() {
        var limits = new RateLimits(1, meters);
        limits.keep("ferry", 0);
        call(limits, FERRY);
        limits.keep("ferry", 100);

        assertThat(call(limits, FERRY).get("RateLimit-Policy")).isEqualTo("\"client\";q=100;w=60");
    }

    @Test
    void peopleWhoTryAServiceAreNotCounted() {
        var limits = new RateLimits(1, meters);
        limits.keep("ferry", 0);
        var person = new Actor(Actor.Kind.USER, "ferry", Set.of(), List.of());

        assertThat(call(limits, person)).isEmpty();
        assertThat(call(limits, person)).isEmpty();
    }
}
