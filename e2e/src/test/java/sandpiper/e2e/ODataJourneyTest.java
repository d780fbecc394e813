package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The berth desk over OData, by clients that nobody here wrote and by hand. */
@Tag("each-engine")
@ExtendWith(Marina.class)
class ODataJourneyTest {
    private static final String SITE = "booking-site:berths-for-all";
    private static final String ROOT = "/odata/berth-desk/v1";
    private static final String CLIENTS = "../docs/guide/clients/";
    private static final String SAMPLE = "stays('ST-2026-000001')";

    @TempDir Path folder;

    private static List<String> arguments() {
        var arguments = new ArrayList<>(List.of(Marina.address() + ROOT));
        arguments.addAll(List.of(SITE.split(":")));
        return arguments;
    }

    @Test
    void aClientLibraryInJavaWorks() throws Exception {
        var java = Path.of(System.getProperty("java.home"), "bin");
        var classes = System.getProperty("java.class.path");
        var source = Path.of(CLIENTS + "BerthDesk.java").toAbsolutePath().toString();
        Program.run(
                folder,
                List.of(
                        java.resolve("javac").toString(),
                        "-proc:none",
                        "-cp",
                        classes,
                        "-d",
                        folder.toString(),
                        source));
        var command =
                new ArrayList<>(
                        List.of(
                                java.resolve("java").toString(),
                                "-cp",
                                folder + ":" + classes,
                                "BerthDesk"));
        command.addAll(arguments());

        assertThat(Program.run(folder, command))
                .contains("a stay has 21 properties", "3 of 28 berths", "asked for, 4 nights")
                .contains("refused: Berth: there is no Berth \"NOWHERE\".");
    }

    @Test
    void aClientLibraryInJavaScriptWorks() throws Exception {
        // Beside the package it imports, as a program of its own would be.
        var program = Path.of("linter/target-berth-desk.mjs").toAbsolutePath();
        Files.copy(
                Path.of(CLIENTS + "berth-desk.mjs"), program, StandardCopyOption.REPLACE_EXISTING);
        try {
            var command = new ArrayList<>(List.of("node", program.toString()));
            command.addAll(arguments());

            assertThat(Program.run(folder, command))
                    .contains("3 berths", "asked for, 4 nights, 1 charge", "Cancelled, version 2")
                    .contains("refused: There is no Stay \"ST-1999-000001\".");
        } finally {
            Files.delete(program);
        }
    }

    private static Marina.Answer get(String path) {
        return Marina.get(SITE, ROOT + "/" + path.replace(" ", "%20"));
    }

    private static String body(String path) {
        var answer = get(path);
        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(200);
        return answer.whole().body();
    }

    private static Marina.Answer send(String method, String path, String json, String... headers) {
        var all = new ArrayList<>(List.of("Content-Type", "application/json"));
        all.addAll(List.of(headers));
        return Marina.call(SITE, method, ROOT + "/" + path, json, all.toArray(String[]::new));
    }

    @Test
    void metadataComesInXmlAndInJson() {
        assertThat(body("$metadata"))
                .contains("<EntityType Name=\"Stay\"><Key><PropertyRef Name=\"number\"/>")
                .contains("Name=\"charges\" Type=\"Collection(BerthDesk.v1.StayCharge)\"")
                .contains("<Action Name=\"checkIn\" ", "Term=\"Validation.AllowedValues\"");
        assertThat(body("$metadata?$format=json"))
                .contains(
                        "\"$Version\":\"4.01\"", "\"@Org.OData.Core.V1.Description\":\"Arrival\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "stays?$filter=number eq"
                        + " 'ST-2026-000001'&$select=arrival|\"arrival\":\"2026-01-03\"",
                "stays?$top=1&$expand=vessel($select=name;$expand=owner)|\"owner\":{\"name\":",
                "stays?$top=1&$expand=charges($top=1;$count=true)|\"charges@odata.count\":",
                "stays?$top=1&$expand=charges/$count|\"charges@odata.count\":",
                "stays?$top=0&$count=true|\"@odata.count\":4",
                "stays?$search=lantern AND st-2026&$count=true&$top=1|\"@odata.count\":",
                "stays?$skip=3&$top=1&$select=number|ST-2026-000004",
                "stays/$count?$filter=arrival lt 2026-01-03|",
                "stays?$filter=charges/any(c:c/tariffKey eq 'WATER') and not"
                        + " charges/all(c:c/quantity lt 2)&$top=1&$select=number|\"value\":[{",
                SAMPLE + "/charges(1)|\"line\":1",
                SAMPLE + "/vessel/owner/name|\"value\":",
                SAMPLE + "/arrival/$value|2026-01-03",
                SAMPLE + "/charges/$count|2",
                "vessels('GH-157')|\"registration\":\"GH-157\"",
                "berths?$filter=maxLength in (21,20) and not (powered eq false)|\"value\":[{",
                "berths?$filter=pierKey eq 'S' or startswith(tolower(code),'n-')|\"value\":[{",
            })
    void whatIsAskedForIsAnswered(String path, String expected) {
        assertThat(body(path)).contains(expected == null ? "" : expected);
    }

