package sandpiper.server.soap;

import java.util.List;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;
import sandpiper.server.soap.xml.XmlText;

/**
 * Writes a service down as WSDL 1.1, document/literal wrapped (WS-I Basic Profile 1.1), with a port
 * for each version of SOAP.
 */
public final class Wsdl {
    /** The element that wraps the detail of a fault. */
    static final String FAULT = "ServiceFault";

    /** The element with what a change came to, and the one with the records that were found. */
    static final String RESULT = "result";

    /** What a function gives back. */
    static final String RETURNED = "returned";

    static final String PAGE = "page";

    /** Not the element's own name: generators make one class of each. */
    private static final String FAULT_TYPE = "ServiceFaultDetail";

    private final Release release;
    private final Bounds bounds;
    private final ServiceType service;
    private final List<SoapOperation> operations;
    private final SchemaTypes types;

    private Wsdl(Release release, ServiceType service, Bounds bounds) {
        this.bounds = bounds;
        this.release = release;
        this.service = service;
        this.operations = SoapOperation.of(service);
        this.types = new SchemaTypes(release);
    }

    /** The namespace of a service's elements and types. */
    static String namespace(ServiceType service) {
        return namespace(service.name(), service.version());
    }

    static String namespace(String service, int version) {
        return "urn:sandpiper:%s:v%d".formatted(service, version);
    }

    /** The contract of a service; {@code address} is where it is called. */
    public static String of(Release release, ServiceType service, String address, Bounds bounds) {
        var wsdl = new Wsdl(release, service, bounds);
        return new WsdlDefinitions(service, wsdl.operations).definitions(wsdl.schema(), address);
    }

    /** The schema alone, against which requests are checked. */
    static String schema(Release release, ServiceType service, Bounds bounds) {
        return new Wsdl(release, service, bounds).schema();
    }

    private String schema() {
        var elements = new XmlText();
        elements.open("elements");
        operations.forEach(operation -> elements(elements, operation));
        elements.text("end", "");
        var written = elements.toString();
        faultType();
        var xml =
                new XmlText()
                        .open(
                                "xs:schema",
                                "xmlns:xs",
                                "http://www.w3.org/2001/XMLSchema",
                                "xmlns:t",
                                namespace(service),
                                "targetNamespace",
                                namespace(service),
                                "elementFormDefault",
                                "qualified");
        xml.raw(
                written.substring(
                        "<elements>".length(), written.length() - "<end></end>".length()));
        xml.leaf("xs:element", "name", FAULT, "type", "t:" + FAULT_TYPE);
        types.all().forEach(xml::raw);
        return xml.close().toString();
    }

    private void elements(XmlText xml, SoapOperation operation) {
        wrapper(xml, operation.name(), () -> request(xml, operation));
        wrapper(xml, operation.name() + "Response", () -> answer(xml, operation));
    }

    private static void wrapper(XmlText xml, String name, Runnable content) {
        xml.open("xs:element", "name", name).open("xs:complexType").open("xs:sequence");
        content.run();
        xml.close().close().close();
    }

    private void request(XmlText xml, SoapOperation operation) {
        if (operation.kind() == SoapOperation.Kind.FUNCTION) {
            parameters(xml, operation);
            return;
        }
        var resource = operation.resource();
        var one = ResourceNames.one(resource);
        var object = resource.object();
        switch (operation.kind()) {
            case CREATE ->
                    element(
                            xml,
                            operation.record(),
                            types.input(
                                    "New" + one,
                                    object,
                                    tree(resource, Operation.CREATE),
                                    true,
                                    false));
            case UPDATE -> {
                key(xml);
                version(xml, resource.versioned());
                element(
                        xml,
                        operation.record(),
                        types.input(
                                one + "Change",
                                object,
                                tree(resource, Operation.UPDATE),
                                false,
                                true));
            }
            case SAVE -> {
                version(xml, false);
                element(
                        xml,
                        operation.record(),
                        types.input(
                                one + "Save",
                                object,
                                tree(resource, Operation.CREATE),
                                false,
                                true));
            }
            case GET -> key(xml);
            case REMOVE -> {
                key(xml);
                version(xml, resource.versioned());
            }
            case CALL -> {
                key(xml);
                version(xml, resource.versioned());
                parameters(xml, operation);
            }
            case FIND -> find(xml, resource);
            case FUNCTION -> throw new IllegalStateException("It is about no resource");
        }
    }

    private void parameters(XmlText xml, SoapOperation operation) {
        for (var one : operation.called().parameters().entries()) {
            types.value(xml, operation.name(), one);
        }
    }

    private static FieldTree tree(ResourceType resource, Operation operation) {
        return resource.tree(operation).orElseThrow();
    }

    private static void element(XmlText xml, String name, String type) {
        xml.leaf("xs:element", "name", name, "type", "t:" + type);
    }

    private static void key(XmlText xml) {
        described(xml, "key", "xs:string", true, "The record's key or its id.");
    }

    private static void version(XmlText xml, boolean needed) {
        described(
                xml,
                "version",
                "xs:long",
                needed,
                "The version that was read; the call is refused when there is another.");
    }

    private static void described(
            XmlText xml, String name, String type, boolean needed, String describe) {
        xml.open("xs:element", "name", name, "type", type, "minOccurs", needed ? null : "0");
        SchemaTypes.document(xml, describe);
        xml.close();
    }

