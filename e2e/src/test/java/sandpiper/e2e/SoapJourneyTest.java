package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The harbour report as the port authority uses it: by generated clients, and by hand. */
@Tag("each-engine")
@ExtendWith(Marina.class)
class SoapJourneyTest {
    private static final String AUTHORITY = "port-authority:tide-tables-2026";
    private static final String ADDRESS = "/soap/harbour-report/v1";
    private static final String CLIENTS = "../docs/guide/clients/";

    @TempDir Path folder;

    private Path contract() throws Exception {
        var file = folder.resolve("harbour-report.wsdl");
        var answer = Marina.get(AUTHORITY, ADDRESS + "?wsdl");
        assertThat(answer.status()).isEqualTo(200);
        Files.writeString(file, answer.whole().body());
        return file;
    }

    private static List<String> credentials() {
        return List.of(AUTHORITY.split(":"));
    }

    private static String java(String program) {
        return Path.of(System.getProperty("java.home"), "bin", program).toString();
    }

    @Test
    void aClientGeneratedInJavaWorksUnchanged() throws Exception {
        var contract = contract();
        var made = Files.createDirectory(folder.resolve("made"));
        var tools = Path.of("target/tools/jaxws-ri/lib").toAbsolutePath() + File.separator + "*";
        var classes = made + File.pathSeparator + tools;
        Program.run(
                folder,
                List.of(
                        java("java"),
                        "-cp",
                        tools,
                        "com.sun.tools.ws.WsImport",
                        "-quiet",
                        "-p",
                        "report",
                        "-d",
                        made.toString(),
                        contract.toString()));
        var source = Path.of(CLIENTS + "HarbourReport.java").toAbsolutePath().toString();
        Program.run(folder, List.of(java("javac"), "-cp", classes, "-d", made.toString(), source));
        var command = new ArrayList<>(List.of(java("java"), "-cp", classes, "HarbourReport"));
        command.addAll(List.of(contract.toUri().toString(), Marina.address() + ADDRESS));
        command.addAll(credentials());

        assertThat(Program.run(folder, command))
                .contains("2 of ", " alongside", "filed 2026-11-02, version 1")
                .contains("refused: There is no Stay \"ST-1999-000001\".");
    }

    @ParameterizedTest
    @ValueSource(strings = {"basic", "digest"})
    void aClientInAnotherLanguageWorksUnchanged(String signedIn) throws Exception {
        var secret = SignedInByDigest.secret("harbour-watch", "harbour-report/*/*");
        // Beside the package it imports, as a program of its own would be.
        var program = Path.of("linter/target-harbour-report.mjs").toAbsolutePath();
        Files.copy(
                Path.of(CLIENTS + "harbour-report.mjs"),
                program,
                StandardCopyOption.REPLACE_EXISTING);
        try {
            var command = new ArrayList<>(List.of("node", program.toString()));
            command.addAll(List.of(contract().toString(), Marina.address() + ADDRESS));
            command.addAll(
                    signedIn.equals("digest")
                            ? List.of("harbour-watch", secret, signedIn)
                            : credentials());

            assertThat(Program.run(folder, command))
                    .contains("2 of ", " alongside", "filed, version 1")
                    .contains("refused: There is no Stay \"ST-1999-000001\".");
        } finally {
            Files.delete(program);
        }
    }

    @Test
    void aClientInPythonWorksUnchanged() throws Exception {
        var program = Path.of(CLIENTS + "harbour-report.py").toAbsolutePath().toString();
        var command = new ArrayList<>(List.of(Program.PYTHON, program));
        command.addAll(List.of(contract().toString(), Marina.address() + ADDRESS));
        command.addAll(credentials());

        assertThat(Program.run(folder, command))
                .contains("2 of ", " alongside", "filed 2026-11-02, version 1")
                .contains("refused: There is no Stay \"ST-1999-000001\".");
    }

    private static Marina.Answer soap(String who, String type, String envelope) {
        return Marina.call(who, "POST", ADDRESS, envelope, "Content-Type", type);
    }

    private static String envelope(String namespace, String header, String body) {
        return "<s:Envelope xmlns:s=\"%s\" xmlns=\"urn:sandpiper:harbour-report:v1\">%s<s:Body>%s</s:Body></s:Envelope>"
                .formatted(namespace, header, body);
    }

    private static String soap11(String body) {
        return envelope("http://schemas.xmlsoap.org/soap/envelope/", "", body);
    }