    @Test
    void pagesFollowOneAnother() {
        var seen = new ArrayList<String>();
        var next = "stays?$select=number&$top=7&$orderby=arrival desc,number";
        while (next != null) {
            var answer =
                    Marina.call(
                            SITE,
                            "GET",
                            ROOT + "/" + next.replace(" ", "%20"),
                            "",
                            "Prefer",
                            "odata.maxpagesize=3");
            var page = answer.whole().body();
            var number = Pattern.compile("\"number\":\"([^\"]+)\"").matcher(page);
            while (number.find()) {
                seen.add(number.group(1));
            }
            var link = Pattern.compile("\"@odata.nextLink\":\"[^\"]*/v1/([^\"]+)\"").matcher(page);
            next = link.find() ? link.group(1) : null;
        }
        assertThat(seen).hasSize(7).doesNotHaveDuplicates();
    }

    @Test
    void aRecordIsMadeChangedAndRemoved() {
        var made =
                send(
                        "POST",
                        "vessels",
                        """
                        {"registration": "O/'D 1", "name": "Odd One", "kind": "motor", "length": 9.5,
                         "beam": 3, "draught": 1.1, "ownerKey": "OW-0040"}
                        """);
        assertThat(made.whole().body()).contains("\"registration\":\"O/'D 1\"");
        var address = "vessels('O%2F%27%27D%201')";
        assertThat(made.whole().headers().firstValue("Location").orElseThrow())
                .endsWith("vessels('O%2F''D%201')");

        var stale = send("PATCH", address, "{\"name\": \"Later\"}", "If-Match", "\"9\"");
        assertThat(stale.status()).isEqualTo(412);
        var brief = send("PATCH", address, "{\"name\": \"Later\"}", "Prefer", "return=minimal");
        assertThat(brief.status()).isEqualTo(204);
        assertThat(body(address)).contains("\"name\":\"Later\"", "\"@odata.etag\":\"\\\"2\\\"\"");
        var byKey = send("PATCH", "vessels('O-NEW')", "{\"name\": \"New\"}");
        assertThat(byKey.status()).isEqualTo(422);
        assertThat(byKey.whole().body()).contains("\"target\":\"length\"", "\"details\":[");
    }

    @Test
    void aRepeatedRequestIsDoneOnce() {
        var json =
                """
                {"registration": "ONCE-1", "name": "Once", "kind": "motor", "length": 9.5,
                 "beam": 3, "draught": 1.1, "ownerKey": "OW-0040"}
                """;
        var first = send("POST", "vessels", json, "Idempotency-Key", "odata-once");
        var second = send("POST", "vessels", json, "Idempotency-Key", "odata-once");

        assertThat(first.status()).isEqualTo(201);
        assertThat(second.status()).isEqualTo(201);
        assertThat(second.whole().body()).isEqualTo(first.whole().body());
        assertThat(second.whole().headers().firstValue("Idempotent-Replayed")).hasValue("true");
    }

    private static String vessel(String registration, String kind) {
        return """
        {"registration": "%s", "name": "In a batch", "kind": "%s", "length": 9, "beam": 3,
         "draught": 1.1, "ownerKey": "OW-0040"}
        """
                .formatted(registration, kind);
    }

    @Test
    void aGroupInABatchIsDoneOrLeftAsOne() {
        var batch =
                """
                {"requests": [
                  {"id": "a", "method": "POST", "url": "vessels", "atomicityGroup": "g", "body": %s},
                  {"id": "b", "method": "POST", "url": "vessels", "atomicityGroup": "g", "body": %s},
                  {"id": "c", "method": "GET", "url": "vessels('BATCH-1')", "dependsOn": ["g"]}]}
                """;
        var refused =
                send(
                                "POST",
                                "$batch",
                                batch.formatted(
                                        vessel("BATCH-1", "motor"), vessel("BATCH-2", "plane")),
                                "Prefer",
                                "continue-on-error")
                        .whole()
                        .body();
        assertThat(refused).contains("\"status\":422", "\"status\":424");
        assertThat(get("vessels('BATCH-1')").status()).isEqualTo(404);

        var done =
                send(
                                "POST",
                                "$batch",
                                batch.formatted(
                                        vessel("BATCH-1", "motor"), vessel("BATCH-2", "motor")))
                        .whole()
                        .body();
        assertThat(done).contains("\"id\":\"c\",\"status\":200");
    }

