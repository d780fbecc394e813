package sandpiper.server.soap;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Session;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.Names;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Secrets;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.QueryReader;
import sandpiper.server.service.ServiceCall;

/** One call over SOAP, from the element that asks to the envelope that answers. */
final class SoapCall {
    private static final List<String> PARAMETERS =
            List.of("filter", "sort", "limit", "after", "count");

    private final ServiceCall service;
    private final SoapOperation operation;
    private final SoapVersion soap;
    private final String namespace;
    private final Cursors cursors;

    SoapCall(
            ServiceCall service,
            SoapOperation operation,
            SoapVersion soap,
            String namespace,
            Cursors cursors) {
        this.service = service;
        this.operation = operation;
        this.soap = soap;
        this.namespace = namespace;
        this.cursors = cursors;
    }

    /**
     * Does what is asked.
     *
     * @param body the whole message, to tell a repeated request from another with the same key
     * @param onceKey makes sure that it is done once, or {@code null}
     */
    String run(Element asked, byte[] body, @Nullable String onceKey) {
        return switch (operation.kind()) {
            case GET -> get(asked);
            case FIND -> find(asked);
            default -> change(asked, body, onceKey);
        };
    }

    private String key(Element asked) {
        return String.valueOf(XmlValues.textOf(asked, "key"));
    }

    private String get(Element asked) {
        var key = key(asked);
        return service.engine()
                .records()
                .read((live, session) -> {
                    var record = service.read(live, session, key);
                    var tree = service.shown(live).tree(Operation.READ).orElseThrow();
                    var xml = new XmlText();
                    return envelope(xml, () -> record(xml, ServiceCall.plain(tree, record)));
                });
    }

    private String find(Element asked) {
        var reader = new QueryReader(parameters(asked), PARAMETERS);
        var fingerprint =
                "%s %s %s %s"
                        .formatted(
                                service.via(),
                                operation.name(),
                                reader.text("filter"),
                                reader.text("sort"));
        return service.engine()
                .records()
                .read((live, session) -> {
                    var tree =
                            service.resource(live, Operation.QUERY)
                                    .tree(Operation.QUERY)
                                    .orElseThrow();
                    var after = cursors.read(fingerprint, reader.text("after"));
                    var page =
                            service.engine()
                                    .records()
                                    .page(live, session, service.query(live, reader, after));
                    var xml = new XmlText();
                    return envelope(
                            xml,
                            () -> {
                                xml.open(Wsdl.PAGE);
                                for (var record : page.records()) {
                                    record(xml, ServiceCall.plain(tree, record));
                                }
                                if (page.next() != null) {
                                    xml.text("next", cursors.write(fingerprint, page.next()));
                                }
                                if (page.total() != null) {
                                    xml.text("count", page.total().toString());
                                }
                                xml.close();
                            });
                });
    }

    private Map<String, String[]> parameters(Element asked) {
        var parameters = new LinkedHashMap<String, String[]>();
        var criteria = XmlValues.child(asked, "criteria");
        var filter = criteria == null ? "" : Criteria.condition(operation.resource(), criteria);
        parameters.put("filter", new String[] {filter});
        var sorts = new ArrayList<String>();
        for (var element : XmlValues.children(asked)) {
            if ("sort".equals(element.getLocalName())) {
                sorts.add(
                        (isTrue(XmlValues.textOf(element, "descending")) ? "-" : "")
                                + XmlValues.textOf(element, "field"));
            }
        }
        parameters.put("sort", new String[] {String.join(",", sorts)});
        for (var name : List.of("limit", "after")) {
            var text = XmlValues.textOf(asked, name);
            parameters.put(name, new String[] {text == null ? "" : text});
        }
        boolean counted = isTrue(XmlValues.textOf(asked, "count"));
        parameters.put("count", new String[] {String.valueOf(counted)});
        return parameters;
    }

    private static boolean isTrue(@Nullable String text) {
        return "true".equals(text) || "1".equals(text);
    }

