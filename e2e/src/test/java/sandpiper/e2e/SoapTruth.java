package sandpiper.e2e;

import java.io.StringReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import tools.jackson.databind.JsonNode;

/** Sends messages of random values and holds every answer against the schema of the WSDL. */
final class SoapTruth {
    private static final String OLDER = "http://schemas.xmlsoap.org/soap/envelope/";
    private static final String NEWER = "http://www.w3.org/2003/05/soap-envelope";

    private final HttpClient http = HttpClient.newHttpClient();
    private final String address;
    private final String namespace;
    private final Schema schema;
    private final String authorization;
    private final TreeSet<String> lies = new TreeSet<>();
    private int taken;

    SoapTruth(String address, String wsdl, String credentials) throws SAXException {
        this.address = address;
        int begin = wsdl.indexOf("<xs:schema");
        var types = wsdl.substring(begin, wsdl.indexOf("</xs:schema>") + "</xs:schema>".length());
        this.schema =
                SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                        .newSchema(new StreamSource(new StringReader(types)));
        this.namespace = wsdl.replaceFirst("(?s).*?targetNamespace=\"([^\"]*)\".*", "$1");
        this.authorization = BasicSignIn.as(credentials);
    }

    /** How many were answered with something else than a fault. */
    int taken() {
        return taken;
    }

    /** What was answered otherwise than the schema has it; {@code contract} is that over REST. */
    TreeSet<String> run(JsonNode contract, RandomBodies bodies, Random random, int messages)
            throws Exception {
        var schemas = contract.path("components").path("schemas");
        for (int i = 0; i < messages; i++) {
            int oneIn = random.nextInt(4) == 0 ? 8 : 0;
            var key = "<key>" + escaped("r" + random.nextInt(5) + ",1") + "</key>";
            ask(
                    switch (random.nextInt(6)) {
                        case 0, 1 ->
                                operation(
                                        "CreateSlot",
                                        record(bodies.of(schemas.path("SlotCreate"), oneIn)));
                        case 2 ->
                                operation(
                                        "UpdateSlot",
                                        key + record(bodies.of(schemas.path("SlotUpdate"), oneIn)));
                        case 3 -> operation("GetSlot", key);
                        case 4 ->
                                operation(
                                        "FindSlots",
                                        "<criteria><number><from>%d</from></number></criteria><limit>5</limit><count>true</count>"
                                                .formatted(random.nextInt(500) - 400));
                        default -> operation("Twice", "<n>%d</n>".formatted(random.nextInt(99)));
                    },
                    random.nextBoolean());
        }
        return lies;
    }

    private String operation(String name, String content) {
        return "<%s xmlns=\"%s\">%s</%s>".formatted(name, namespace, content, name);
    }

    private static String record(Object values) {
        return values instanceof Map<?, ?> map ? "<slot>" + members(map) + "</slot>" : "<slot/>";
    }

    private static String members(Map<?, ?> map) {
        var xml = new StringBuilder();
        map.forEach((name, value) -> {
            switch (value) {
                case null -> {
                    // An element that is not there.
                }
                case Map<?, ?> inside ->
                        xml.append("<%s>%s</%s>".formatted(name, members(inside), name));
                case List<?> items -> {
                    xml.append("<").append(name).append(">");
                    for (var item : items) {
                        if (item instanceof Map<?, ?> one) {
                            xml.append("<item>").append(members(one)).append("</item>");
                        }
                    }
                    xml.append("</").append(name).append(">");
                }
                default ->
                        xml.append(
                                "<%s>%s</%s>"
                                        .formatted(name, escaped(String.valueOf(value)), name));
            }
        });
        return xml.toString();
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;");
    }

    private void ask(String call, boolean newer) throws Exception {
        var message =
                "<s:Envelope xmlns:s=\"%s\"><s:Body>%s</s:Body></s:Envelope>"
                        .formatted(newer ? NEWER : OLDER, call);
        var answer =
                http.send(
                        HttpRequest.newBuilder(URI.create(address))
                                .header("Authorization", authorization)
                                .header(
                                        "Content-Type",
                                        newer
                                                ? "application/soap+xml; charset=utf-8"
                                                : "text/xml; charset=utf-8")
                                .POST(HttpRequest.BodyPublishers.ofString(message))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        var factory = DocumentBuilderFactory.newDefaultNSInstance();
        var root =
                factory.newDocumentBuilder()
                        .parse(new InputSource(new StringReader(answer.body())))
                        .getDocumentElement();
        var body = child(child(root));
        boolean fault = "Fault".equals(body.getLocalName());
        int wanted = fault ? (newer ? 400 : 500) : 200;
        if (answer.statusCode() != wanted) {
            lies.add("%d for %s: %s".formatted(answer.statusCode(), call, answer.body()));
        }
        if (!fault) {
            taken++;
        }
        try {
            schema.newValidator().validate(new DOMSource(fault ? detail(body) : body));
        } catch (SAXException e) {
            lies.add("%s: %s for %s".formatted(e.getMessage(), answer.body(), call));
        }
    }

    /** What a fault has inside of its last element. */
    private static Element detail(Element fault) {
        Element last = null;
        for (var node = fault.getFirstChild(); node != null; node = node.getNextSibling()) {
            last = node instanceof Element one ? one : last;
        }
        return child(java.util.Objects.requireNonNull(last));
    }

    private static Element child(Node node) {
        for (var one = node.getFirstChild(); one != null; one = one.getNextSibling()) {
            if (one instanceof Element element && !"Header".equals(element.getLocalName())) {
                return element;
            }
        }
        throw new IllegalStateException("No element inside of " + node.getNodeName());
    }
}