    @Test
    void whatIsNotOfferedSpoilsItsOwnGroupOnly() {
        var batch =
                """
                {"requests": [
                  {"id": "a", "method": "POST", "url": "vessels", "atomicityGroup": "g", "body": %s},
                  {"id": "b", "method": "DELETE", "url": "berths('M-07')", "atomicityGroup": "g"},
                  {"id": "c", "method": "GET", "url": "stays/$count"}]}
                """
                        .formatted(vessel("BATCH-9", "motor"));
        var answer = send("POST", "$batch", batch, "Prefer", "continue-on-error");

        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.whole().body())
                .contains("{\"id\":\"b\",\"atomicityGroup\":\"g\",\"status\":405")
                .contains("{\"id\":\"a\",\"atomicityGroup\":\"g\",\"status\":424")
                .contains("{\"id\":\"c\",\"status\":200");
        assertThat(get("vessels('BATCH-9')").status()).isEqualTo(404);
    }

    @Test
    void aGroupThatIsTornApartIsRefusedAsAWhole() {
        var batch =
                """
                {"requests": [
                  {"id": "a", "method": "DELETE", "url": "stays('A')", "atomicityGroup": "g"},
                  {"id": "b", "method": "GET", "url": "stays/$count"},
                  {"id": "c", "method": "DELETE", "url": "stays('B')", "atomicityGroup": "g"}]}
                """;
        var answer = send("POST", "$batch", batch);

        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.whole().body()).contains("do not stand together");
    }

    @Test
    void anOptionThatIsNotFollowedSpoilsItsOwnRequestOnly() {
        var batch =
                """
                {"requests": [
                  {"id": "a", "method": "GET", "url": "stays?$frobnicate=1"},
                  {"id": "b", "method": "GET", "url": "stays?revision=1&$top=1"},
                  {"id": "c", "method": "POST", "url": "vessels", "atomicityGroup": "g", "body": %s},
                  {"id": "d", "method": "POST", "url": "vessels?$frobnicate=1", "atomicityGroup": "g", "body": %s},
                  {"id": "e", "method": "GET", "url": "stays/$count"}]}
                """
                        .formatted(vessel("ALONE-1", "motor"), vessel("ALONE-2", "motor"));
        var answer = send("POST", "$batch", batch, "Prefer", "continue-on-error");

        assertThat(answer.status()).isEqualTo(200);
        var bodies = answer.json().path("responses");
        var statuses = new java.util.TreeMap<String, Integer>();
        bodies.forEach(one -> statuses.put(one.path("id").asString(), one.path("status").asInt()));
        assertThat(statuses)
                .containsEntry("a", 400)
                .containsEntry("b", 400)
                .containsEntry("d", 400)
                .containsEntry("e", 200);
        assertThat(answer.whole().body())
                .contains("frobnicate", "at the address of the batch, for all in it");
        assertThat(get("vessels('ALONE-1')").status()).isEqualTo(404);
    }

    @Test
    void inAMultipartBatchItSpoilsItsOwnPartOnly() {
        var part =
                """
                --batch
                Content-Type: application/http
                Content-Transfer-Encoding: binary

                GET %s HTTP/1.1


                """;
        var batch =
                part.formatted("stays?$frobnicate=1")
                        + part.formatted("stays?revision=1")
                        + part.formatted("stays/$count")
                        + "--batch--\n";

        var answer = multipart(batch, "continue-on-error");

        assertThat(answer).containsPattern("(?s)400 .*frobnicate.*400 .*revision.*200 ");
    }

    @Test
    void aChangeSetInAMultipartBatchIsDoneOrLeftAsOne() {
        var part =
                """
                --set
                Content-Type: application/http
                Content-Transfer-Encoding: binary
                Content-ID: %s

                POST vessels HTTP/1.1
                Content-Type: application/json

                %s
                """;
        var batch =
                """
                --batch
                Content-Type: multipart/mixed;boundary=set

                %s%s--set--
                --batch
                Content-Type: application/http
                Content-Transfer-Encoding: binary

                GET stays/$count HTTP/1.1


                --batch--
                """;
        var refused =
                batch.formatted(
                        part.formatted("1", vessel("MULTI-1", "motor")),
                        part.formatted("2", vessel("MULTI-2", "plane")));
        var done =
                batch.formatted(
                        part.formatted("1", vessel("MULTI-1", "motor")),
                        part.formatted("2", vessel("MULTI-2", "motor")));

        assertThat(multipart(refused)).contains("400 Bad Request").doesNotContain("201");
        assertThat(get("vessels('MULTI-1')").status()).isEqualTo(404);
        assertThat(multipart(done)).containsPattern("(?s)201.*201.*200");
    }

    private static String multipart(String batch) {
        return multipart(batch, "continue-on-error=false");
    }

    private static String multipart(String batch, String prefer) {
        return Marina.call(
                        SITE,
                        "POST",
                        ROOT + "/$batch",
                        batch.replace("\n", "\r\n"),
                        "Content-Type",
                        "multipart/mixed;boundary=batch",
                        "Prefer",
                        prefer)
                .whole()
                .body();
    }

    @Test
    void groupsComeInPagesWithTheirFigures() {
        var apply =
                "stays?$apply=filter(state%20eq%20'Departed')/groupby((vessel/name),aggregate($count%20as%20n,arrival%20with%20min%20as%20first))";
        var groups = apply + "&$orderby=n%20desc,vessel/name&$top=5";
        var first = send("GET", groups, "", "Prefer", "maxpagesize=3");
        assertThat(first.status()).as(first.whole().body()).isEqualTo(200);
        assertThat(first.whole().body())
                .contains("$metadata#stays(vessel(name),n,first)", "\"@odata.id\":null")
                .contains("\"n@odata.type\":\"#Int64\"", "\"first@odata.type\":\"#Date\"");

        var next = first.json().get("@odata.nextLink").asString();
        var second = get(next.substring(next.indexOf("/v1/") + 4)).json();
        var all = new ArrayList<>(first.json().get("value").valueStream().toList());
        all.addAll(second.get("value").valueStream().toList());

        assertThat(second.has("@odata.nextLink")).isFalse();
        assertThat(all).hasSize(5).doesNotHaveDuplicates();
        assertThat(get(groups).json().get("value").valueStream()).containsExactlyElementsOf(all);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "stays?$filter=nigths eq 3|400|nigths",
                "stays?$filter=nights eq 3|400|has no field \\\"nights\\\"",
                "stays?$filter=state eq 3|400|not compatible",
                "stays?$filter=state eq|400|error",
                "stays?$orderby=nights|400|You cannot sort by",
                "stays?$skiptoken=AAAA|400|not a cursor",
                "stays?$filter=charges/$count gt 3|501|charges",
                "stays?$filter=charges/any(c:c/net gt 3)|400|charges has no field",
                "stays?$apply=concat(identity,identity)|501|concat is not offered in $apply",
                "stays/$count?$apply=identity|501|$apply",
                "stays?$apply=groupby((nigths))|400|no property \\\"nigths\\\"",
                "stays('NOPE')|404|There is no Stay",
                "stays('😀''/x')|404|There is no Stay",
                "nothing|404|nothing",
                "stays?$format=atom|406|atom",
                "vessels?$top=1|405|vessels does not offer query",
            })
    void whatIsWrongIsSaid(String path, int status, String message) {
        var encoded =
                path.replace("😀''/x", "%F0%9F%98%80%27%27%2Fx")
                        .replace("$count as", "$count%20as");
        var answer = get(encoded);

        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(status);
        assertThat(answer.whole().body()).contains("{\"error\":{\"code\":\"").contains(message);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"depature\": \"2027-04-01\"}|400|Did you mean departure?",
                "{\"vessel\": {\"name\": \"x\"}}|400|vesselKey",
                "{\"departure\": |400|line 1",
                "[1]|400|JSON object",
                "|400|empty",
                "{\"charges\": [{\"tarif\": 1}]}|400|Did you mean tariffKey?",
                "{\"vessel@odata.bind\": \"berths('M-07')\"}|400|must be a link",
                "{\"departure\": 3}|422|\"target\":\"departure\"",
            })
    void whatIsSentWrongIsSaid(String line) {
        var parts = line.split("\\|");
        var answer = send("PATCH", SAMPLE, parts[0]);

        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(Integer.parseInt(parts[1]));
        assertThat(answer.whole().body()).contains("{\"error\":{").contains(parts[2]);
    }

    @Test
    void strangersGetAnErrorOfTheProtocol() {
        var answer = Marina.get("booking-site:wrong", ROOT + "/stays");

        assertThat(answer.status()).isEqualTo(401);
        assertThat(answer.whole().body()).startsWith("{\"error\":{\"code\":\"unauthorized\"");
        assertThat(Marina.get("port-authority:tide-tables-2026", ROOT + "/stays").status())
                .isEqualTo(404);
    }
}
