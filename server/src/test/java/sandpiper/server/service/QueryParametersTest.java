package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.engine.record.Query;
import sandpiper.logic.condition.Condition;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.Release;
import sandpiper.server.problem.ProblemException;

class QueryParametersTest {
    private static final List<String> KNOWN = List.of("filter", "sort", "limit", "count", "fields");
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "m/package.yaml", "package: m\nversion: 1\n",
                                    "m/objects/pier.yaml",
                                            "object: Pier\n"
                                                + "key: code\n"
                                                + "fields: { code: { type: text }, open: { type:"
                                                + " boolean }, secret: { type: text } }\n",
                                    "m/objects/berth.yaml",
                                            "object: Berth\n"
                                                + "key: code\n"
                                                + "fields: { code: { type: text }, pier: { type:"
                                                + " reference, to: Pier }, rate: { type: amount },"
                                                + " due: { type: date }, late: { type: boolean,"
                                                + " formula: due < today() } }\n"))
                    .release()
                    .orElseThrow();

    private static QueryParameters reader(String name, String value) {
        return new QueryParameters(Map.of(name, new String[] {value}), KNOWN);
    }

    private static FieldPath path(String... names) {
        return FieldPath.resolve(RELEASE, RELEASE.object("Berth"), List.of(names)).orElseThrow();
    }

    private static Condition filter(String text, FieldPath... allowed) {
        var type =
                new FilterableRecordType(
                        RELEASE.recordType(RELEASE.object("Berth")), List.of(allowed), List.of());
        return Conditions.read("filter", text, type, Clock.systemUTC());
    }

    @Test
    void aFilterReachesOnlyWhatTheServiceNames() {
        assertThat(filter("pier.open and code = \"N-07\"", path("code"), path("pier", "open")))
                .isNotNull();
        assertThat(filter("pier = \"N\"", path("pier"))).isNotNull();
        assertThatThrownBy(() -> filter("pier.secret = \"x\"", path("pier", "open")))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("secret");
        assertThatThrownBy(() -> filter("rate > 5", path("code")))
                .isInstanceOf(ProblemException.class);
    }

    @Test
    void theKeyOfAReferenceIsReachedOnlyWhenTheReferenceIs() {
        assertThat(filter("pier.code = \"N\"", path("pier"))).isNotNull();
        assertThatThrownBy(() -> filter("pier.code = \"N\"", path("pier", "open")))
                .isInstanceOf(ProblemException.class);
    }

    @Test
    void sortsRunUpOrDown() {
        var sorts = sorts("-code, pier.open, late", "code", "pier.open", "late");

        assertThat(sorts).extracting(Query.Sort::descending).containsExactly(true, false, false);
        assertThat(sorts)
                .extracting(sort -> sort.worked() == null)
                .containsExactly(true, true, false);
        assertThatThrownBy(() -> sorts("rate", "code"))
                .hasMessageContaining("cannot sort by \"rate\"; there are code");
        assertThatThrownBy(() -> sorts("rate")).hasMessageContaining("nothing to sort by");
    }

    private static List<Query.Sort> sorts(String text, String... sortable) {
        return reader("sort", text)
                .request(50, 500)
                .order(
                        List.of(sortable),
                        name -> path(name.split("\\.")),
                        RELEASE.recordType(RELEASE.object("Berth")),
                        Clock.systemUTC());
    }

    @Test
    void limitsFlagsAndRepeatsAreChecked() {
        assertThat(reader("limit", "500").limit(50, 500)).isEqualTo(500);
        assertThat(reader("count", "true").flag("count")).isTrue();
        assertThat(reader("count", "true").limit(50, 500)).isEqualTo(50);
        assertThatThrownBy(() -> reader("limit", "501").limit(50, 500))
                .hasMessageContaining("1 to 500");
        assertThatThrownBy(() -> reader("count", "yes").flag("count"))
                .hasMessageContaining("true or false");
        assertThatThrownBy(() ->
                        new QueryParameters(Map.of("sort", new String[] {"a", "b"}), KNOWN)
                                .text("sort"))
                .hasMessageContaining("give it once");
        assertThatThrownBy(() -> reader("fitler", "x"))
                .hasMessageContaining("Did you mean filter?");
    }
}
