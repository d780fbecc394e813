package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

/**
 * What is added to a service breaks nobody who has its contract: each is answered as the revision
 * says that they name, over every protocol, until it is ended.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class RevisionsTest {
    private static final String OBJECT =
            """
            object: Trailer
            key: [yard, number]
            fields:
              yard: { type: text }
              number: { type: integer }
              name: { type: text }%s
            parts:
              straps:
                fields:
                  length: { type: integer }%s
            functions:
              weigh:
                external: true
                returns: { type: context, fields: { kilos: integer%s } }
                body: |
                  return { kilos: 7%s }
            """;
    private static final String SERVICE =
            """
            service: shed
            version: 1
            protocols: [rest, soap, odata]
            resources:
              trailers:
                object: Trailer
                create: { fields: [all] }
                update: { fields: [all] }
                read: { fields: [all] }
                query: { fields: [all] }
                calls: [weigh]
            """;

    @TempDir static Path folder;

    private static ServiceProcess service;
    private static ManageClient manage;
    private static String credentials;
    private static String oldWsdl;

    @BeforeAll
    static void releaseTwice() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        manage = service.client();
        release(OBJECT.formatted("", "", "", ""));
        var secret =
                manage.access()
                        .createClient(
                                new AccessCalls.NewClient(
                                        "yard", List.of("shed/*/*"), false, 1_000_000, null))
                        .value()
                        .secret();
        credentials = "yard:" + secret;
        oldWsdl = manage.draft().contract(new DraftCalls.Service("shed", 1), "wsdl");
        release(
                OBJECT.formatted(
                        "\n  tag: { type: text }",
                        "\n      colour: { type: text }",
                        ", pounds: integer",
                        ", pounds: 15"));
        var made =
                send(
                        "POST",
                        "/api/shed/v1/trailers",
                        "application/json",
                        "{\"yard\": \"N,1\", \"number\": 4, \"name\": \"Low\", \"tag\": \"red\","
                                + " \"straps\": [{\"length\": 3, \"colour\": \"blue\"}]}");
        assertThat(made.statusCode()).as(made.body()).isEqualTo(201);
    }

    private static void release(String object) {
        manage.draft()
                .push(
                        Map.of(
                                "shed/package.yaml",
                                "package: shed\nversion: 1\n",
                                "shed/objects/trailer.yaml",
                                object,
                                "shed/services/shed.yaml",
                                SERVICE));
        manage.draft().release(new DraftCalls.Wanted("shed", true, true, true, false));
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static HttpResponse<String> send(String method, String path, String type, String body)
            throws Exception {
        try (var http = HttpClient.newHttpClient()) {
            return http.send(
                    HttpRequest.newBuilder(URI.create(service.address() + path))
                            .header("Authorization", BasicSignIn.as(credentials))
                            .header("Content-Type", type)
                            .method(method, HttpRequest.BodyPublishers.ofString(body))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
        }
    }

    private static String get(String path) throws Exception {
        var answer = send("GET", path, "application/json", "");
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return answer.body();
    }

    private static HttpResponse<String> soap(String address, String call) throws Exception {
        return send(
                "POST",
                address,
                "text/xml",
                "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>%s</s:Body></s:Envelope>"
                        .formatted(call));
    }

    private static String call(String name, String content) {
        return "<%1$s xmlns=\"urn:sandpiper:shed:v1\">%2$s</%1$s>".formatted(name, content);
    }

    private static final String GET = call("GetTrailer", "<key>N\\,1,4</key>");

    private static String addressIn(String wsdl) {
        var found =
                java.util.regex.Pattern.compile("location=\"[^\"]*(/soap/[^\"]+)\"").matcher(wsdl);
        assertThat(found.find()).isTrue();
        return found.group(1);
    }

    private static String newWsdl() {
        return manage.draft().contract(new DraftCalls.Service("shed", 1), "wsdl");
    }

    @Test
    void overSoapTheAddressInTheWsdlNamesTheRevision() throws Exception {
        assertThat(addressIn(oldWsdl)).isEqualTo("/soap/shed/v1/r1");
        assertThat(oldWsdl).doesNotContain("\"tag\"", "\"colour\"", "\"pounds\"");
        assertThat(addressIn(newWsdl())).isEqualTo("/soap/shed/v1/r2");
        assertThat(newWsdl()).contains("\"tag\"", "\"colour\"", "\"pounds\"");

        assertThat(soap("/soap/shed/v1/r1", GET).body())
                .contains("<name>Low</name>", "<length>3</length>")
                .doesNotContain("<tag", "<colour");
        assertThat(soap("/soap/shed/v1/r2", GET).body())
                .contains("<tag>red</tag>", "<colour>blue</colour>");
        assertThat(soap("/soap/shed/v1", GET).body()).contains("<tag>red</tag>");
        assertThat(soap("/soap/shed/v1/r1", call("FindTrailers", "")).body())
                .contains("<name>Low</name>")
                .doesNotContain("<tag", "<colour");
    }

    @Test
    void overSoapAFunctionGivesBackWhatTheContractSays() throws Exception {
        var weigh = call("WeighTrailer", "<key>N\\,1,4</key>");

        assertThat(soap("/soap/shed/v1/r1", weigh).body())
                .contains("<kilos>7</kilos>")
                .doesNotContain("pounds");
        assertThat(soap("/soap/shed/v1/r2", weigh).body()).contains("<pounds>15</pounds>");
    }

    @Test
    void theWsdlAtAnOldAddressIsTheOldOne() throws Exception {
        assertThat(get("/soap/shed/v1/r1?wsdl"))
                .contains("/soap/shed/v1/r1\"")
                .doesNotContain("\"tag\"", "\"colour\"");
        assertThat(get("/soap/shed/v1?wsdl")).contains("/soap/shed/v1/r2\"");
    }

    /**
     * Whoever thinks that a parameter keeps a change from being made must hear that it does not.
     */
    @Test
    void aChangeWithAParameterNobodyKnowsIsNotMade() throws Exception {
        for (var call :
                List.of(
                        "POST /api/shed/v1/trailers",
                        "POST /api/shed/v1/trailers:batch",
                        "PUT /api/shed/v1/trailers/W,1",
                        "PATCH /api/shed/v1/trailers/N%5C,1,4",
                        "DELETE /api/shed/v1/trailers/N%5C,1,4",
                        "POST /api/shed/v1/trailers/N%5C,1,4/weigh")) {
            var words = call.split(" ");
            var answer = send(words[0], words[1] + "?dry-run=true", "application/json", "{}");

            assertThat(answer.statusCode()).as(call).isEqualTo(400);
            assertThat(answer.body()).contains("There is no parameter \\\"dry-run\\\"");
        }
    }

    /** A whole record that is written by one who knows less loses nothing. */
    @Test
    void whatACallerDoesNotKnowIsKept() throws Exception {
        var made =
                send(
                        "PUT",
                        "/api/shed/v1/trailers/S,9?revision=2",
                        "application/json",
                        "{\"name\": \"First\", \"tag\": \"kept\"}");
        assertThat(made.statusCode()).as(made.body()).isEqualTo(201);

        var changed =
                send(
                        "PUT",
                        "/api/shed/v1/trailers/S,9?revision=1",
                        "application/json",
                        "{\"name\": \"Second\"}");

        assertThat(changed.statusCode()).as(changed.body()).isEqualTo(200);
        assertThat(changed.body()).contains("Second").doesNotContain("\"tag\"");
        assertThat(get("/api/shed/v1/trailers/S,9")).contains("\"tag\":\"kept\"", "Second");
        var unknown =
                send(
                        "PATCH",
                        "/api/shed/v1/trailers/S,9?revision=1",
                        "application/json",
                        "{\"tag\": \"x\"}");
        assertThat(unknown.statusCode()).as(unknown.body()).isEqualTo(422);
    }

    @Test
    void overRestAParameterNamesIt() throws Exception {
        var contract = manage.draft().contract(new DraftCalls.Service("shed", 1), "openapi.json");
        assertThat(ManageClient.read(contract).path("info").path("x-revision").asInt())
                .isEqualTo(2);

        assertThat(get("/api/shed/v1/trailers?revision=1&limit=1"))
                .contains("\"name\"")
                .doesNotContain("\"tag\"", "\"colour\"");
        assertThat(get("/api/shed/v1/trailers/N%5C,1,4?revision=1"))
                .doesNotContain("\"tag\"", "\"colour\"");
        assertThat(get("/api/shed/v1/trailers/N%5C,1,4")).contains("\"tag\":\"red\"", "colour");
    }

    @Test
    void overODataAParameterNamesIt() throws Exception {
        assertThat(get("/odata/shed/v1/$metadata?revision=1"))
                .contains("\"name\"")
                .doesNotContain("\"tag\"", "\"colour\"");
        assertThat(get("/odata/shed/v1/trailers?revision=1"))
                .doesNotContain("\"tag\"", "\"colour\"");
        assertThat(get("/odata/shed/v1/trailers")).contains("\"tag\":\"red\"");
    }

    @Test
    void aRevisionThatNeverWasIsSaid() throws Exception {
        for (var path :
                List.of(
                        "/api/shed/v1/trailers?revision=7",
                        "/api/shed/v1/trailers?revision=new",
                        "/api/shed/v1/trailers?revision=1&revision=2",
                        "/odata/shed/v1/trailers?revision=7")) {
            var answer = send("GET", path, "application/json", "");
            assertThat(answer.statusCode()).as(path).isEqualTo(400);
            assertThat(answer.body()).contains("revision");
        }
        assertThat(soap("/soap/shed/v1/r7", GET).body())
                .contains("shed v1 has no revision 7; its contract is of revision 2.");
    }

    /** Last, because it ends what the others call. */
    @Test
    @Order(Integer.MAX_VALUE)
    void theyAreShownWithTheirCallersAndEndedByHand() throws Exception {
        release(OBJECT.formatted("\n  crew: { type: text }", "", "", ""));
        soap("/soap/shed/v1/r2", GET);

        var shown = manage.activity().revisions("shed", 1).value();

        assertThat(shown).extracting(one -> one.number()).containsExactly(3, 2, 1);
        assertThat(shown.getFirst().newest()).isTrue();
        assertThat(shown.get(1).gained()).containsExactly("trailers: straps.colour, tag");
        assertThat(shown.get(1).callers()).extracting(one -> one.caller()).contains("yard");

        manage.activity().endRevision("shed", 1, 2);

        var refused = soap("/soap/shed/v1/r2", GET);
        assertThat(refused.body())
                .contains("Revision 2 of shed v1 was ended; take its contract anew");
        assertThat(send("GET", "/api/shed/v1/trailers?revision=2", "text/plain", "").statusCode())
                .isEqualTo(410);
        assertThat(soap("/soap/shed/v1/r1", GET).body()).contains("<name>Low</name>");
        assertThatThrownBy(() -> manage.activity().endRevision("shed", 1, 3))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("Revision 3 is the newest of shed v1");
    }
}
