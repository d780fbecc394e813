package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

/**
 * A field is added in one file and sent along a route: it is on every document and line item, with
 * its value, in every protocol, for what was there and for what comes.
 */
class RouteJourneyTest {
    private static final Map<String, String> YARD =
            Map.of(
                    "yard/package.yaml",
                    "package: yard\nversion: 1\nlanguages: [en, de]\n",
                    "yard/objects/payer.yaml",
                    """
                    object: Payer
                    key: [land, code]
                    fields:
                      land: { type: text, required: true }
                      code: { type: text, required: true }
                      parent: { type: reference, to: Payer }
                    """,
                    "yard/objects/job.yaml",
                    """
                    object: Job
                    key: number
                    fields:
                      number: { type: text, required: true }
                      payer: { type: reference, to: Payer }
                    parts:
                      hours:
                        fields:
                          count: { type: integer }
                    """,
                    "yard/objects/bill.yaml",
                    """
                    object: Bill
                    key: number
                    fields:
                      number: { type: text, required: true }
                      job: { type: reference, to: Job }
                    """,
                    "yard/services/desk.yaml",
                    """
                    service: desk
                    version: 1
                    protocols: [rest, soap, odata]
                    resources:
                      jobs:
                        object: Job
                        create: { fields: [number, payer, hours(count)] }
                        read: { fields: [number, payer, hours(count)] }
                      bills:
                        object: Bill
                        create: { fields: [number, job] }
                        read: { fields: [number, job] }
                        update: { fields: [job] }
                        query: { fields: [number] }
                      payers:
                        object: Payer
                        create: { fields: [land, code, parent] }
                        update: { fields: [parent] }
                        read: { fields: [land, code] }
                    """);

    /** What the customer's own package says: a field, a route, nothing else. */
    private static final Map<String, String> OWN =
            Map.of(
                    "own/package.yaml",
                    "package: own\nversion: 1\ndepends: [yard]\nlanguages: [en, de]\n",
                    "own/extensions/payer.yaml",
                    """
                    extend: Payer
                    fields:
                      centre: { type: text, length: 10, label: { en: Cost centre, de: Kostenstelle }, travels: papers }
                      greeting: { type: text, localised: true, travels: { route: papers, to: [Bill] } }
                    """,
                    "own/routes/papers.yaml",
                    """
                    route: papers
                    steps:
                      - { from: Payer, to: Job, through: payer }
                      - { from: Job, to: Job.hours }
                      - { from: Job, to: Bill, through: job }
                    services: [desk]
                    """);

    @TempDir Path folder;
    private final HttpClient http = HttpClient.newHttpClient();
    private SandpiperServer.Running service;
    private ManageClient manage;
    private String credentials;

