package sandpiper.server.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.ZoneOffset;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.http.HttpStatus;
import org.springframework.mock.web.MockHttpServletRequest;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.server.problem.Problem;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.soap.xml.XmlText;
import sandpiper.server.soap.xml.XmlTrees;

/** What SOAP itself asks of a message and of its answer, whatever the service. */
class EnvelopeRulesTest {
    private static Envelope envelope(SoapVersion version, String header) {
        return Envelope.of(
                XmlTrees.root(
                        """
                        <s:Envelope xmlns:s="%s"><s:Header>%s</s:Header><s:Body><GetJob xmlns="urn:x"/></s:Body></s:Envelope>\
                        """
                                .formatted(version.namespace(), header)
                                .getBytes(StandardCharsets.UTF_8)));
    }

    @ParameterizedTest
    @CsvSource({
        "SOAP_11, s:mustUnderstand='1', true",
        "SOAP_11, s:mustUnderstand='0', false",
        "SOAP_11, , false",
        "SOAP_11, s:mustUnderstand='1' s:actor='http://schemas.xmlsoap.org/soap/actor/next', true",
        "SOAP_11, s:mustUnderstand='1' s:actor='urn:somebody', false",
        "SOAP_12, s:mustUnderstand='true', true",
        "SOAP_12, s:mustUnderstand='true'"
                + " s:role='http://www.w3.org/2003/05/soap-envelope/role/ultimateReceiver', true",
        "SOAP_12, s:mustUnderstand='true'"
                + " s:role='http://www.w3.org/2003/05/soap-envelope/role/none', false",
        "SOAP_12, s:mustUnderstand='true' s:role='urn:somebody', false"
    })
    void aHeaderForUsThatMustBeUnderstoodIsRefusedWithItsCode(
            SoapVersion version, @Nullable String attributes, boolean refused) {
        var envelope =
                envelope(
                        version,
                        "<x:H xmlns:x='urn:x' %s/>"
                                .formatted(attributes == null ? "" : attributes));

        if (refused) {
            assertThatThrownBy(() -> HeaderBlocks.requireUnderstood(envelope))
                    .isInstanceOfSatisfying(
                            SoapFaultException.class,
                            e -> assertThat(e.code()).isEqualTo("MustUnderstand"));
        } else {
            assertThatCode(() -> HeaderBlocks.requireUnderstood(envelope))
                    .doesNotThrowAnyException();
        }
    }

    @Test
    void anotherEnvelopeIsAnotherVersion() {
        assertThatThrownBy(() ->
                        Envelope.of(
                                XmlTrees.root(
                                        "<Envelope xmlns='urn:foreign'/>"
                                                .getBytes(StandardCharsets.UTF_8))))
                .isInstanceOfSatisfying(
                        SoapFaultException.class,
                        e -> assertThat(e.code()).isEqualTo("VersionMismatch"));
    }

    @ParameterizedTest
    @CsvSource({
        "text/xml, SOAP_11",
        "application/soap+xml;charset=utf-8, SOAP_12",
        "' Application/SOAP+xml', SOAP_12",
        "application/json, SOAP_11",
        ", SOAP_11"
    })
    void theVersionIsKnownByTheTypeBeforeTheMessageIsRead(
            @Nullable String type, SoapVersion version) {
        assertThat(SoapVersion.of(type)).isEqualTo(version);
    }

    @Test
    void aFaultHasTheCodesOfItsVersion() {
        var problem = Problem.of(HttpStatus.NOT_FOUND, "None.", List.of());

        assertThat(SoapEnvelopes.fault(SoapVersion.SOAP_11, "urn:x", problem))
                .contains("<faultcode>s:Client</faultcode>");
        assertThat(SoapEnvelopes.fault(SoapVersion.SOAP_12, "urn:x", problem))
                .contains("<s:Value>s:Sender</s:Value>");
        assertThat(SoapEnvelopes.fault(SoapVersion.SOAP_12, "urn:x", problem, "MustUnderstand"))
                .contains("<s:Value>s:MustUnderstand</s:Value>");
    }

    @Test
    void aReturnIsWrittenSoThatItIsReadAsOne() {
        assertThat(new XmlText().text("a", "x\r\ny\r").toString())
                .isEqualTo("<a>x&#13;\ny&#13;</a>");
    }

    @ParameterizedTest
    @CsvSource({
        "DATE, 2026-05-01Z, 2026-05-01",
        "DATE, 10000-01-01, 10000-01-01",
        "DATE, -0001-01-01+02:00, -0001-01-01",
        "TIME, 12:30:00-05:00, 12:30:00"
    })
    void theZoneOfADayOrTimeIsLeftAsideAndNothingElse(
            TypeKeyword keyword, String raw, String text) {
        assertThat(XmlValues.value(new TemporalType(keyword, ZoneOffset.UTC), raw)).isEqualTo(text);
    }

    @ParameterizedTest
    @CsvSource({
        "SOAP_11, , , true",
        "SOAP_11, '\"\"', , true",
        "SOAP_11, '\"urn:x:GetJob\"', , true",
        "SOAP_11, urn:x:GetJob, , true",
        "SOAP_11, '\"urn:x:UpdateJob\"', , false",
        "SOAP_12, ignored, , true",
        "SOAP_12, , urn:x:GetJob, true",
        "SOAP_12, , urn:x:UpdateJob, false"
    })
    void whatIsSaidOutsideOfTheMessageIsNothingElse(
            SoapVersion version,
            @Nullable String header,
            @Nullable String parameter,
            boolean right) {
        var request = new MockHttpServletRequest("POST", "/soap/x/v1");
        if (header != null) {
            request.addHeader("SOAPAction", header);
        }
        request.setContentType(
                version.contentType() + (parameter == null ? "" : ";action=\"" + parameter + "\""));
        var operation = new SoapOperation(SoapOperation.Kind.GET, "GetJob", null, null);

        if (right) {
            assertThatCode(() -> SoapActions.require(request, version, "urn:x", operation))
                    .doesNotThrowAnyException();
        } else {
            assertThatThrownBy(() -> SoapActions.require(request, version, "urn:x", operation))
                    .hasMessageContaining("but the message asks for GetJob");
        }
    }
}
