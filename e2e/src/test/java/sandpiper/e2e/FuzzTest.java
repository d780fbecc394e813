package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.AppenderBase;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.slf4j.LoggerFactory;
import sandpiper.client.ManageClient;
import tools.jackson.databind.json.JsonMapper;

/**
 * Requests that were right once, with something broken in each: none may bring the service into
 * trouble, and none may make it tell what is inside.
 */
@ExtendWith(Marina.class)
class FuzzTest {
    /** For each way; more are sent with {@code -Dsandpiper.fuzz=10000}. */
    private static final int REQUESTS = Integer.getInteger("sandpiper.fuzz", 600);

    private static final int AT_ONCE = 4;

    private static final JsonMapper FILES = new JsonMapper();

    /** A request before it is broken. */
    private record Whole(String method, String path, String body, String type) {}

    /** The ways in, each with requests that are right. */
    enum Way {
        REST(
                new Whole(
                        "POST",
                        "/api/berth-desk/v1/stays",
                        """
                        {"vessel": "GH-101", "berth": "N-01", "arrival": "2027-01-01", "departure": "2027-01-04", "remarks": "⛵ \\u00e9", "charges": [{"tariff": "POWER", "quantity": 12.5}, {"tariff": "ENV", "quantity": 1}]}\
                        """,
                        "application/json"),
                new Whole(
                        "PATCH",
                        "/api/berth-desk/v1/stays/ST-2026-000042",
                        "{\"remarks\": null, \"charges\": [{\"line\": 1, \"quantity\": 1e2}]}",
                        "application/merge-patch+json"),
                new Whole(
                        "POST",
                        "/api/berth-desk/v1/stays:batch",
                        "{\"items\": [{\"do\": \"update\", \"key\": \"ST-2026-000042\", \"values\":"
                                + " {\"remarks\": \"x\"}, \"version\": 1}]}",
                        "application/json"),
                new Whole(
                        "POST",
                        "/api/berth-desk/v1/quote",
                        "{\"length\": 9.5, \"nights\": 2, \"season\": \"high\"}",
                        "application/json")),
        FILTERS(
                new Whole(
                        "GET",
                        "/api/berth-desk/v1/stays?limit=5&sort=-arrival&count=true&filter=",
                        "state in (\"Alongside\", \"Departed\") and arrival >= date(\"2026-05-01\")"
                                + " and not(contains(vessel.name, \"Pink\")) or berth.pier = \"N\"",
                        "")),
        ODATA(
                new Whole(
                        "GET",
                        "/odata/berth-desk/v1/stays?$top=3&$expand=charges($select=quantity)&$filter=",
                        "state eq 'Alongside' and contains(vessel/name,'Pink') or arrival ge"
                                + " 2026-05-01 and not (berth/pierKey eq 'N')",
                        ""),
                new Whole(
                        "POST",
                        "/odata/berth-desk/v1/stays",
                        "{\"vesselKey\": \"GH-101\", \"berthKey\": \"N-01\", \"arrival\":"
                                + " \"2027-01-01\", \"departure\": \"2027-01-04\", \"charges\":"
                                + " [{\"tariffKey\": \"POWER\", \"quantity\": 12.5}]}",
                        "application/json")),
        SOAP(
                new Whole(
                        "POST",
                        "/soap/harbour-report/v1",
                        """
                        <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/" xmlns="urn:sandpiper:harbour-report:v1"><s:Header/><s:Body><FindStays><criteria><state><equals>Alongside</equals></state></criteria><limit>5</limit></FindStays></s:Body></s:Envelope>\
                        """,
                        "text/xml")),
        MULTIPART(
                new Whole(
                        "POST",
                        "/odata/berth-desk/v1/$batch",
                        """
                        --b
                        Content-Type: application/http
                        Content-Transfer-Encoding: binary

                        GET stays?$top=1 HTTP/1.1
                        Accept: application/json


                        --b
                        Content-Type: multipart/mixed; boundary=c

                        --c
                        Content-Type: application/http
                        Content-Transfer-Encoding: binary
                        Content-ID: 1

                        PATCH stays('ST-2026-000042') HTTP/1.1
                        Content-Type: application/json

                        {"remarks": "x"}
                        --c--
                        --b--
                        """
                                .replace("\n", "\r\n"),
                        "multipart/mixed;boundary=b")),
        MANAGE(
                new Whole(
                        "PATCH",
                        "/manage/v1/records/Owner/OW-0030",
                        "{\"phone\": \"+49 40 1234567\", \"name\": null}",
                        "application/json"),
                new Whole(
                        "POST",
                        "/manage/v1/trials",
                        "{\"logic\": {\"object\": \"Stay\", \"role\": \"CONDITION\", \"text\":"
                                + " \"nights > 2 and count(charges) = 1\"}, \"key\":"
                                + " \"ST-2026-000042\", \"values\": {\"remarks\": \"x\"}}",
                        "application/json"),
                new Whole(
                        "POST",
                        "/manage/v1/trials/records/Stay",
                        "{\"key\": \"ST-2026-000042\", \"values\": {\"charges\": [{\"tariff\":"
                                + " \"ENV\", \"quantity\": 1.5}]}}",
                        "application/json"),
                new Whole(
                        "PUT",
                        "/manage/v1/roles/fuzz",
                        "{\"objects\": [{\"object\": \"Stay\", \"actions\": [\"VIEW\"], \"where\":"
                                + " \"state = \\\"Departed\\\"\"}], \"services\":"
                                + " [\"berth-desk/stays/read\"]}",
                        "application/json"),
                new Whole(
                        "POST",
                        "/manage/v1/logic/complete",
                        "{\"logic\": {\"object\": \"Stay\", \"role\": \"VALUE\", \"text\":"
                                + " \"ves\"}, \"at\": 3}",
                        "application/json")),
        YAML(
                new Whole(
                        "POST",
                        "/manage/v1/draft/check",
                        """
                        object: Buoy
                        label: Buoy
                        key: [area, number]
                        fields:
                          area: { type: text, length: 10, required: true }
                          number: { type: integer, default: 1 }
                          up: { type: reference, to: Buoy, inverse: below }
                          sum: { type: decimal, scale: 2, formula: "sum(below.number) + number" }
                        parts:
                          lamps:
                            fields: { watts: { type: integer, requiredWhen: "number > 1" } }
                        lifecycle:
                          initial: Planned
                          states: [Planned, Laid]
                          transitions: { lay: { from: Planned, to: Laid } }
                        checks:
                          - { that: number > 0, say: "{area} has {number}." }
                        rules:
                          follow: { on: create or change of number, when: number > 3, then: set area = "A" }
                        """,
                        "application/json")),
        TOKEN(
                new Whole(
                        "POST",
                        "/oauth2/token",
                        "grant_type=client_credentials&client_id=nobody&client_secret=%C3%A4+b",
                        "application/x-www-form-urlencoded"));

