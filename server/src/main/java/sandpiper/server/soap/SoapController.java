package sandpiper.server.soap;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.w3c.dom.Element;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.OverloadedException;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ServiceType;
import sandpiper.server.intake.MessageSignIn;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.ReleaseChoice;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.StoredReply;
import sandpiper.server.traffic.CallNotes;

/**
 * Every service over SOAP 1.1 and 1.2. What there is is looked up in the live release at each call.
 */
@RestController
class SoapController {
    private final PublicAddress addresses;
    private final JsonReader json;
    private static final String ADDRESS =
            Protocol.SOAP_AT + "{service:[a-z0-9-]+}/v{version:\\d{1,3}}";

    /** Behind the address, as contracts name it. */
    private static final String REVISION = "/r{revision:\\d{1,9}}";

    private static final List<String> CONTENT_TYPES =
            List.of(SoapVersion.SOAP_11.contentType(), SoapVersion.SOAP_12.contentType());

    private final Engine engine;
    private final Cursors cursors;
    private final RecordWriters writers;
    private final XmlTrees trees;
    private final Requests requests;
    private final RateLimits limits;

    SoapController(
            Engine engine,
            Cursors cursors,
            RecordWriters writers,
            XmlTrees trees,
            JsonReader json,
            Requests requests,
            RateLimits limits,
            PublicAddress addresses) {
        this.addresses = addresses;
        this.limits = limits;
        this.engine = engine;
        this.cursors = cursors;
        this.writers = writers;
        this.trees = trees;
        this.json = json;
        this.requests = requests;
    }

