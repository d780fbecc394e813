package sandpiper.server.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.Problem.Wrong;

/** Where a protocol answers, and in which words it says what went wrong. */
class ProtocolTest {
    private static final Problem TWO =
            Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "2 things are wrong; each is listed with its place.",
                    List.of(
                            new Wrong(
                                    FaultPath.of("charges").then(0).then("tariff"),
                                    "SP4101",
                                    "Tariff is required."),
                            new Wrong(FaultPath.WHOLE, "SP4102", "Too <much>.")));

    @Test
    void anAddressTellsTheProtocol() {
        assertThat(Protocol.at("/api/desk/v1/stays")).contains(Protocol.REST);
        assertThat(Protocol.at("/soap/desk/v1")).contains(Protocol.SOAP);
        assertThat(Protocol.at("/odata/desk/v1/$metadata")).contains(Protocol.ODATA);
        assertThat(Protocol.at("/manage/v1/records")).isEmpty();
        assertThat(Protocol.at("/apis/desk")).isEmpty();
        assertThat(Protocol.SOAP.address("desk", 12)).isEqualTo("/soap/desk/v12");
    }

    @Test
    void restAndTheRestOfTheServerAnswerProblems() {
        for (var address : List.of("/api/desk/v1/stays", "/manage/v1/records", "/")) {
            var writer = Protocol.problemsAt(address);
            var plain = JsonReader.OWN.object(bytes(writer.text(TWO)));

            assertThat(writer.contentType()).isEqualTo("application/problem+json");
            assertThat(plain).containsEntry("status", 422L);
            assertThat(plain.get("errors").toString())
                    .contains("pointer=/charges/0/tariff", "code=SP4101", "pointer=,");
        }
    }

    @Test
    void odataAnswersItsOwnErrors() {
        var writer = Protocol.problemsAt("/odata/desk/v1/stays");
        var plain = JsonReader.OWN.object(bytes(writer.text(TWO)));

        assertThat(writer.contentType()).startsWith("application/json");
        assertThat(plain.get("error").toString())
                .contains(
                        "code=unprocessable-content",
                        "message=2 things are wrong; each is listed with its place.",
                        "target=charges/0/tariff");
    }

    @Test
    void oneThingThatIsWrongIsTheErrorItself() {
        var one =
                Problem.of(
                        HttpStatus.CONFLICT,
                        "Taken.",
                        List.of(new Wrong(FaultPath.of("code"), "SP4200", "Taken.")));

        assertThat(JsonReader.OWN.object(bytes(Protocol.problemsAt("/odata/x").text(one))))
                .hasToString("{error={code=SP4200, message=Taken., target=code}}");
    }

    @Test
    void soapAnswersAFaultWithEverythingThatIsWrong() {
        var writer = Protocol.problemsAt("/soap/desk/v1");

        assertThat(writer.contentType()).startsWith("text/xml");
        assertThat(writer.text(TWO))
                .contains(
                        "<faultcode>s:Client</faultcode>",
                        "<faultstring>Tariff is required. Too &lt;much&gt;.</faultstring>");
        assertThat(writer.text(Problem.of(HttpStatus.SERVICE_UNAVAILABLE, "Busy.", List.of())))
                .contains("<faultcode>s:Server</faultcode>");
    }

    @ParameterizedTest
    @ValueSource(strings = {"application/soap+xml", " Application/SOAP+XML; charset=UTF-8"})
    void soapAnswersInTheVersionThatWasSent(String sent) {
        var writer = Protocol.problemsAt("/soap/desk/v1", sent);

        assertThat(writer.contentType()).startsWith("application/soap+xml");
        assertThat(writer.text(TWO))
                .contains(
                        "http://www.w3.org/2003/05/soap-envelope",
                        "<s:Value>s:Sender</s:Value>",
                        "Too &lt;much&gt;.");
    }

    private static byte[] bytes(String text) {
        return text.getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }
}