    @Test
    void soap12AnswersInItsOwnWay() {
        var answer =
                soap(
                        AUTHORITY,
                        "application/soap+xml",
                        envelope(
                                "http://www.w3.org/2003/05/soap-envelope",
                                "",
                                "<CreateInspection><inspection><vessel>GH-999</vessel>"
                                        + "<inspectedOn>2026-11-01+01:00</inspectedOn>"
                                        + "<inspector>A. Post</inspector></inspection>"
                                        + "</CreateInspection>"));

        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.header("Content-Type")).startsWith("application/soap+xml");
        assertThat(answer.whole().body())
                .contains("<s:Value>s:Sender</s:Value>", "<status>422</status>")
                .contains("<field>inspection/vessel</field>", "there is no Vessel");
    }

    @Test
    void aTokenInTheMessageIsAsGoodAsBasic() {
        var token =
                "<s:Header><w:Security s:mustUnderstand=\"1\""
                    + " xmlns:w=\"http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd\"><w:UsernameToken><w:Username>port-authority</w:Username><w:Password>%s</w:Password></w:UsernameToken></w:Security></s:Header>";
        var body = "<FindStays><limit>1</limit></FindStays>";
        var namespace = "http://schemas.xmlsoap.org/soap/envelope/";

        assertThat(
                        soap(
                                        "",
                                        "text/xml",
                                        envelope(
                                                namespace,
                                                token.formatted("tide-tables-2026"),
                                                body))
                                .status())
                .isEqualTo(200);
        assertThat(
                        soap("", "text/xml", envelope(namespace, token.formatted("wrong"), body))
                                .status())
                .isEqualTo(401);
        assertThat(soap("", "text/xml", soap11(body)).status()).isEqualTo(401);
    }

    private static Marina.Answer withDigest(SignedInByDigest token) {
        return soap(
                "",
                "text/xml",
                envelope(
                        "http://schemas.xmlsoap.org/soap/envelope/",
                        token.header(),
                        "<FindStays><limit>1</limit></FindStays>"));
    }

    @Test
    void aDigestIsGoodOnceAndForAShortTime() {
        var secret = SignedInByDigest.secret("tide-office", "harbour-report/stays/query");
        var now = Instant.now();
        var token = SignedInByDigest.made("tide-office", secret, "first", now);

        assertThat(withDigest(token).status()).isEqualTo(200);
        assertThat(withDigest(token).whole().body())
                .as("the same again, as somebody who listened would send it")
                .contains("The PasswordDigest is not right: it is good once");
        var next = SignedInByDigest.made("tide-office", secret, "next", now);
        assertThat(withDigest(next).status()).isEqualTo(200);
        var old = SignedInByDigest.made("tide-office", secret, "old", now.minusSeconds(6 * 60));
        assertThat(withDigest(old).status()).isEqualTo(401);
        var wrong = SignedInByDigest.made("tide-office", "another secret", "wrong", now);
        assertThat(withDigest(wrong).status()).isEqualTo(401);
        var hashed = SignedInByDigest.made("port-authority", "tide-tables-2026", "hashed", now);
        assertThat(withDigest(hashed).status())
                .as("its secret is kept as a hash only")
                .isEqualTo(401);
    }

    @Test
    void aFieldThatIsNilIsMadeEmptyAndOneThatIsAbsentStays() {
        var changed =
                soap(
                        AUTHORITY,
                        "text/xml",
                        soap11(
                                "<UpdateVessel><key>GH-105</key><vessel><beam"
                                        + " xmlns:i=\"http://www.w3.org/2001/XMLSchema-instance\""
                                        + " i:nil=\"true\"/></vessel></UpdateVessel>"));

        assertThat(changed.status()).isEqualTo(200);
        assertThat(changed.whole().body()).contains("<name>", "<length>").doesNotContain("<beam>");
    }

    @Test
    void onlyRecordsOfTheServiceAreThereAndOnlyOverItsProtocol() {
        var requested =
                Marina.get(
                                Marina.BOOKING,
                                "/api/berth-desk/v1/stays?filter=state%20%3D%20%22Requested%22&limit=1")
                        .json()
                        .path("items")
                        .path(0)
                        .path("number")
                        .asString();

        var answer =
                soap(
                        AUTHORITY,
                        "text/xml",
                        soap11("<GetStay><key>" + requested + "</key></GetStay>"));

        assertThat(answer.whole().body()).contains("There is no Stay \"" + requested + "\".");
        assertThat(Marina.get(AUTHORITY, "/api/harbour-report/v1/stays").status()).isEqualTo(404);
        assertThat(Marina.get(Marina.BOOKING, ADDRESS + "?wsdl").status()).isEqualTo(404);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    <FindStay/>                                     | Did you mean FindStays?
                    <GetStay><kee>x</kee></GetStay>                 | kee may not stand here
                    <GetStay/>                                      | GetStay
                    <GetStay xmlns=""><key>x</key></GetStay>        | must be in the namespace
                    <FindStays><criteria><state><equals>Sunk</equals></state></criteria></FindStays> | Sunk
                    <FindStays><sort><field>remarks</field></sort></FindStays>  | remarks
                    <FindStays><limit>5000</limit></FindStays>      | 5000
                    <FindStays><after>forged</after></FindStays>    | not a cursor
                    <FindStays><criteria><number><like>a*b</like></number></criteria></FindStays> | only at the beginning and the end
                    <CreateInspection><inspection><vessel>GH-101</vessel><inspectedOn>1 May</inspectedOn></inspection></CreateInspection> | 1 May
                    <RemoveVessel><key>GH-101</key><version>77</version></RemoveVessel> | was changed
                    """)
    void aMistakeIsAFaultThatSaysWhatToDo(String body, String said) {
        var answer = soap(AUTHORITY, "text/xml", soap11(body));

        assertThat(answer.status()).isEqualTo(500);
        assertThat(answer.whole().body())
                .contains("<faultcode>s:Client</faultcode>", said)
                .doesNotContain("Exception", "java.", "cvc-");
    }

    @Test
    void documentTypesDepthAndOtherContentAreRefused() {
        var entity = "<!DOCTYPE a [<!ENTITY b SYSTEM \"file:///etc/hostname\">]><a>&b;</a>";
        var deep = soap11("<a>".repeat(500) + "</a>".repeat(500));

        assertThat(soap(AUTHORITY, "text/xml", entity).whole().body()).contains("no DOCTYPE");
        assertThat(soap(AUTHORITY, "text/xml", deep).whole().body()).contains("s:Client");
        assertThat(soap(AUTHORITY, "text/xml", "<s:Envelope").whole().body()).contains("line 1");
        assertThat(soap(AUTHORITY, "application/json", "{}").status()).isEqualTo(415);
    }
}
