package sandpiper.server.manage.outside;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.outside.Reply;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.OutsideOperation;
import sandpiper.model.openapi.ApiDifferences;
import sandpiper.model.openapi.ApiDocument;
import sandpiper.model.openapi.ApiDocumentException;
import sandpiper.model.openapi.ApiExcerpt;
import sandpiper.model.release.Release;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.outside.ConnectionController.OutsideTried;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.outside.OutsideAsker;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/** Documents that describe services outside, on their way to connections. */
@RestController
@RequestMapping("/manage/v1/documents")
public class DocumentController {
    /** Bytes of a document. */
    private static final int LARGEST = 32 << 20;

    private final Engine engine;
    private final OutsideAsker asker;
    private final OutgoingHttp http;
    private final boolean held;

    DocumentController(
            Engine engine,
            OutsideAsker asker,
            Targets connectionTargets,
            Settings settings,
            java.util.Optional<Rehearsed> rehearsed) {
        this.engine = engine;
        this.asker = asker;
        this.http =
                new OutgoingHttp(connectionTargets, settings.connections().timeout(), "contract");
        this.held = rehearsed.isPresent();
    }

    /** Where a document is. */
    record DocumentAddress(@NotNull @Size(max = 2000) String address) {}

    /** The text of a document. */
    record DocumentText(String text) {}

    /**
     * A part of a document.
     *
     * @param text the operations that are used, and what they refer to (JSON)
     * @param differences from the document there was, each a sentence; empty when there was none
     */
    record Excerpt(String text, List<String> differences) {}

    /**
     * What is asked of a service before there is a connection.
     *
     * @param setting by which the instance gives its address
     * @param operation as in {@code GET /rates/{currency}}
     */
    record OperationTry(
            @NotNull @Size(max = 100) String setting,
            @NotNull @Size(max = 2000) String operation,
            @NotNull List<@Valid SentValue> values) {}

    /** A value of a parameter; {@code place} is path, query, header or body. */
    record SentValue(@NotNull String name, @NotNull String place, @NotNull String value) {}

    @Operation(summary = "Read a document of OpenAPI")
    @PostMapping(path = "/read", consumes = "text/plain")
    DocumentView read(HttpServletRequest request, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return DocumentView.of(document(body(request)));
    }

    private static String body(HttpServletRequest request) {
        try (var content = request.getInputStream()) {
            return text(content.readNBytes(LARGEST + 1));
        } catch (IOException e) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "The body could not be read to its end.", e);
        }
    }

    private static String text(byte[] bytes) {
        if (bytes.length > LARGEST) {
            throw new ProblemException(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "A document may have %d MB.".formatted(LARGEST >> 20));
        }
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private static ApiDocument document(String text) {
        try {
            return ApiDocument.read(text);
        } catch (ApiDocumentException e) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT, String.valueOf(e.getMessage()));
        }
    }

    /** Fetches a document; nothing that it refers to is fetched with it. */
    @Operation(summary = "Fetch a document of OpenAPI")
    @PostMapping("/fetch")
    DocumentText fetch(
            @Valid @RequestBody DocumentAddress body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        if (held) {
            throw unfetched("Nothing goes out from a rehearsal.");
        }
        java.net.URI address;
        try {
            address = http.targets().check(body.address().strip());
        } catch (IllegalArgumentException e) {
            throw unfetched(String.valueOf(e.getMessage()));
        }
        var request = new HttpGet(address);
        request.setHeader("Accept", "application/json, application/yaml, text/plain;q=0.5");
        return http.send(
                address,
                request,
                new OutgoingHttp.Receiver<>() {
                    @Override
                    public DocumentText handleResponse(ClassicHttpResponse response)
                            throws IOException {
                        if (response.getCode() != 200 || response.getEntity() == null) {
                            throw unfetched("It answered %d.".formatted(response.getCode()));
                        }
                        try (var content = response.getEntity().getContent()) {
                            return new DocumentText(text(content.readNBytes(LARGEST + 1)));
                        }
                    }

                    @Override
                    public DocumentText none(OutgoingHttp.NoAnswer why) {
                        throw unfetched(why.said());
                    }
                });
    }

    private static ProblemException unfetched(String why) {
        return new ProblemException(
                HttpStatus.UNPROCESSABLE_CONTENT, "The document was not fetched. " + why);
    }

    /**
     * Cuts a document down to what is used, and says how that differs from the one there is.
     *
     * @param operations that are used, as in {@code GET /currencies}; those of the connection in
     *     the draft are used as well
     */
    @Operation(summary = "Cut a document down to what is used")
    @PostMapping(path = "/excerpt", consumes = "text/plain")
    Excerpt excerpt(
            @org.springframework.web.bind.annotation.RequestParam(defaultValue = "")
                    String connection,
            @org.springframework.web.bind.annotation.RequestParam(
                            name = "operation",
                            required = false)
                    @Nullable List<String> operations,
            HttpServletRequest request,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var document = document(body(request));
        var used = new LinkedHashSet<String>();
        if (operations != null) {
            used.addAll(operations);
        }
        var there = ConnectionType.find(draft(), connection);
        there.ifPresent(one -> used.addAll(one.operations()));
        var differences = new ArrayList<String>();
        there.map(one -> engine.drafts().files().get(one.contract()))
                .ifPresent(text -> {
                    try {
                        differences.addAll(
                                ApiDifferences.of(
                                        ApiDocument.read(text),
                                        document,
                                        there.orElseThrow().operations()));
                    } catch (ApiDocumentException _) {
                        // What there is cannot be read, so it cannot be compared with.
                        differences.add("The document there is cannot be read.");
                    }
                });
        return new Excerpt(ApiExcerpt.of(document, used), differences);
    }

    private Release draft() {
        return engine.drafts().check().outline();
    }

    /** Asks a service for something, so that its answer can be looked at. */
    @Operation(summary = "Try an operation of a service outside")
    @PostMapping("/try")
    OutsideTried tryOut(
            @Valid @RequestBody OperationTry body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var parts = body.operation().split(" ", 2);
        if (parts.length < 2 || !parts[1].startsWith("/")) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "An operation is a method and a path, as in GET /rates/{currency}.");
        }
        var operation =
                new OutsideOperation(
                        parts[0],
                        parts[1],
                        body.values().stream()
                                .map(one ->
                                        new OutsideOperation.Sent(one.name(), where(one.place())))
                                .toList());
        return ConnectionController.answered(() -> {
            try {
                var heard =
                        asker.send(
                                body.setting(),
                                body.setting(),
                                "",
                                operation,
                                body.values().stream().<Object>map(SentValue::value).toList(),
                                java.util.UUID.randomUUID().toString());
                var failure = heard.failure();
                return failure == null
                        ? new Reply.Answer(heard.answer())
                        : new Reply.Failure(failure, heard.down());
            } catch (IllegalArgumentException e) {
                return new Reply.Failure(String.valueOf(e.getMessage()), false);
            }
        });
    }

    private static OutsideOperation.Where where(String place) {
        return switch (place) {
            case "path" -> OutsideOperation.Where.PATH;
            case "header" -> OutsideOperation.Where.HEADER;
            case "body" -> OutsideOperation.Where.BODY;
            default -> OutsideOperation.Where.QUERY;
        };
    }

    @jakarta.annotation.PreDestroy
    void close() throws IOException {
        http.close();
    }
}
