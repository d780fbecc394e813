package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sandpiper.client.ManageClient;

/** What is seen of the calls of a service, and what a release says that would break them. */
@ExtendWith(Marina.class)
class TrafficJourneyTest {
    private static final String TABLET = "yard-tablet:sandpaper-and-varnish";
    private static final String JOBS = "/api/yard/v1/jobs";

    /** How often the yard's clients called an operation so far, and how often that failed. */
    private record Called(int calls, int errors) {}

    private static Called called(String resource, String operation) {
        var traffic = Marina.get(Marina.CONSULTANT, "/manage/v1/traffic?days=30").json();
        for (var one : traffic.path("calls")) {
            if (one.path("service").asString().equals("yard")
                    && one.path("resource").asString().equals(resource)
                    && one.path("operation").asString().equals(operation)) {
                return new Called(one.path("calls").asInt(), one.path("errors").asInt());
            }
        }
        return new Called(0, 0);
    }

    @Test
    void callsAndFailuresAreCountedAndExplained() {
        var queries = called("jobs", "query");
        var reads = called("jobs", "read");
        Marina.get(TABLET, JOBS + "?limit=1");
        Marina.get(TABLET, JOBS + "/WR-1999-0001");
        var refused =
                Marina.call(TABLET, "POST", "/api/yard/v1/reports", "{\"title\": \"Mast down\"}");
        assertThat(refused.status()).isEqualTo(422);

        assertThat(called("jobs", "query"))
                .isEqualTo(new Called(queries.calls() + 1, queries.errors()));
        assertThat(called("jobs", "read"))
                .isEqualTo(new Called(reads.calls() + 1, reads.errors() + 1));
        var traffic = Marina.get("auditor:gullhaven", "/manage/v1/traffic").json();
        var last = traffic.path("failed").get(0);
        assertThat(last.path("message").asString()).contains("Vessel is required");
        assertThat(last.path("caller").asString()).isEqualTo("yard-tablet");
        var trace = "/manage/v1/traces/" + last.path("trace").asString();
        assertThat(Marina.get(Marina.CONSULTANT, trace).status()).isEqualTo(200);
        assertThat(Marina.get(Marina.CONSULTANT, "/manage/v1/metrics").whole().body())
                .contains("sandpiper_calls_seconds_count{client=\"yard-tablet\"");
        assertThat(Marina.get(Marina.CLERK, "/manage/v1/traffic").status()).isEqualTo(403);
    }

    private static String file(String path) {
        for (var file : Marina.get(Marina.CONSULTANT, "/manage/v1/draft").json().path("files")) {
            if (file.path("path").asString().equals(path)) {
                return file.path("text").asString();
            }
        }
        throw new AssertionError("No file " + path);
    }

    private static void put(String path, String text) {
        var answer =
                Marina.call(
                        Marina.CONSULTANT,
                        "PUT",
                        "/manage/v1/draft/file",
                        ManageClient.write(Map.of("path", path, "text", text)));
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(200);
    }

    @Test
    void aReleaseThatBreaksACallerIsRefusedUnlessInsistedOn() {
        Marina.get(TABLET, JOBS + "?limit=1");
        Marina.get(Marina.CONSULTANT, "/manage/v1/traffic");
        var path = "gullhaven/services/yard.yaml";
        var before = file(path);
        put(path, before.replace("dueOn, overdue, vessel.name]", "dueOn, vessel.name]"));
        try {
            var refused = Marina.call(Marina.CONSULTANT, "POST", "/manage/v1/releases", "{}");

            assertThat(refused.status()).isEqualTo(409);
            assertThat(refused.json().path("detail").asString())
                    .startsWith("Published contracts would break");
            assertThat(refused.json().path("errors").get(0).path("message").asString())
                    .startsWith("yard v1, jobs query: no longer shows overdue.")
                    .contains("In the last 30 days it was called by yard-tablet (");
        } finally {
            put(path, before);
        }
    }
}