    /** The contract, at {@code ?wsdl}. */
    @Operation(summary = "The contract, at ?wsdl")
    @GetMapping({
        ADDRESS,
        ADDRESS + REVISION,
        "/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/wsdl"
    })
    ResponseEntity<String> contract(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable(required = false) @Nullable String revision,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal @Nullable Actor actor,
            HttpServletRequest request) {
        if (actor == null) {
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED)
                    .header(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"")
                    .build();
        }
        var release = ReleaseChoice.of(engine, actor, of);
        var type = Protocol.SOAP.open(release, actor, service, version).type();
        var address = addresses.of(request) + Protocol.SOAP.address(service, version);
        if (of == ReleaseChoice.Source.LIVE) {
            int had =
                    revision == null
                            ? engine.releases().revisions().newest(type)
                            : RevisionParameter.read(revision);
            type = RevisionParameter.narrow(engine, engine.live(), type, had);
            address += "/r" + had;
        }
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "xml", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "inline; filename=\"%s-v%d.wsdl\"".formatted(service, version))
                .body(Wsdl.of(release, type, address, json.bounds()));
    }

    /** A message for each operation, for trying the service. */
    @Operation(summary = "A message for each operation, for trying the service")
    @GetMapping("/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/soap-examples")
    List<SoapExamples.Example> examples(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor) {
        return SoapExamples.of(
                Protocol.SOAP
                        .open(ReleaseChoice.of(engine, actor, of), actor, service, version)
                        .type());
    }

    @PostMapping({ADDRESS, ADDRESS + REVISION})
    ResponseEntity<String> call(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable(required = false) @Nullable String revision,
            @AuthenticationPrincipal @Nullable Actor signedIn,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        var soap = SoapVersion.of(request.getContentType());
        var namespace = Wsdl.namespace(service, version);
        try {
            checkType(request);
            var body =
                    MessageCharset.unified(
                            json.bytes(request.getInputStream()), request.getContentType());
            var envelope = Envelope.of(trees.root(body));
            soap = envelope.version();
            var actor = actor(signedIn, request);
            limits.count(actor, response::setHeader);
            HeaderBlocks.requireUnderstood(envelope);
            var live = engine.live();
            int had = RevisionParameter.read(revision);
            var type =
                    RevisionParameter.narrow(
                            engine,
                            live,
                            Protocol.SOAP.open(live.release(), actor, service, version).type(),
                            had);
            var operation = operation(type, envelope.call());
            SoapActions.require(request, soap, namespace, operation);
            requests.check(live, type, had, envelope.call());
            var call =
                    new SoapCall(
                            new ServiceCall(
                                    engine,
                                    Protocol.SOAP,
                                    actor,
                                    service,
                                    version,
                                    had,
                                    operation.grantedAs()),
                            operation,
                            soap,
                            namespace,
                            cursors,
                            writers,
                            json.bounds());
            var answered = call.run(envelope.call(), body, IdempotencyKey.of(request));
            if (answered.again()) {
                response.setHeader(StoredReply.REPLAYED, "true");
            }
            return answer(soap, HttpStatus.OK, answered.xml());
        } catch (SoapFaultException e) {
            CallNotes.failed(e.problem().status(), e.problem().said());
            return answer(
                    soap,
                    HttpStatus.INTERNAL_SERVER_ERROR,
                    SoapEnvelopes.fault(soap, namespace, e.problem(), e.code()));
        } catch (RuntimeException e) {
            if (e instanceof OverloadedException) {
                response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
            }
            // Whatever it is, a caller over SOAP can read nothing but a fault.
            return fault(soap, namespace, Failure.of(e, "POST " + request.getRequestURI()));
        }
    }

    private static void checkType(HttpServletRequest request) {
        var type = Objects.requireNonNullElse(request.getContentType(), "");
        if (CONTENT_TYPES.stream().noneMatch(type.toLowerCase(Locale.ROOT)::startsWith)) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "A SOAP request has the content type %s."
                            .formatted(String.join(" or ", CONTENT_TYPES)));
        }
    }

    /** Who asks: by HTTP, or as the head of the message said. */
    private static Actor actor(@Nullable Actor signedIn, HttpServletRequest request) {
        if (signedIn != null) {
            return signedIn;
        }
        if (request.getAttribute(MessageSignIn.ACTOR) instanceof Actor actor) {
            return actor;
        }
        throw new ProblemException(
                HttpStatus.UNAUTHORIZED,
                "Send the id and secret of a client with HTTP Basic or as a UsernameToken.");
    }

    private static SoapOperation operation(ServiceType service, Element call) {
        var name = call.getLocalName();
        var operation = SoapOperation.find(service, name);
        if (operation.isEmpty()) {
            var names = SoapOperation.of(service).stream().map(SoapOperation::name).toList();
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "%s has no operation %s; there are %s.%s"
                            .formatted(
                                    service.titled(),
                                    Quoted.of(name),
                                    String.join(", ", names),
                                    Nearest.to(name, names)
                                            .map(near -> " Did you mean %s?".formatted(near))
                                            .orElse("")));
        }
        if (!Wsdl.namespace(service).equals(call.getNamespaceURI())) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "The element %s must be in the namespace %s."
                            .formatted(name, Wsdl.namespace(service)));
        }
        return operation.get();
    }

    /** The status that the version's HTTP binding asks for, unless HTTP itself has a say. */
    private static ResponseEntity<String> fault(
            SoapVersion soap, String namespace, Problem problem) {
        var http = HttpStatus.valueOf(problem.status());
        CallNotes.failed(problem.status(), problem.said());
        boolean ofHttp =
                http == HttpStatus.UNAUTHORIZED
                        || http == HttpStatus.CONTENT_TOO_LARGE
                        || http == HttpStatus.UNSUPPORTED_MEDIA_TYPE
                        || http == HttpStatus.TOO_MANY_REQUESTS
                        || http == HttpStatus.SERVICE_UNAVAILABLE;
        var status =
                ofHttp
                        ? http
                        : soap == SoapVersion.SOAP_11 || http.is5xxServerError()
                                ? HttpStatus.INTERNAL_SERVER_ERROR
                                : HttpStatus.BAD_REQUEST;
        return answer(soap, status, SoapEnvelopes.fault(soap, namespace, problem));
    }

    private static ResponseEntity<String> answer(SoapVersion soap, HttpStatus status, String xml) {
        var answer =
                ResponseEntity.status(status)
                        .contentType(
                                MediaType.parseMediaType(soap.contentType() + ";charset=UTF-8"));
        if (status == HttpStatus.SERVICE_UNAVAILABLE) {
            answer.header(HttpHeaders.RETRY_AFTER, "1");
        }
        if (status == HttpStatus.UNAUTHORIZED) {
            answer.header(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"");
        }
        return answer.body(xml);
    }
}