    private void find(XmlText xml, ResourceType resource) {
        Criteria.type(types, release, resource)
                .ifPresent(type ->
                        xml.leaf(
                                "xs:element",
                                "name",
                                "criteria",
                                "type",
                                "t:" + type,
                                "minOccurs",
                                "0"));
        if (!resource.sortable().isEmpty()) {
            xml.leaf(
                    "xs:element",
                    "name",
                    "sort",
                    "type",
                    "t:" + sortType(resource),
                    "minOccurs",
                    "0",
                    "maxOccurs",
                    "unbounded");
        }
        xml.open("xs:element", "name", "limit", "minOccurs", "0");
        SchemaTypes.document(
                xml, "Most records of the answer; %d when absent.".formatted(bounds.usualPage()));
        xml.open("xs:simpleType").open("xs:restriction", "base", "xs:int");
        xml.leaf("xs:minInclusive", "value", "1");
        xml.leaf("xs:maxInclusive", "value", String.valueOf(bounds.page()));
        xml.close().close().close();
        described(xml, "after", "xs:string", false, "next of the page before.");
        described(xml, "count", "xs:boolean", false, "Whether to count all that match.");
    }

    private String sortType(ResourceType resource) {
        var name = ResourceNames.one(resource) + "Sort";
        var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
        xml.open("xs:element", "name", "field").open("xs:simpleType");
        xml.open("xs:restriction", "base", "xs:string");
        resource.sortable().forEach(path -> xml.leaf("xs:enumeration", "value", path.written()));
        xml.close().close().close();
        described(xml, "descending", "xs:boolean", false, "From the highest to the lowest.");
        types.put(name, xml.close().close());
        return name;
    }

    private void answer(XmlText xml, SoapOperation operation) {
        // One element each: generators make it the result of a method.
        switch (operation.kind()) {
            case REMOVE -> {
                // The answer says by being there that it was done.
            }
            case FIND -> element(xml, PAGE, pageType(operation));
            case GET -> element(xml, operation.record(), answerType(operation));
            case CREATE, UPDATE, SAVE -> element(xml, RESULT, resultType(operation));
            case CALL ->
                    element(
                            xml,
                            RESULT,
                            operation.called().returns() == null
                                    ? resultType(operation)
                                    : returnedType(operation));
            case FUNCTION -> element(xml, RESULT, returnedType(operation));
        }
    }

    private String answerType(SoapOperation operation) {
        var resource = operation.resource();
        return types.answer(ResourceNames.one(resource), resource.object(), resource.answerTree());
    }

    private String resultType(SoapOperation operation) {
        var name = ResourceNames.one(operation.resource()) + "Result";
        var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
        element(xml, operation.record(), answerType(operation));
        return withWarnings(name, xml);
    }

    /** What a function gives back, with the record it was called on. */
    private String returnedType(SoapOperation operation) {
        var name = operation.name() + "Result";
        var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
        var returns = operation.called().returns();
        if (returns != null) {
            types.value(
                    xml,
                    operation.name(),
                    new Parameter(RETURNED, "Returned", "What it returns.", false, returns));
        }
        if (operation.shown() != null) {
            element(xml, operation.record(), answerType(operation));
        }
        return withWarnings(name, xml);
    }

    private String withWarnings(String name, XmlText xml) {
        xml.open(
                "xs:element",
                "name",
                "warning",
                "type",
                "xs:string",
                "minOccurs",
                "0",
                "maxOccurs",
                "unbounded");
        SchemaTypes.document(xml, "What was said but stopped nothing.");
        types.put(name, xml.close().close().close());
        return name;
    }

    private String pageType(SoapOperation operation) {
        var resource = operation.resource();
        var one = ResourceNames.one(resource);
        var record =
                types.answer(one + "Summary", resource.object(), tree(resource, Operation.QUERY));
        var name = one + "Page";
        var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
        xml.leaf(
                "xs:element",
                "name",
                operation.record(),
                "type",
                "t:" + record,
                "minOccurs",
                "0",
                "maxOccurs",
                "unbounded");
        described(xml, "next", "xs:string", false, "What to give as after for the next page.");
        described(xml, "count", "xs:long", false, "How many match, when asked.");
        types.put(name, xml.close().close());
        return name;
    }

    private void faultType() {
        var error =
                new XmlText().open("xs:complexType", "name", "ServiceError").open("xs:sequence");
        described(error, "field", "xs:string", false, "The path of the element it is about.");
        described(error, "code", "xs:string", true, "Tells it from other mistakes.");
        described(error, "message", "xs:string", true, "What is wrong, for people.");
        types.put("ServiceError", error.close().close());
        var fault = new XmlText().open("xs:complexType", "name", FAULT_TYPE).open("xs:sequence");
        described(fault, "status", "xs:int", true, "As HTTP counts: 422 for wrong values.");
        described(fault, "message", "xs:string", true, "What went wrong, in a sentence.");
        fault.leaf(
                "xs:element",
                "name",
                "error",
                "type",
                "t:ServiceError",
                "minOccurs",
                "0",
                "maxOccurs",
                "unbounded");
        types.put(FAULT_TYPE, fault.close().close());
    }
}
