package sandpiper.server.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import sandpiper.engine.port.StorageException;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.soap.xml.XmlText;
import sandpiper.server.soap.xml.XmlTrees;

class SoapMessagesTest {
    private static final Bounds BOUNDS = new Bounds(5 << 20, 50, 500);

    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "m/package.yaml",
                                    "package: m\nversion: 1\nlanguages: [en, de]\n",
                                    "m/objects/berth.yaml",
                                    """
                                    object: Berth
                                    key: code
                                    fields:
                                      code: { type: text, length: 8, required: true }
                                      name: { type: text, localised: true }
                                      side: { type: choice, choices: [port, starboard] }
                                      depth: { type: decimal, scale: 1 }
                                      boats: { type: integer }
                                      fee: { type: amount, currency: record }
                                      vat: { type: percent }
                                      since: { type: date }
                                      opens: { type: time }
                                      seen: { type: date-time }
                                      work: { type: duration }
                                      open: { type: boolean }
                                      mail: { type: email }
                                      gate: { type: uuid }
                                      next: { type: reference, to: Berth }
                                    parts:
                                      lamps:
                                        fields:
                                          side: { type: choice, choices: [top, foot] }
                                          watts: { type: integer }
                                    """,
                                    "m/services/berths.yaml",
                                    """
                                    service: berths
                                    version: 1
                                    protocols: [soap]
                                    resources:
                                      berths:
                                        object: Berth
                                        create: { fields: all }
                                        read: { fields: [all, next.next.name, next.side] }
                                        update: { fields: all }
                                        query: { fields: all, filter: all, sort: all }
                                        remove: true
                                    """))
                    .release()
                    .orElseThrow();
    private static final ServiceType SERVICE = RELEASE.service("berths", 1).orElseThrow();

    private static Element call(String envelope) {
        return Envelope.of(XmlTrees.root(envelope.getBytes(StandardCharsets.UTF_8))).call();
    }

    @Test
    void everyExampleFitsTheContract() throws Exception {
        var schema =
                SchemaFactory.newDefaultInstance()
                        .newSchema(
                                new StreamSource(
                                        new StringReader(Wsdl.schema(RELEASE, SERVICE, BOUNDS))));
        var examples = SoapExamples.of(SERVICE);

        assertThat(examples)
                .extracting(SoapExamples.Example::operation)
                .containsExactly(
                        "CreateBerth",
                        "GetBerth",
                        "UpdateBerth",
                        "SaveBerth",
                        "FindBerths",
                        "RemoveBerth");
        for (var example : examples) {
            schema.newValidator().validate(new DOMSource(call(example.envelope())));
        }
    }

    @Test
    void aLineItemsChoicesAreNotThoseOfTheRecordsFieldOfTheSameName() {
        assertThat(Wsdl.schema(RELEASE, SERVICE, BOUNDS))
                .contains("name=\"BerthSide\"", "name=\"BerthLampsSide\"")
                .containsOnlyOnce("<xs:enumeration value=\"top\">");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    <code><equals>A</equals></code>                      | code = "A"
                    <code><like>*"x</like></code>                        | ends with(code, "\\"x")
                    <code><like>N*</like><isEmpty>false</isEmpty></code> | starts with(code, "N") and code != null
                    <side><anyOf>port</anyOf><anyOf>starboard</anyOf></side> | (side = "port" or side = "starboard")
                    <depth><from>1.50</from><to>1E1</to></depth>         | depth >= 1.50 and depth <= 10
                    <since><equals>2026-05-01Z</equals></since>          | since = date("2026-05-01")
                    <open><equals>1</equals></open>                      | open = true
                    """)
    void criteriaAreAConditionInFeel(String criteria, String condition) {
        var asked =
                call(
                        "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>"
                                + "<criteria>"
                                + criteria
                                + "</criteria></s:Body></s:Envelope>");

        assertThat(Criteria.condition(SERVICE.resources().getFirst(), asked)).isEqualTo(condition);
    }

    @Test
    void whatFailsHereIsTheReceiversFaultAndSaysNothingOfTheInside() {
        var broken = Failure.of(new IllegalStateException("/secret/path"), "POST /soap/x/v1");
        var stuck =
                Failure.of(
                        new StorageException("disk", new IllegalStateException()),
                        "POST /soap/x/v1");

        assertThat(SoapEnvelopes.fault(SoapVersion.SOAP_12, "urn:x", broken))
                .contains("<s:Value>s:Receiver</s:Value>", "<status>500</status>")
                .doesNotContain("secret");
        assertThat(SoapEnvelopes.fault(SoapVersion.SOAP_11, "urn:x", stuck))
                .contains("<faultcode>s:Server</faultcode>", "<status>503</status>")
                .doesNotContain("disk");
    }

    @Test
    void textThatXmlHasNoPlaceForIsShownAsUnknown() {
        assertThat(new XmlText().text("a", "x\u0001<&\ud83d\ude00").toString())
                .isEqualTo("<a>x\ufffd&lt;&amp;\ud83d\ude00</a>");
    }

    @Test
    void aMessageWithoutOneOperationIsNone() {
        assertThatThrownBy(() -> call("<a/>"))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("no SOAP envelope");
        assertThatThrownBy(() ->
                        call(
                                "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\">"
                                        + "<s:Body/></s:Envelope>"))
                .hasMessageContaining("holds 0");
    }
}
