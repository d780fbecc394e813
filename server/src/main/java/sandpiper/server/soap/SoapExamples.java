package sandpiper.server.soap;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.List;
import java.util.Map;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.TransformerException;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.stream.StreamResult;
import javax.xml.transform.stream.StreamSource;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.model.type.MoneyType;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.service.ValueExamples;
import sandpiper.server.soap.xml.XmlText;

/** Writes a message for each operation of a service, to be changed and sent. */
final class SoapExamples {
    private static final int FEW = 5;

    private SoapExamples() {}

    /** An operation with a message that calls it. */
    record Example(String operation, String describe, String envelope) {}

    static List<Example> of(ServiceType service) {
        return SoapOperation.of(service).stream()
                .map(operation ->
                        new Example(
                                operation.name(),
                                operation.describe(),
                                envelope(Wsdl.namespace(service), operation)))
                .toList();
    }

    private static String envelope(String namespace, SoapOperation operation) {
        var xml = new XmlText();
        xml.open("s:Envelope", "xmlns:s", SoapVersion.SOAP_11.namespace()).open("s:Body");
        xml.open(operation.name(), "xmlns", namespace);
        switch (operation.kind()) {
            case CREATE, SAVE -> record(xml, operation, Operation.CREATE);
            case UPDATE -> {
                key(xml, operation);
                record(xml, operation, Operation.UPDATE);
            }
            case GET -> xml.text("key", "KEY");
            case REMOVE -> key(xml, operation);
            case CALL -> {
                key(xml, operation);
                arguments(xml, operation);
            }
            case FUNCTION -> arguments(xml, operation);
            case FIND -> find(xml, operation);
        }
        return indented(xml.close().close().close().toString());
    }

    private static void key(XmlText xml, SoapOperation operation) {
        xml.text("key", "KEY");
        if (operation.resource().versioned()) {
            xml.text("version", "1");
        }
    }

    private static void arguments(XmlText xml, SoapOperation operation) {
        XmlValues.write(xml, ValueExamples.of(operation.called().parameters()));
    }

    private static void record(XmlText xml, SoapOperation operation, Operation kind) {
        FieldTree tree = operation.resource().tree(kind).orElseThrow();
        xml.open(operation.record());
        tree.paths().forEach(path -> field(xml, path.last()));
        for (var part : tree.parts()) {
            xml.open(part.part().name()).open(XmlValues.ITEM);
            part.paths().forEach(path -> field(xml, path.last()));
            xml.close().close();
        }
        xml.close();
    }

    private static void field(XmlText xml, Field field) {
        XmlValues.write(xml, Map.of(field.name(), field.type().example()));
    }

    private static void find(XmlText xml, SoapOperation operation) {
        operation.resource().filterable().stream()
                .filter(path -> !(path.last().type() instanceof MoneyType))
                .findFirst()
                .ifPresent(path -> criteria(xml, path));
        xml.text("limit", String.valueOf(FEW));
    }

    private static void criteria(XmlText xml, FieldPath path) {
        xml.open("criteria").open(sandpiper.model.contract.ContractNames.element(path));
        if (XmlValues.isText(path.last().type())) {
            xml.text("like", "*");
        } else {
            XmlValues.write(xml, Map.of("equals", path.last().type().example()));
        }
        xml.close().close();
    }

    private static String indented(String xml) {
        try {
            var transformer = TransformerFactory.newDefaultInstance().newTransformer();
            transformer.setOutputProperty(OutputKeys.INDENT, "yes");
            transformer.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
            transformer.setOutputProperty("{http://xml.apache.org/xslt}indent-amount", "2");
            var out = new StringWriter();
            transformer.transform(new StreamSource(new StringReader(xml)), new StreamResult(out));
            return out.toString().strip();
        } catch (TransformerException e) {
            throw new IllegalStateException(e);
        }
    }
}
