package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Expected;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.Names;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.FilePlace;
import sandpiper.server.service.FileTransfer;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.QueryParameters;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.RevisionParameter;

/** Files of records, each at an address of its own: its bytes are the body. */
@Component
class FileCalls {
    private final Engine engine;
    private final RecordWriters writers;
    private final JsonReader json;

    FileCalls(Engine engine, RecordWriters writers, JsonReader json) {
        this.engine = engine;
        this.writers = writers;
        this.json = json;
    }

    /** The file an operation has at a place, alone; nothing when it has none there. */
    static Optional<FieldTree> file(ResourceType type, Operation operation, FilePlace place) {
        return type.tree(operation).flatMap(place::in);
    }

    /** Whether something can be called at the address of a file. */
    static boolean isCalled(ResourceType type, RestPlace at) {
        return at.call() != null
                && type.calls().stream()
                        .anyMatch(call -> Names.address(call.name()).equals(at.call()));
    }

    /** Whether a call is about the file at an address, and not about what can be called there. */
    boolean isMeant(RestPlace at, Actor actor, HttpServletRequest request) {
        var place = at.file();
        if (place == null) {
            return false;
        }
        var type = new Call(engine, writers, actor, at, request).service().shown(engine.live());
        boolean isCall = request.getMethod().equals("POST") && isCalled(type, at);
        return !isCall
                && (file(type, Operation.READ, place).isPresent()
                        || file(type, Operation.UPDATE, place).isPresent());
    }

    HttpReply read(RestPlace at, Actor actor, HttpServletRequest request) {
        QueryParameters.requireKnown(request.getParameterMap(), List.of(RevisionParameter.NAME));
        var call = new Call(engine, writers, actor, at, request);
        var place = at.ofFile();
        return engine.records()
                .read((live, session) -> {
                    var type = call.service().resource(live, Operation.READ);
                    var tree = file(type, Operation.READ, place).orElseThrow(() -> notShown(place));
                    var view = call.service().read(live, session, at.ofRecord(), tree);
                    var file =
                            place.of(view)
                                    .orElseThrow(() ->
                                            new ProblemException(
                                                    HttpStatus.NOT_FOUND,
                                                    "%s has no file here."
                                                            .formatted(place.field())));
                    if (FileTransfer.isFresh(request.getHeader(HttpHeaders.IF_NONE_MATCH), file)) {
                        return HttpReply.of(HttpServletResponse.SC_NOT_MODIFIED)
                                .with(HttpHeaders.ETAG, FileTransfer.tag(file));
                    }
                    var bytes = engine.records().bytes(session, file).orElseThrow();
                    return HttpReply.bytes(bytes.array()).with(FileTransfer.headers(file));
                });
    }

    private static ProblemException notShown(FilePlace place) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "%s is not read here.".formatted(place.field()));
    }

    HttpReply put(RestPlace at, Actor actor, HttpServletRequest request) throws IOException {
        var place = at.ofFile();
        var body = json.bytes(request.getInputStream());
        var file = FileTransfer.read(request, body, place.field());
        return change(at, actor, request, body, file);
    }

    HttpReply remove(RestPlace at, Actor actor, HttpServletRequest request) {
        return change(at, actor, request, new byte[0], null);
    }

    private HttpReply change(
            RestPlace at,
            Actor actor,
            HttpServletRequest request,
            byte[] body,
            @Nullable Object file) {
        var call = Call.changing(engine, writers, actor, at, request);
        var place = at.ofFile();
        var asked =
                Preconditions.expected(
                        request.getHeader(HttpHeaders.IF_MATCH),
                        request.getHeader(HttpHeaders.IF_NONE_MATCH));
        var view = place.part() == null ? null : lines(call, at, place);
        // A line item is told by those beside it, which must be the ones that were seen.
        var expected =
                asked == null && view != null
                        ? new Expected.Versions(Set.of(view.version()))
                        : asked;
        return Changing.change(
                call,
                request,
                body,
                live ->
                        call.service()
                                .change(live, at.ofRecord(), place.change(view, file), expected));
    }

    private RecordView lines(Call call, RestPlace at, FilePlace place) {
        return engine.records()
                .read((live, session) ->
                        call.service().read(live, session, at.ofRecord(), tree(call, live, place)));
    }

    private static FieldTree tree(Call call, LiveRelease live, FilePlace place) {
        return file(call.service().resource(live, Operation.UPDATE), Operation.UPDATE, place)
                .orElseThrow(() -> notShown(place));
    }
}
