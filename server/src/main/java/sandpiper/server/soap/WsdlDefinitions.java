package sandpiper.server.soap;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.ServiceType;
import sandpiper.server.soap.xml.XmlText;

/** What a WSDL says around its types: messages, port type, bindings and ports (WSDL 1.1). */
final class WsdlDefinitions {
    private static final String HTTP = "http://schemas.xmlsoap.org/soap/http";

    private final ServiceType service;
    private final List<SoapOperation> operations;

    WsdlDefinitions(ServiceType service, List<SoapOperation> operations) {
        this.service = service;
        this.operations = operations;
    }

    /** The whole contract with {@code schema} as its types. */
    String definitions(String schema, String address) {
        var name = ResourceNames.joined(service.name());
        var xml =
                new XmlText()
                        .document()
                        .open(
                                "wsdl:definitions",
                                "xmlns:wsdl",
                                "http://schemas.xmlsoap.org/wsdl/",
                                "xmlns:soap",
                                "http://schemas.xmlsoap.org/wsdl/soap/",
                                "xmlns:soap12",
                                "http://schemas.xmlsoap.org/wsdl/soap12/",
                                "xmlns:t",
                                Wsdl.namespace(service),
                                "name",
                                name,
                                "targetNamespace",
                                Wsdl.namespace(service));
        xml.text("wsdl:documentation", describe());
        xml.open("wsdl:types").raw(schema).close();
        for (var operation : operations) {
            message(xml, operation.name(), operation.name());
            message(xml, operation.name() + "Response", operation.name() + "Response");
        }
        message(xml, Wsdl.FAULT, Wsdl.FAULT);
        portType(xml, name);
        binding(xml, name, "soap");
        binding(xml, name, "soap12");
        xml.open("wsdl:service", "name", name + "Service");
        port(xml, name, "soap", address);
        port(xml, name, "soap12", address);
        return xml.close().close().toString();
    }

    private String describe() {
        @Nullable String describe = service.describe();
        return describe == null ? service.label() + "." : describe;
    }

    private static void message(XmlText xml, String name, String element) {
        xml.open("wsdl:message", "name", name);
        xml.leaf(
                "wsdl:part",
                "name",
                name.equals(Wsdl.FAULT) ? "fault" : "parameters",
                "element",
                "t:" + element);
        xml.close();
    }

    private void portType(XmlText xml, String name) {
        xml.open("wsdl:portType", "name", name);
        for (var operation : operations) {
            xml.open("wsdl:operation", "name", operation.name());
            xml.text("wsdl:documentation", operation.describe());
            xml.leaf("wsdl:input", "message", "t:" + operation.name());
            xml.leaf("wsdl:output", "message", "t:" + operation.name() + "Response");
            xml.leaf("wsdl:fault", "name", Wsdl.FAULT, "message", "t:" + Wsdl.FAULT);
            xml.close();
        }
        xml.close();
    }

    private void binding(XmlText xml, String name, String prefix) {
        xml.open("wsdl:binding", "name", bindingName(name, prefix), "type", "t:" + name);
        xml.leaf(prefix + ":binding", "style", "document", "transport", HTTP);
        for (var operation : operations) {
            xml.open("wsdl:operation", "name", operation.name());
            xml.leaf(
                    prefix + ":operation",
                    "soapAction",
                    SoapActions.of(Wsdl.namespace(service), operation),
                    "style",
                    "document");
            for (var direction : List.of("input", "output")) {
                xml.open("wsdl:" + direction);
                xml.leaf(prefix + ":body", "use", "literal").close();
            }
            xml.open("wsdl:fault", "name", Wsdl.FAULT);
            xml.leaf(prefix + ":fault", "name", Wsdl.FAULT, "use", "literal").close();
            xml.close();
        }
        xml.close();
    }

    private static String bindingName(String name, String prefix) {
        return name + (prefix.equals("soap") ? "Soap11" : "Soap12");
    }

    private static void port(XmlText xml, String name, String prefix, String address) {
        xml.open(
                "wsdl:port",
                "name",
                bindingName(name, prefix) + "Port",
                "binding",
                "t:" + bindingName(name, prefix));
        xml.leaf(prefix + ":address", "location", address).close();
    }
}
