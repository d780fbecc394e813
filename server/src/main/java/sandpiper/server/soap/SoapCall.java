package sandpiper.server.soap;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.Names;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.Bounds;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.security.Secrets;
import sandpiper.server.service.AnswerForm;
import sandpiper.server.service.Changed;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.Performed;
import sandpiper.server.service.QueryParameters;
import sandpiper.server.service.QueryRequest;
import sandpiper.server.service.RecordWriter;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.Writes;
import sandpiper.server.soap.xml.XmlText;

/** One call over SOAP, from the element that asks to the envelope that answers. */
final class SoapCall {
    private final ServiceCall service;
    private final SoapOperation operation;
    private final SoapVersion soap;
    private final String namespace;
    private final Cursors cursors;
    private final RecordWriters writers;
    private final Bounds bounds;

    /** The envelope of an answer, and whether it was given before to the same request. */
    record Answered(String xml, boolean again) {}

    SoapCall(
            ServiceCall service,
            SoapOperation operation,
            SoapVersion soap,
            String namespace,
            Cursors cursors,
            RecordWriters writers,
            Bounds bounds) {
        this.service = service;
        this.operation = operation;
        this.soap = soap;
        this.namespace = namespace;
        this.cursors = cursors;
        this.writers = writers;
        this.bounds = bounds;
    }

    /**
     * Does what is asked.
     *
     * @param body the whole message, to tell a repeated request from another with the same key
     * @param onceKey makes sure that it is done once, or {@code null}
     */
    Answered run(Element asked, byte[] body, @Nullable String onceKey) {
        return switch (operation.kind()) {
            case GET -> new Answered(get(asked), false);
            case FIND -> new Answered(find(asked), false);
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
                    var shown = service.shown(live);
                    var writer =
                            writers.of(
                                    live, shown.object(), shown.tree(Operation.READ).orElseThrow());
                    var xml = new XmlText();
                    return envelope(xml, () -> record(xml, writer, record));
                });
    }

    private String find(Element asked) {
        var request = query(asked);
        var after = XmlValues.textOf(asked, "after");
        var fingerprint =
                "%s %s %s %s"
                        .formatted(
                                service.via(), operation.name(), request.filter(), request.sorts());
        return service.engine()
                .records()
                .read((live, session) -> {
                    var resource = service.resource(live, Operation.QUERY);
                    var writer =
                            writers.of(
                                    live,
                                    resource.object(),
                                    resource.tree(Operation.QUERY).orElseThrow());
                    var place = cursors.read(fingerprint, after);
                    var page =
                            service.engine()
                                    .records()
                                    .page(live, session, service.query(live, request.from(place)));
                    var xml = new XmlText();
                    return envelope(
                            xml,
                            () -> {
                                xml.open(Wsdl.PAGE);
                                for (var record : page.records()) {
                                    record(xml, writer, record);
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

    private QueryRequest query(Element asked) {
        var criteria = XmlValues.child(asked, "criteria");
        var filter = criteria == null ? "" : Criteria.condition(operation.resource(), criteria);
        var sorts =
                XmlValues.children(asked).stream()
                        .filter(element -> "sort".equals(element.getLocalName()))
                        .map(element ->
                                new QueryRequest.Sort(
                                        String.valueOf(XmlValues.textOf(element, "field")),
                                        isTrue(XmlValues.textOf(element, "descending"))))
                        .toList();
        var limit =
                QueryParameters.limit(
                        XmlValues.textOf(asked, "limit"), bounds.usualPage(), bounds.page());
        return new QueryRequest(
                filter.isEmpty() ? null : filter,
                false,
                sorts,
                limit,
                isTrue(XmlValues.textOf(asked, "count")),
                null);
    }

    private static boolean isTrue(@Nullable String text) {
        return "true".equals(text) || "1".equals(text);
    }

    private Answered change(Element asked, byte[] body, @Nullable String onceKey) {
        var once =
                onceKey == null
                        ? null
                        : new Writes.Once(
                                onceKey, Secrets.hash(new String(body, StandardCharsets.UTF_8)));
        var form =
                new AnswerForm<String>() {
                    @Override
                    public String of(Changed changed) {
                        return answer(changed);
                    }

                    @Override
                    public String write(String answer) {
                        return answer;
                    }

                    @Override
                    public String read(String kept) {
                        return kept;
                    }
                };
        return switch (Writes.perform(
                new Writes.Asked<>(service, live -> command(live, asked), false, once, form))) {
            case Performed.Refused<String>(var refused) -> throw refused(refused);
            case Performed.Again<String>(var answer) -> new Answered(answer, true);
            case Performed.Done<String>(_, var answer) -> new Answered(answer, false);
        };
    }

    private RecordCommand command(LiveRelease live, Element asked) {
        var version = XmlValues.textOf(asked, "version");
        var expected = Expected.version(version == null ? null : Long.valueOf(version));
        return switch (operation.kind()) {
            case CREATE -> service.create(live, values(live, asked, Operation.CREATE));
            case UPDATE ->
                    service.change(
                            live, key(asked), values(live, asked, Operation.UPDATE), expected);
            case SAVE ->
                    service.save(live, null, values(live, asked, Operation.CREATE), true, expected);
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

    private String answer(Changed changed) {
        if (operation.kind() == SoapOperation.Kind.REMOVE) {
            return empty();
        }
        var warnings = changed.success().warnings().stream().map(Fault::message).toList();
        var xml = new XmlText();
        return envelope(
                xml,
                () -> {
                    xml.open(Wsdl.RESULT);
                    var result = changed.result();
                    if (result != null && result.value() != null) {
                        XmlValues.write(xml, Map.of(Wsdl.RETURNED, result.value()));
                    }
                    changed.record()
                            .ifPresent(done -> {
                                var tree = changed.tree(done);
                                record(
                                        xml,
                                        changed.writer(writers, done, tree),
                                        changed.view(done, tree));
                            });
                    warnings.forEach(warning -> xml.text("warning", warning));
                    xml.close();
                });
    }

    private String empty() {
        return envelope(new XmlText(), () -> {});
    }

    private void record(XmlText xml, RecordWriter writer, RecordView record) {
        xml.open(operation.record());
        writer.write(new XmlSink(xml), record);
        xml.close();
    }

    private String envelope(XmlText xml, Runnable content) {
        return SoapEnvelopes.result(soap, namespace, operation.name() + "Response", content, xml);
    }

    /** A refusal with places from the element of the call on. */
    private ProblemException refused(Outcome.Refused refused) {
        var problem = Problem.of(refused);
        var outer = operation.call() == null ? FaultPath.of(operation.record()) : FaultPath.WHOLE;
        return new ProblemException(
                HttpStatus.valueOf(problem.status()),
                problem.detail(),
                problem.errors().stream()
                        .map(error ->
                                new Wrong(
                                        error.path().isWhole()
                                                ? error.path()
                                                : error.path().inside(outer),
                                        error.code(),
                                        error.message()))
                        .toList());
    }
}
