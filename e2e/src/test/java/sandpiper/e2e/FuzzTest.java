package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sandpiper.client.ManageClient;

/**
 * Requests that were right once, with something broken in each: none may bring the service into
 * trouble, and none may make it tell what is inside.
 */
@ExtendWith(Marina.class)
class FuzzTest {
    /** For each way; more are sent with {@code -Dsandpiper.fuzz=10000}. */
    private static final int REQUESTS = Integer.getInteger("sandpiper.fuzz", 1_000);

    private static final int AT_ONCE = 4;

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
                        "text/xml"));

        private final List<Whole> wholes;

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
                way == Way.SOAP ? "port-authority:tide-tables-2026" : Marina.BOOKING,
                whole.method(),
                whole.path(),
                text.getBytes(StandardCharsets.UTF_8),
                "Content-Type",
                whole.type());
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
    @Timeout(120)
    void brokenRequestsAreRefusedAndTellNothing(Way way) throws Exception {
        Queue<String> trouble = new ConcurrentLinkedQueue<>();
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
        assertThat(trouble).as("in %s", Duration.ofNanos(System.nanoTime() - start)).isEmpty();
        assertThat(Marina.call("", "GET", "/manage/v1/ready", "").status()).isEqualTo(200);
    }
}