    @BeforeEach
    void begin() throws Exception {
        start();
        release(YARD);
        credentials =
                "office:"
                        + manage.access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "office",
                                                List.of("desk/*/*"),
                                                false,
                                                100_000,
                                                null))
                                .value()
                                .secret();
        made("payers", "{\"land\": \"N\", \"code\": \"a,b\"}");
        made("payers", "{\"land\": \"S\", \"code\": \"c\", \"parent\": \"N,a\\\\,b\"}");
        made("jobs", "{\"number\": \"J1\", \"payer\": \"N,a\\\\,b\", \"hours\": [{\"count\": 1}]}");
        made("bills", "{\"number\": \"B1\", \"job\": \"J1\"}");
    }

    private void start() {
        service =
                SandpiperServer.start(
                        new StartOptions(folder.resolve("data.db"), 0, "routes and papers"));
        manage = new ManageClient(service.address(), "admin", "routes and papers");
    }

    @AfterEach
    void end() {
        service.close();
        http.close();
    }

    private void release(Map<String, String> files) {
        manage.draft().push(files);
        manage.draft().release(new DraftCalls.Wanted("papers", false, false, false, false));
    }

    private String send(String method, String path, String type, String body) throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(service.address() + path))
                        .header("Authorization", BasicSignIn.as(credentials))
                        .header("Content-Type", type)
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build();
        var answer = http.send(request, HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 299);
        return answer.body();
    }

    private String rest(String path) throws Exception {
        return send("GET", "/api/desk/v1/" + path, "application/json", "");
    }

    private String made(String resource, String body) throws Exception {
        return send("POST", "/api/desk/v1/" + resource, "application/json", body);
    }

    private String soap(String revision, String call) throws Exception {
        return send(
                "POST",
                "/soap/desk/v1" + revision,
                "text/xml",
                "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\""
                        + " xmlns=\"urn:sandpiper:desk:v1\"><s:Body>"
                        + call
                        + "</s:Body></s:Envelope>");
    }

    private String contract(String form) {
        return manage.draft().contract(new DraftCalls.Service("desk", 1), form);
    }

    @Test
    void aFieldThatIsAddedOnceIsEverywhereWithItsValue() throws Exception {
        var before = contract("wsdl");
        manage.draft().push(OWN);
        assertThat(manage.draft().preview().value().changes().toString())
                .contains("Bill: field centre is added")
                .contains("from Job by the route papers");
        assertThat(manage.draft().preview().value().following().toString())
                .contains("Job.centre is taken over from Payer for 1 record of Job.")
                .contains("Bill.greeting is taken over from Payer for 1 record of Bill.");
        manage.draft().release(new DraftCalls.Wanted("papers", false, false, false, false));

        assertThat(before).doesNotContain("centre");
        for (var form : List.of("wsdl", "openapi.json", "odata")) {
            assertThat(contract(form)).as(form).contains("centre").contains("Added by own.");
        }
        send(
                "PATCH",
                "/api/desk/v1/payers/" + ManageClient.escape("N,a\\,b"),
                "application/json",
                "{\"centre\": \"4711\", \"greeting\": {\"en\": \"Hello\", \"de\": \"Moin\"}}");
        made("jobs", "{\"number\": \"J2\", \"payer\": \"N,a\\\\,b\", \"hours\": [{\"count\": 1}]}");
        assertThat(rest("jobs/J2"))
                .contains(
                        "\"centre\":\"4711\",\"hours\":[{\"line\":1,\"count\":1,\"centre\":\"4711\"}]");

        soap("", "<CreateBill><bill><number>B2</number><job>J2</job></bill></CreateBill>");
        assertThat(rest("bills/B2"))
                .contains("\"centre\":\"4711\"", "\"greeting\":{\"en\":\"Hello\",\"de\":\"Moin\"}");
        assertThat(soap("", "<GetBill><key>B2</key></GetBill>")).contains("<centre>4711</centre>");
        assertThat(send("GET", "/odata/desk/v1/bills('B2')?$select=centre", "text/plain", ""))
                .contains("\"centre\":\"4711\"");

        send(
                "POST",
                "/odata/desk/v1/bills",
                "application/json",
                "{\"number\": \"B3\", \"jobKey\": \"J2\", \"centre\": \"1\"}");
        assertThat(rest("bills/B3")).contains("\"centre\":\"1\"");
        assertThat(rest("bills?count=true")).contains("\"centre\":\"4711\"", "\"count\":3");

        // Who has the contract from before is answered as it says.
        var address = before.replaceAll("(?s).*/soap/desk/v1(/r\\d+)\".*", "$1");
        assertThat(soap(address, "<GetBill><key>B2</key></GetBill>"))
                .contains("<number>B2</number>")
                .doesNotContain("centre");
    }

    @Test
    void recordsThatAreThereGetItWithTheReleaseAndKeepItWhenItGoes() throws Exception {
        release(
                Map.of(
                        "own/package.yaml",
                        OWN.get("own/package.yaml"),
                        "own/extensions/payer.yaml",
                        "extend: Payer\nfields:\n  centre: { type: text, length: 10 }\n"));
        manage.records().change("Payer", "N,a\\,b", Map.of("centre", "4711"), null);
        release(OWN);

        assertThat(rest("jobs/J1"))
                .contains(
                        "\"centre\":\"4711\",\"hours\":[{\"line\":1,\"count\":1,\"centre\":\"4711\"}]");
        assertThat(rest("bills/B1")).contains("\"centre\":\"4711\"");

        var without = new HashMap<>(OWN);
        without.put(
                "own/routes/papers.yaml",
                OWN.get("own/routes/papers.yaml")
                        .replace("  - { from: Job, to: Job.hours }\n", ""));
        manage.draft().push(without);
        assertThat(manage.draft().preview().value().losses().toString())
                .contains("Job.hours.centre is removed. Its value in 1 record is kept aside");
        assertThat(manage.draft().preview().value().breaks().toString()).contains("hours");
        manage.draft().release(new DraftCalls.Wanted("fewer", true, true, false, false));
        assertThat(rest("jobs/J1"))
                .contains("\"centre\":\"4711\",\"hours\":[{\"line\":1,\"count\":1}]");

        service.close();
        start();
        release(OWN);
        assertThat(rest("jobs/J1")).contains("\"count\":1,\"centre\":\"4711\"");
    }
}
