package sandpiper.server.soap;

import java.util.stream.Collectors;
import sandpiper.engine.command.FaultPath;
import sandpiper.server.problem.Problem;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.soap.xml.XmlText;

/** Writes what is answered: results and faults in an envelope. */
final class SoapEnvelopes {
    private SoapEnvelopes() {}

    /** A result; {@code content} is written inside the operation's answer. */
    static String result(
            SoapVersion version, String namespace, String element, Runnable content, XmlText xml) {
        begin(version, xml);
        xml.open(element, "xmlns", namespace);
        content.run();
        return xml.close().close().close().toString();
    }

    private static void begin(SoapVersion version, XmlText xml) {
        xml.document().open("s:Envelope", "xmlns:s", version.namespace()).open("s:Body");
    }

    /** A fault with the problem as its detail, in the service's namespace. */
    static String fault(SoapVersion version, String namespace, Problem problem) {
        boolean ours = problem.status() >= 500;
        return fault(version, namespace, problem, ours ? version.receiver() : version.sender());
    }

    /** The same with a code of the version's namespace. */
    static String fault(SoapVersion version, String namespace, Problem problem, String localCode) {
        var xml = new XmlText();
        begin(version, xml);
        var code = "s:" + localCode;
        xml.open("s:Fault");
        if (version == SoapVersion.SOAP_11) {
            xml.text("faultcode", code);
            xml.text("faultstring", problem.detail());
            xml.open("detail");
        } else {
            xml.open("s:Code").text("s:Value", code).close();
            xml.open("s:Reason").text("s:Text", problem.detail(), "xml:lang", "en").close();
            xml.open("s:Detail");
        }
        xml.open(Wsdl.FAULT, "xmlns", namespace);
        xml.text("status", String.valueOf(problem.status()));
        xml.text("message", problem.detail());
        for (var error : problem.errors()) {
            xml.open("error");
            if (!error.path().isWhole()) {
                xml.text("field", field(error.path()));
            }
            xml.text("code", error.code());
            xml.text("message", error.message());
            xml.close();
        }
        return xml.close().close().close().close().close().toString();
    }

    /** As a path of elements: {@code stay/charges/item[1]/tariff}. */
    private static String field(FaultPath path) {
        return path.steps().stream()
                .map(step ->
                        switch (step) {
                            case FaultPath.Step.Name(var name) -> name;
                            case FaultPath.Step.Place(var index) ->
                                    "%s[%d]".formatted(XmlValues.ITEM, index + 1);
                        })
                .collect(Collectors.joining("/"));
    }
}
