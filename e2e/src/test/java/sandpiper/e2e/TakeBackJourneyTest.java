package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.client.DraftCalls;

/** A release that was wrong is taken back while others work; nothing is lost, by a kill neither. */
class TakeBackJourneyTest {
    private static final int RECORDS = 150;
    private static final String FLOAT =
            """
            object: Float
            key: code
            fields:
              code: { type: text, required: true }
              note: { type: text }
              beside: { type: reference, to: Float }
            parts:
              weights:
                fields:
                  kilos: { type: decimal }
            """;
    private static final String SERVICE =
            """
            service: floats
            version: 1
            resources:
              floats:
                object: Float
                create: { fields: [all] }
                read: { fields: [all] }
            """;

    @TempDir private Path folder;
    private final HttpClient http = HttpClient.newHttpClient();
    private final AtomicInteger next = new AtomicInteger(RECORDS);
    private ServiceProcess service;
    private String credentials;

    @BeforeEach
    void begin() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        push(FLOAT);
        release("floats");
        credentials =
                "yard:"
                        + service.client()
                                .access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "yard",
                                                List.of("floats/*/*"),
                                                false,
                                                1_000_000,
                                                null))
                                .value()
                                .secret();
        for (int i = 0; i < RECORDS; i++) {
            assertThat(
                            create(
                                    """
                                    {"code": "F%d", "note": "n%d"%s,
                                     "weights": [{"kilos": %d.5}]}\
                                    """
                                            .formatted(
                                                    i,
                                                    i,
                                                    i == 0
                                                            ? ""
                                                            : ", \"beside\": \"F%d\""
                                                                    .formatted(i - 1),
                                                    i)))
                    .isEqualTo(201);
        }
    }

    @AfterEach
    void end() {
        service.close();
        http.close();
    }

    private void push(String object) {
        service.client()
                .draft()
                .push(
                        Map.of(
                                "floats/package.yaml",
                                "package: floats\nversion: 1\n",
                                "floats/objects/float.yaml",
                                object,
                                "floats/services/floats.yaml",
                                SERVICE));
    }

    private int release(String note) {
        return service.client()
                .draft()
                .release(new DraftCalls.Wanted(note, true, true, true, false))
                .value()
                .number();
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws Exception {
        return http.send(
                request.header("Authorization", BasicSignIn.as(credentials))
                        .header("Content-Type", "application/json")
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private HttpRequest.Builder at(String path) {
        return HttpRequest.newBuilder(URI.create(service.address() + "/api/floats/v1/" + path));
    }

    private int create(String body) throws Exception {
        return send(at("floats").POST(HttpRequest.BodyPublishers.ofString(body))).statusCode();
    }

    private String read(int number) throws Exception {
        return send(at("floats/F" + number)).body();
    }

    /** What was sent in, which must be there whatever happened in between. */
    private void assertAllThere() throws Exception {
        for (int i = 1; i < RECORDS; i++) {
            assertThat(read(i))
                    .contains(
                            "\"note\":\"n%d\"".formatted(i),
                            "\"beside\":\"F%d\"".formatted(i - 1),
                            "\"kilos\":%d.5".formatted(i));
        }
    }

    private static String without(String field) {
        return FLOAT.replaceFirst(" *%s: .*\n".formatted(field), "");
    }

    @Test
    void valuesAreThereAgainAndNobodyIsTurnedAway() throws Exception {
        var done = new AtomicBoolean();
        var answers = new ArrayList<Integer>();
        try (var others = Executors.newSingleThreadExecutor()) {
            var working =
                    others.submit(() -> {
                        while (!done.get()) {
                            answers.add(
                                    create(
                                            "{\"code\": \"F%d\"}"
                                                    .formatted(next.incrementAndGet())));
                            answers.add(send(at("floats/F1")).statusCode());
                        }
                        return true;
                    });
            push(without("note").replace("kilos: { type: decimal }", "grams: { type: integer }"));
            assertThat(CommandRun.of(service, "diff"))
                    .contains("Its value in 150 records is kept aside for 30 days");
            assertThat(release("worse")).isEqualTo(2);
            assertThat(CommandRun.of(service, "kept"))
                    .contains("Float.note", "Float.weights.kilos", "150");
            assertThat(CommandRun.of(service, "take-back", "1", "--dry-run"))
                    .contains("Float.note: its values in 150 records come back", "exit 0")
                    .doesNotContain("is live.");
            assertThat(CommandRun.of(service, "take-back", "1", "--accept-breaks"))
                    .contains("Release 3 is live, with what release 1 had.", "exit 0");
            done.set(true);
            assertThat(working.get()).isTrue();
        }
        assertThat(answers).isNotEmpty().containsOnly(200, 201);
        assertAllThere();
        assertThat(CommandRun.of(service, "kept")).contains("Nothing is kept aside.");
        assertThat(CommandRun.of(service, "take-back", "9")).contains("There is no release 9.");
    }

    @Test
    void aKillInTheMiddleLeavesOneOrTheOther() throws Exception {
        service.client()
                .draft()
                .push(
                        Map.of(
                                "floats/package.yaml",
                                "package: floats\nversion: 1\n",
                                "floats/objects/buoy.yaml",
                                "object: Buoy\nfields: { name: { type: text } }\n"));
        assertThat(release("all gone")).isEqualTo(2);
        try (var other = Executors.newSingleThreadExecutor()) {
            var dying = service;
            var taken = other.submit(() -> CommandRun.of(dying, "take-back", "1"));
            Thread.sleep(400);
            dying.kill();
            taken.get();
        }
        service.close();
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());

        boolean isBack =
                service.client().draft().objects().size() == 1
                        && service.client().draft().objects().getFirst().name().equals("Float");
        assertThat(service.client().draft().kept().value()).hasSize(isBack ? 0 : 2);
        if (!isBack) {
            assertThat(CommandRun.of(service, "take-back", "1")).contains("is live");
        }
        assertAllThere();
    }
}
