package sandpiper.server.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.server.api.OData;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.xml.sax.InputSource;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.json.Bounds;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.soap.Wsdl;

/**
 * Small services, each with one thing the demo has little of, in the three forms of their contract:
 * against reviewed files, so that a change of a shape shows as a difference where it is looked for.
 * {@code -Dgolden.write=true} writes them anew.
 */
class SmallContractsTest {
    private static final Bounds BOUNDS = new Bounds(5 << 20, 50, 500);

    private static final Path GOLDEN = Path.of("src/test/resources/contracts");
    private static final String SERVER = "http://127.0.0.1:8080";

    /** Files of a package by the name of what it shows. */
    private static final Map<String, Map<String, String>> CASES =
            Map.of(
                    "types",
                    Map.of(
                            "objects/buoy.yaml",
                            """
                            object: Buoy
                            key: code
                            fields:
                              code: { type: text, length: 8, pattern: '[A-Z]{2}[0-9]+' }
                              label: { type: text, localised: true, length: 30 }
                              note: { type: text, multiline: true }
                              site: { type: web-address }
                              mail: { type: email }
                              call: { type: phone }
                              count: { type: integer, required: true, default: 1 }
                              depth: { type: decimal, scale: 2 }
                              share: { type: percent, scale: 1 }
                              fee: { type: amount, currency: EUR }
                              lit: { type: boolean, default: true }
                              laid: { type: date }
                              at: { type: time }
                              seen: { type: date-time }
                              interval: { type: duration }
                              colour: { type: choice, choices: [Red, Green, "Red and white"] }
                              tag: { type: uuid, unique: true }
                            """,
                            "services/chart.yaml",
                            service("buoys", "Buoy", "code, count, laid, colour")),
                    "composite",
                    Map.of(
                            "objects/pier.yaml",
                            """
                            object: Pier
                            key: code
                            fields: { code: { type: text, length: 4 }, name: { type: text } }
                            """,
                            "objects/slot.yaml",
                            """
                            object: Slot
                            key: [row, number]
                            fields:
                              row: { type: text, length: 2 }
                              pier: { type: reference, to: Pier, required: true }
                              number: { type: integer }
                              beside: { type: reference, to: Slot, inverse: neighbours }
                            parts:
                              posts:
                                fields:
                                  height: { type: decimal, scale: 1, required: true }
                                  made: { type: date }
                            """,
                            "services/chart.yaml",
                            service("slots", "Slot", "row, number, pier")),
                    "calls",
                    Map.of(
                            "objects/lamp.yaml",
                            """
                            object: Lamp
                            key: code
                            fields:
                              code: { type: text, length: 8 }
                              hours: { type: integer, default: 0 }
                            lifecycle:
                              field: state
                              states: [Dark, Lit]
                              initial: Dark
                              transitions:
                                light: { from: Dark, to: Lit }
                                darken: { from: Lit, to: Dark }
                            functions:
                              burn:
                                parameters:
                                  hours: { type: integer, required: true }
                                  why: { type: text }
                                returns: { type: integer }
                                on: record
                                external: true
                                body: |
                                  set this.hours = this.hours + hours
                                  return this.hours
                              ask:
                                parameters: { least: { type: integer } }
                                returns: { type: integer }
                                on: object
                                external: true
                                body: |
                                  return count(find Lamp where item.hours >= least)
                            """,
                            "services/chart.yaml",
                            """
                            service: chart
                            version: 1
                            protocols: [rest, soap, odata]
                            functions: [Lamp.ask]
                            resources:
                              lamps:
                                object: Lamp
                                read: { fields: [all] }
                                query: { fields: code, filter: code, sort: code }
                                calls: [burn, light, darken]
                            """));

    private static String service(String resource, String object, String key) {
        return """
        service: chart
        version: 1
        protocols: [rest, soap, odata]
        resources:
          %s:
            object: %s
            create: { fields: [all] }
            update: { fields: [all] }
            read: { fields: [all] }
            query: { fields: [all], filter: [%s], sort: [%s] }
            remove: true
        """
                .formatted(resource, object, key, key);
    }