    private String change(Element asked, byte[] body, @Nullable String onceKey) {
        var once =
                onceKey == null
                        ? null
                        : new Request.Once(
                                onceKey,
                                Secrets.hash(new String(body, StandardCharsets.UTF_8)),
                                (session, done) -> answer(service.engine().live(), session, done));
        var answered =
                service.engine()
                        .records()
                        .write(
                                live -> service.request(live, command(live, asked), false, once),
                                this::answer);
        return switch (answered.outcome()) {
            case Outcome.Refused refused -> throw refused(refused);
            case Outcome.Repeated(var answer) -> answer;
            case Outcome.Success _ -> Objects.requireNonNull(answered.answer());
        };
    }

    private RecordCommand command(LiveRelease live, Element asked) {
        var version = XmlValues.textOf(asked, "version");
        var expected = version == null ? null : Long.valueOf(version);
        return switch (operation.kind()) {
            case CREATE -> service.create(live, values(live, asked, Operation.CREATE));
            case UPDATE ->
                    service.change(
                            live, key(asked), values(live, asked, Operation.UPDATE), expected);
            case SAVE -> service.save(live, null, values(live, asked, Operation.CREATE), expected);
            case REMOVE -> service.remove(live, key(asked), expected);
            case CALL ->
                    service.call(
                            live,
                            key(asked),
                            Names.address(operation.called().name()),
                            arguments(asked),
                            expected);
            case FUNCTION ->
                    service.call(live, Names.address(operation.called().name()), arguments(asked));
            case GET, FIND -> throw new IllegalStateException("Reading changes nothing");
        };
    }

    private Map<String, @Nullable Object> arguments(Element asked) {
        return XmlValues.arguments(operation.called().parameters(), asked);
    }

    private Map<String, @Nullable Object> values(LiveRelease live, Element asked, Operation kind) {
        FieldTree tree = service.resource(live, kind).tree(kind).orElseThrow();
        var record = XmlValues.child(asked, operation.record());
        return record == null ? Map.of() : XmlValues.read(tree, record);
    }

    private String answer(LiveRelease live, Session session, Outcome.Success success) {
        if (operation.kind() == SoapOperation.Kind.REMOVE) {
            return empty();
        }
        var warnings = success.warnings().stream().map(Fault::message).toList();
        var xml = new XmlText();
        return envelope(
                xml,
                () -> {
                    xml.open(Wsdl.RESULT);
                    var result = success.result();
                    if (result != null && result.value() != null) {
                        XmlValues.write(xml, Map.of(Wsdl.RETURNED, result.value()));
                    }
                    if (success instanceof Outcome.Done done) {
                        var tree = service.answerTree(live, session, done);
                        record(
                                xml,
                                ServiceCall.plain(
                                        tree, service.changed(live, session, done, tree)));
                    }
                    warnings.forEach(warning -> xml.text("warning", warning));
                    xml.close();
                });
    }

    private String empty() {
        return envelope(new XmlText(), () -> {});
    }

    private void record(XmlText xml, Map<String, @Nullable Object> record) {
        xml.open(operation.record());
        XmlValues.write(xml, record);
        xml.close();
    }

    private String envelope(XmlText xml, Runnable content) {
        return SoapEnvelopes.result(soap, namespace, operation.name() + "Response", content, xml);
    }

    /** A refusal with the places as paths of elements: {@code stay/charges/item[1]/tariff}. */
    private ProblemException refused(Outcome.Refused refused) {
        var problem = Problem.of(refused);
        return new ProblemException(
                HttpStatus.valueOf(problem.status()),
                problem.detail(),
                problem.errors().stream()
                        .map(error ->
                                new Wrong(path(error.pointer()), error.code(), error.message()))
                        .toList());
    }

    private String path(String pointer) {
        if (pointer.isEmpty()) {
            return "";
        }
        boolean isCall = operation.call() != null;
        var path = new StringBuilder(isCall ? "" : "/" + operation.record());
        for (var step : pointer.substring(1).split("/", -1)) {
            path.append(
                    step.matches("\\d{1,9}")
                            ? "/%s[%d]".formatted(XmlValues.ITEM, Integer.parseInt(step) + 1)
                            : "/" + step);
        }
        return path.toString();
    }
}