        private final List<Whole> wholes;

        /** Whoever may do what is sent here. */
        String who() {
            return switch (this) {
                case SOAP -> "port-authority:tide-tables-2026";
                case MANAGE, YAML -> Marina.CONSULTANT;
                case TOKEN -> "";
                default -> Marina.BOOKING;
            };
        }

        /** What carries a text that was broken. */
        String around(String text) {
            return this == YAML
                    ? FILES.writeValueAsString(
                            Map.of(
                                    "files",
                                    Map.of(
                                            "fuzz/package.yaml",
                                            "package: fuzz\nversion: 1\n",
                                            "fuzz/objects/buoy.yaml",
                                            text)))
                    : text;
        }

        Way(Whole... wholes) {
            this.wholes = List.of(wholes);
        }
    }

    private static final String MARKS =
            "{}[]()<>\"'`,:;=+-*/\\|&%$#@!?~^.0123456789eE \t\n\r\u0000\u0001\u2028\ud83d\udea4äß";

    private static String broken(String text, Random random) {
        var broken = new StringBuilder(text);
        for (int times = 1 + random.nextInt(3); times > 0; times--) {
            int at = broken.isEmpty() ? 0 : random.nextInt(broken.length());
            switch (random.nextInt(7)) {
                case 0 -> broken.setLength(at);
                case 1 -> broken.insert(at, MARKS.charAt(random.nextInt(MARKS.length())));
                case 2 -> {
                    int end = Math.min(broken.length(), at + 1 + random.nextInt(8));
                    broken.delete(at, end);
                }
                case 3 -> {
                    int end = Math.min(broken.length(), at + 1 + random.nextInt(20));
                    broken.insert(at, broken.substring(at, end).repeat(1 + random.nextInt(4)));
                }
                case 4 -> broken.insert(at, "[".repeat(1 + random.nextInt(200)));
                case 5 -> broken.insert(at, "9".repeat(1 + random.nextInt(120)));
                default -> {
                    if (!broken.isEmpty()) {
                        broken.setCharAt(at, MARKS.charAt(random.nextInt(MARKS.length())));
                    }
                }
            }
        }
        return broken.toString();
    }