    private static Release release(Map<String, String> files) {
        var all = new HashMap<String, String>();
        files.forEach((path, text) -> all.put("shore/" + path, text));
        all.put("shore/package.yaml", "package: shore\nversion: 1\nlanguages: [en, de]\n");
        var checked = Definitions.check(all);
        assertThat(checked.errors()).isEmpty();
        return checked.release().orElseThrow();
    }

    @TestFactory
    Stream<DynamicTest> shapesAreAsReviewed() {
        return CASES.entrySet().stream()
                .flatMap(one -> {
                    var release = release(one.getValue());
                    var service = release.service("chart", 1).orElseThrow();
                    return Stream.of(
                            DynamicTest.dynamicTest(
                                    one.getKey() + " over REST",
                                    () ->
                                            assertGolden(
                                                    one.getKey() + ".openapi.json",
                                                    ContractText.of(
                                                            OpenApiContract.of(
                                                                    release, service, SERVER,
                                                                    BOUNDS)))),
                            DynamicTest.dynamicTest(
                                    one.getKey() + " over SOAP",
                                    () ->
                                            assertGolden(
                                                    one.getKey() + ".wsdl",
                                                    lines(
                                                            Wsdl.of(
                                                                    release, service, SERVER,
                                                                    BOUNDS)))),
                            DynamicTest.dynamicTest(
                                    one.getKey() + " over OData",
                                    () ->
                                            assertGolden(
                                                    one.getKey() + ".edmx",
                                                    lines(
                                                            metadata(
                                                                    new ServiceModel(
                                                                            release, service))))));
                });
    }

    /** What is checked against it at each call must be a schema at all. */
    @TestFactory
    Stream<DynamicTest> everySchemaOfSoapIsOne() {
        return CASES.entrySet().stream()
                .map(one ->
                        DynamicTest.dynamicTest(
                                one.getKey(),
                                () -> {
                                    var release = release(one.getValue());
                                    var wsdl =
                                            Wsdl.of(
                                                    release,
                                                    release.service("chart", 1).orElseThrow(),
                                                    SERVER + "/soap/chart/v1/r1",
                                                    BOUNDS);
                                    int begin = wsdl.indexOf("<xs:schema");
                                    int end = wsdl.indexOf("</xs:schema>") + 12;
                                    var schema = wsdl.substring(begin, end);
                                    assertThat(
                                                    SchemaFactory.newInstance(
                                                                    XMLConstants
                                                                            .W3C_XML_SCHEMA_NS_URI)
                                                            .newSchema(
                                                                    new StreamSource(
                                                                            new StringReader(
                                                                                    schema))))
                                            .isNotNull();
                                }));
    }

    private static String metadata(ServiceModel model) throws Exception {
        var odata = OData.newInstance();
        var written =
                odata.createSerializer(ContentType.APPLICATION_XML)
                        .metadataDocument(odata.createServiceMetadata(model, List.of()));
        return new String(written.getContent().readAllBytes(), StandardCharsets.UTF_8);
    }

    /**
     * An element a line, so that a difference is a line; written anew, since libraries differ in
     * quotes and in what is empty.
     */
    private static String lines(String xml) throws Exception {
        var parsed =
                DocumentBuilderFactory.newDefaultNSInstance()
                        .newDocumentBuilder()
                        .parse(new InputSource(new StringReader(xml)));
        var writer = TransformerFactory.newDefaultInstance().newTransformer();
        writer.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
        var text = new StringWriter();
        writer.transform(new DOMSource(parsed), new StreamResult(text));
        return text.toString().replace("><", ">\n<");
    }

    private static void assertGolden(String name, String text) throws IOException {
        var file = GOLDEN.resolve(name);
        if (Boolean.getBoolean("golden.write")) {
            Files.createDirectories(file.getParent());
            Files.writeString(file, text + "\n");
        }
        assertThat(text + "\n")
                .as("differs from %s; -Dgolden.write=true rewrites it", file)
                .isEqualTo(Files.readString(file));
    }
}
