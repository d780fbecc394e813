package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.client.DraftCalls;

/**
 * Files of records whose key has two fields, and of their line items, through every protocol and
 * the command line.
 */
@Timeout(180)
class FilesJourneyTest {
    private static final byte[] PDF = "%PDF-1.7\nlease".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] TEXT = "Ahoy!".getBytes(StandardCharsets.US_ASCII);
    private static final Map<String, String> CLAIMS =
            Map.of(
                    "claims/package.yaml",
                    "package: claims\nversion: 1\nlanguages: [en, de]\n",
                    "claims/objects/claim.yaml",
                    """
                    object: Claim
                    key: [year, number]
                    fields:
                      year: { type: integer }
                      number: { type: text, length: 8 }
                      title: { type: text, localised: true }
                      evidence: { type: file, required: true, accepts: [application/pdf, image/*], largest: 200 kB }
                      letter: { type: file }
                      evidenceName: { type: text, length: 255, formula: evidence.name }
                    parts:
                      expenses:
                        fields:
                          what: { type: text }
                          receipt: { type: file }
                    functions:
                      letter:
                        external: true
                        body: |
                          set this.letter = evidence
                    """,
                    "claims/services/claims-desk.yaml",
                    """
                    service: claims-desk
                    version: 1
                    protocols: [rest, odata, soap]
                    resources:
                      claims:
                        object: Claim
                        create: { fields: all }
                        read: { fields: all }
                        update: { fields: all }
                        query: { fields: all, filter: all, sort: all }
                        calls: [letter]
                    """);

    @TempDir static Path folder;

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static ServiceProcess service;
    private static String client;

    @BeforeAll
    static void start() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        release(service);
        client =
                "desk:"
                        + service.client()
                                .access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "desk",
                                                List.of("claims-desk/*/*"),
                                                false,
                                                null,
                                                null))
                                .value()
                                .secret();
    }

    private static void release(ServiceProcess service) {
        service.client().draft().push(CLAIMS);
        service.client()
                .draft()
                .release(new DraftCalls.Wanted("claims", false, false, false, false));
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static HttpResponse<byte[]> send(
            String method, String path, byte[] body, String... headers) throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(service.address() + path))
                        .header("Authorization", BasicSignIn.as(client))
                        .method(method, HttpRequest.BodyPublishers.ofByteArray(body));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
    }

    private static byte[] get(String path) throws Exception {
        return send("GET", path, new byte[0]).body();
    }

    private static String json(String method, String path, String body) throws Exception {
        return text(
                send(
                        method,
                        path,
                        body.getBytes(StandardCharsets.UTF_8),
                        "Content-Type",
                        "application/json"));
    }

    private static String text(HttpResponse<byte[]> answer) {
        return answer.statusCode() + " " + new String(answer.body(), StandardCharsets.UTF_8);
    }

    private static String base64(byte[] bytes) {
        return Base64.getEncoder().encodeToString(bytes);
    }

    /** A new claim with two expenses, the second with a receipt. */
    private static String claim(String number) throws Exception {
        assertThat(
                        json(
                                "POST",
                                "/api/claims-desk/v1/claims",
                                """
                                {"year": 2026, "number": "%s", "title": {"de": "Kaputt"},
                                 "evidence": {"name": "lease.pdf", "content": "%s"},
                                 "expenses": [{"what": "rope"},
                                  {"what": "paint", "receipt": {"name": "r.txt", "content": "%s"}}]}
                                """
                                        .formatted(number, base64(PDF), base64(TEXT))))
                .startsWith("201")
                .contains("\"evidenceName\":\"lease.pdf\"");
        return "/api/claims-desk/v1/claims/2026," + number;
    }

    @Test
    void aFileIsUploadedAndDownloadedOverRest() throws Exception {
        var claim = claim("R1");

        var put =
                send(
                        "PUT",
                        claim + "/letter",
                        TEXT,
                        "Content-Type",
                        "text/plain",
                        "Content-Disposition",
                        "attachment; filename*=UTF-8''Gr%C3%BC%C3%9Fe.txt");
        assertThat(text(put)).startsWith("200").contains("\"name\":\"Grüße.txt\"", "\"size\":5");
        var read = send("GET", claim + "/letter", new byte[0]);
        assertThat(read.body()).isEqualTo(TEXT);
        assertThat(read.headers().map())
                .containsEntry("content-type", List.of("text/plain"))
                .containsEntry("x-content-type-options", List.of("nosniff"));
        assertThat(read.headers().firstValue("content-disposition").orElse(""))
                .startsWith("attachment")
                .contains("Gr%C3%BC%C3%9Fe.txt");
        var tag = read.headers().firstValue("etag").orElse("");
        assertThat(send("GET", claim + "/letter", new byte[0], "If-None-Match", tag).statusCode())
                .isEqualTo(304);
        assertThat(send("PUT", claim + "/letter", TEXT, "If-Match", "\"1\"").statusCode())
                .isEqualTo(412);
        assertThat(text(send("DELETE", claim + "/letter", new byte[0])))
                .contains("\"letter\":null");
        assertThat(send("GET", claim + "/letter", new byte[0]).statusCode()).isEqualTo(404);
        assertThat(text(send("DELETE", claim + "/evidence", new byte[0])))
                .startsWith("422")
                .contains("Evidence is required");
    }

    @Test
    void aFileOfALineItemIsThatItemsAlone() throws Exception {
        var claim = claim("R2");

        assertThat(get(claim + "/expenses/2/receipt")).isEqualTo(TEXT);
        assertThat(send("GET", claim + "/expenses/1/receipt", new byte[0]).statusCode())
                .isEqualTo(404);
        assertThat(text(send("PUT", claim + "/expenses/1/receipt", PDF)))
                .startsWith("200")
                .contains("\"what\":\"rope\",\"receipt\":{\"name\":\"receipt.pdf\"")
                .contains("\"what\":\"paint\",\"receipt\":{\"name\":\"r.txt\"");
        assertThat(get(claim + "/expenses/1/receipt")).isEqualTo(PDF);
        assertThat(text(send("PUT", claim + "/expenses/9/receipt", PDF)))
                .startsWith("404")
                .contains("no line item 9");
    }

    @Test
    void whatIsNotAcceptedSaysWhy() throws Exception {
        var claim = claim("R3");

        assertThat(text(send("PUT", claim + "/evidence", TEXT, "Content-Type", "text/plain")))
                .startsWith("422")
                .contains("must be application/pdf or image/*");
        assertThat(text(send("PUT", claim + "/evidence", TEXT, "Content-Type", "image/png")))
                .startsWith("422")
                .contains("is said to be image/png, but by its content");
        assertThat(text(send("PUT", claim + "/evidence", new byte[300_000])))
                .startsWith("422")
                .contains("may have 200,000 bytes");
        assertThat(text(send("PUT", claim + "/letter", new byte[6 << 20]))).startsWith("413");
        assertThat(text(send("POST", claim + "/evidence", PDF))).startsWith("405");
        assertThat(text(send("PUT", claim + "/title", PDF))).startsWith("404");
        assertThat(text(send("PATCH", claim + "/evidence", PDF))).startsWith("405");
        assertThat(get(claim + "/evidence")).isEqualTo(PDF);
    }

    @Test
    void aFunctionMayHaveTheNameOfAFile() throws Exception {
        var claim = claim("R4");

        assertThat(json("POST", claim + "/letter", "{}")).startsWith("200");

        assertThat(get(claim + "/letter")).isEqualTo(PDF);
        assertThat(send("OPTIONS", claim + "/letter", new byte[0]).headers().firstValue("allow"))
                .contains("GET, HEAD, PUT, DELETE, POST, OPTIONS");
    }

    @Test
    void aStreamPropertyIsReadAndChangedOverOData() throws Exception {
        claim("O1");
        var claim = "/odata/claims-desk/v1/claims(year=2026,number='O1')";

        assertThat(json("GET", claim + "?$expand=expenses", ""))
                .contains("\"evidence@odata.mediaContentType\":\"application/pdf\"")
                .contains("\"receipt@odata.mediaContentType\":\"text/plain\"")
                .doesNotContain("\"evidence\":{");
        assertThat(
                        send("GET", claim + "/evidence", new byte[0], "Accept", "application/pdf")
                                .body())
                .isEqualTo(PDF);
        assertThat(get(claim + "/expenses(2)/receipt")).isEqualTo(TEXT);
        assertThat(send("PUT", claim + "/letter", TEXT, "Content-Type", "text/plain").statusCode())
                .isEqualTo(204);
        assertThat(get(claim + "/letter")).isEqualTo(TEXT);
        // Changing the entity leaves its streams alone.
        assertThat(json("PUT", claim, "{\"title\": {\"en\": \"Mended\"}}")).startsWith("200");
        assertThat(get(claim + "/letter")).isEqualTo(TEXT);
        assertThat(send("DELETE", claim + "/letter", new byte[0]).statusCode()).isEqualTo(204);
        assertThat(send("GET", claim + "/letter", new byte[0]).statusCode()).isEqualTo(204);
        assertThat(
                        json(
                                "POST",
                                "/odata/claims-desk/v1/claims",
                                "{\"year\": 2026, \"number\": \"O2\", \"evidence\": \"%s\","
                                                .formatted(base64(PDF))
                                        + " \"evidence@mediaContentType\": \"application/pdf\"}"))
                .startsWith("201")
                .contains("\"evidenceName\":\"evidence.pdf\"");
    }

    @Test
    void aFileComesOverSoap() throws Exception {
        var message =
                """
                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"
                    xmlns:t="urn:sandpiper:claims-desk:v1"><s:Body><t:CreateClaim><t:claim>
                  <t:year>2026</t:year><t:number>S1</t:number>
                  <t:evidence><t:name>lease.pdf</t:name><t:content>
                    %s
                  </t:content></t:evidence>
                </t:claim></t:CreateClaim></s:Body></s:Envelope>
                """
                        .formatted(base64(PDF));

        assertThat(
                        text(
                                send(
                                        "POST",
                                        "/soap/claims-desk/v1",
                                        message.getBytes(StandardCharsets.UTF_8),
                                        "Content-Type",
                                        "text/xml")))
                .contains("<name>lease.pdf</name><type>application/pdf</type><size>14</size>");
        assertThat(get("/api/claims-desk/v1/claims/2026,S1/evidence")).isEqualTo(PDF);
    }

    @Test
    void theCommandLineAttachesDownloadsAndMovesThem() throws Exception {
        var lease = folder.resolve("lease.pdf");
        Files.write(lease, PDF);
        var receipt = folder.resolve("note.txt");
        Files.write(receipt, TEXT);
        assertThat(
                        CommandRun.of(
                                service,
                                "records",
                                "create",
                                "Claim",
                                "year=2027",
                                "number=C,1",
                                "--attach",
                                "evidence=" + lease,
                                "--attach",
                                "expenses[1].receipt=" + receipt))
                .contains("\"name\" : \"lease.pdf\"", "exit 0");
        var to = folder.resolve("back.txt");
        assertThat(
                        CommandRun.of(
                                service,
                                "records",
                                "download",
                                "Claim",
                                "2027,C\\,1",
                                "expenses[1].receipt",
                                "--out",
                                to.toString()))
                .contains("exit 0");
        assertThat(to).hasBinaryContent(TEXT);
        assertThat(CommandRun.of(service, "records", "download", "Claim", "2027,C\\,1", "letter"))
                .contains("has no file in letter");

        var filter = "--filter=year = 2027";
        for (var file : List.of("claims.csv", "claims.jsonl")) {
            var out = folder.resolve(file).toString();
            var form = file.substring(file.indexOf('.') + 1);
            assertThat(
                            CommandRun.of(
                                    service, "records", "export", "Claim", filter, "--files",
                                    "--as", form, "--out", out))
                    .contains("1 records written");
            try (var other = ServiceProcess.start(folder.resolve(form + ".db"), Map.of())) {
                release(other);
                assertThat(CommandRun.of(other, "records", "import", "Claim", out))
                        .contains("1 created");
                assertThat(other.client().records().file("Claim", "2027,C\\,1", "evidence"))
                        .isEqualTo(PDF);
            }
        }
    }
}