    private static Marina.Answer send(Way way, Random random) {
        var whole = way.wholes.get(random.nextInt(way.wholes.size()));
        var text = broken(whole.body(), random);
        if (whole.method().equals("GET")) {
            return Marina.call(Marina.BOOKING, "GET", whole.path() + ManageClient.escape(text), "");
        }
        return Marina.call(
                way.who(),
                whole.method(),
                whole.path().replace("$", "%24"),
                way.around(text).getBytes(StandardCharsets.UTF_8),
                "Content-Type",
                whole.type());
    }

    /** Keeps what was logged with a trace of the stack. */
    private static final class TracesInTheLog extends AppenderBase<ILoggingEvent> {
        private final Queue<String> traces = new ConcurrentLinkedQueue<>();

        @Override
        protected void append(ILoggingEvent event) {
            if (event.getThrowableProxy() != null
                    && event.getLevel().isGreaterOrEqual(Level.WARN)) {
                traces.add(event + ": " + event.getThrowableProxy().getMessage());
            }
        }
    }

    private static boolean isTrouble(Way way, Marina.Answer answer) {
        var body = answer.whole().body();
        boolean told =
                body.contains("Exception") || body.contains("\tat ") || body.contains("SQLITE");
        // A fault over SOAP 1.1 is a 500 by the standard; what it says must be the caller's fault.
        boolean failed =
                way == Way.SOAP
                        ? answer.status() >= 500 && body.contains("Server</faultcode>")
                        : answer.status() >= 500;
        return told || failed;
    }

    @ParameterizedTest
    @EnumSource
    @Timeout(600)
    void brokenRequestsAreRefusedAndTellNothing(Way way) throws Exception {
        Queue<String> trouble = new ConcurrentLinkedQueue<>();
        var logged = new TracesInTheLog();
        logged.start();
        ((Logger) LoggerFactory.getLogger(Logger.ROOT_LOGGER_NAME)).addAppender(logged);
        long start = System.nanoTime();
        try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
            var work = new ArrayList<java.util.concurrent.Future<?>>();
            for (int t = 0; t < AT_ONCE; t++) {
                var random = new Random(1_000 * way.ordinal() + t);
                work.add(
                        pool.submit(() -> {
                            for (int i = 0; i < REQUESTS / AT_ONCE; i++) {
                                var answer = send(way, random);
                                if (isTrouble(way, answer)) {
                                    trouble.add(
                                            "%d %s: %s"
                                                    .formatted(
                                                            answer.status(),
                                                            answer.whole().request().uri(),
                                                            answer.whole().body()));
                                }
                            }
                            return true;
                        }));
            }
            for (var one : work) {
                one.get();
            }
        }
        ((Logger) LoggerFactory.getLogger(Logger.ROOT_LOGGER_NAME)).detachAppender(logged);
        assertThat(logged.traces).as("traces in the log").isEmpty();
        assertThat(trouble).as("in %s", Duration.ofNanos(System.nanoTime() - start)).isEmpty();
        assertThat(Marina.call("", "GET", "/manage/v1/ready", "").status()).isEqualTo(200);
    }
}
