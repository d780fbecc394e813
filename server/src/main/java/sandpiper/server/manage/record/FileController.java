package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.FilePlace;
import sandpiper.server.service.FileTransfer;

/** Files of records. They come in with the values of the records, as base64. */
@RestController
@RequestMapping("/manage/v1/records/{object}/{key}/files")
class FileController {
    private final Engine engine;

    FileController(Engine engine) {
        this.engine = engine;
    }

    @Operation(summary = "A file of a record")
    @GetMapping("/{field}")
    ResponseEntity<byte[]> ofRecord(
            @PathVariable String object,
            @PathVariable String key,
            @PathVariable String field,
            @RequestHeader(name = HttpHeaders.IF_NONE_MATCH, required = false)
                    @Nullable String ifNoneMatch,
            @AuthenticationPrincipal Actor actor) {
        return file(object, key, FilePlace.of(field), ifNoneMatch, actor);
    }

    @Operation(summary = "A file of a line item")
    @GetMapping("/{part}/{line}/{field}")
    ResponseEntity<byte[]> ofItem(
            @PathVariable String object,
            @PathVariable String key,
            @PathVariable String part,
            @PathVariable long line,
            @PathVariable String field,
            @RequestHeader(name = HttpHeaders.IF_NONE_MATCH, required = false)
                    @Nullable String ifNoneMatch,
            @AuthenticationPrincipal Actor actor) {
        return file(object, key, new FilePlace(part, line, field), ifNoneMatch, actor);
    }

    private ResponseEntity<byte[]> file(
            String object, String key, FilePlace place, @Nullable String known, Actor actor) {
        return engine.records()
                .read((live, session) -> {
                    var type = RecordQueries.object(live, object);
                    var access = RecordAccess.of(actor, live, type).require(Action.VIEW);
                    var tree =
                            place.in(access.seen())
                                    .orElseThrow(() -> missing("There is no file", place.field()));
                    var view =
                            engine.records()
                                    .find(live, session, type, key, tree, access.scope(Action.VIEW))
                                    .orElseThrow(() -> missing("There is no " + type.label(), key));
                    var file =
                            place.of(view)
                                    .orElseThrow(() -> missing("No file is in", place.field()));
                    boolean fresh = FileTransfer.isFresh(known, file);
                    var answer =
                            ResponseEntity.status(fresh ? HttpStatus.NOT_MODIFIED : HttpStatus.OK);
                    FileTransfer.headers(file).forEach(answer::header);
                    return fresh
                            ? answer.build()
                            : answer.body(
                                    engine.records().bytes(session, file).orElseThrow().array());
                });
    }

    private static ProblemException missing(String what, String name) {
        return new ProblemException(
                HttpStatus.NOT_FOUND, "%s %s.".formatted(what, Quoted.of(name)));
    }
}
