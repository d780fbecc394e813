package sandpiper.server.soap;

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
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.server.intake.MessageSignIn;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.RecordWriters;
import sandpiper.server.service.RevisionParameter;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.StoredReply;
import sandpiper.server.soap.xml.MessageCharset;
import sandpiper.server.soap.xml.XmlTrees;
import sandpiper.server.traffic.CallNotes;

/**
 * Every service over SOAP 1.1 and 1.2. What there is is looked up in the live release at each call.
 */
@Component
class SoapCalls {
    private static final List<String> CONTENT_TYPES =
            List.of(SoapVersion.SOAP_11.contentType(), SoapVersion.SOAP_12.contentType());

    private final Engine engine;
    private final Cursors cursors;
    private final RecordWriters writers;
    private final SoapServices services;
    private final JsonReader json;
    private final RateLimits limits;

    SoapCalls(
            Engine engine,
            Cursors cursors,
            RecordWriters writers,
            SoapServices services,
            JsonReader json,
            RateLimits limits) {
        this.engine = engine;
        this.cursors = cursors;
        this.writers = writers;
        this.services = services;
        this.json = json;
        this.limits = limits;
    }

    /**
     * Answers a message.
     *
     * @param revision of the contract that the address names, or {@code null}
     * @param signedIn who asks by HTTP, or {@code null}
     */
    void answer(
            ServiceAddress address,
            @Nullable String revision,
            @Nullable Actor signedIn,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        var soap = SoapVersion.of(request.getContentType());
        var namespace = Wsdl.namespace(address.service(), address.version());
        try {
            checkType(request);
            var body =
                    MessageCharset.unified(
                            json.bytes(request.getInputStream()), request.getContentType());
            var envelope = Envelope.of(XmlTrees.root(body));
            soap = envelope.version();
            var actor = actor(signedIn, request);
            limits.count(actor, response::setHeader);
            HeaderBlocks.requireUnderstood(envelope);
            int had = RevisionParameter.read(revision);
            var service = service(address, had, actor);
            var operation = service.operation(envelope.call());
            SoapActions.require(request, soap, namespace, operation);
            service.check(envelope.call());
            var call =
                    new SoapCall(
                            new ServiceCall(
                                    engine,
                                    Protocol.SOAP,
                                    actor,
                                    address.service(),
                                    address.version(),
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
            send(soap, HttpStatus.OK, answered.xml(), response);
        } catch (SoapFaultException e) {
            CallNotes.failed(e.problem().status(), e.problem().said());
            send(
                    soap,
                    HttpStatus.INTERNAL_SERVER_ERROR,
                    SoapEnvelopes.fault(soap, namespace, e.problem(), e.code()),
                    response);
        } catch (RuntimeException e) {
            if (Failure.isPassing(e)) {
                response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
            }
            // Whatever it is, a caller over SOAP can read nothing but a fault.
            fault(soap, namespace, Failure.of(e, "POST " + request.getRequestURI()), response);
        }
    }

    private SoapService service(ServiceAddress address, int had, Actor actor) {
        var live = engine.live();
        var opened =
                Protocol.SOAP.open(live.release(), actor, address.service(), address.version());
        return services.of(live, RevisionParameter.narrow(engine, live, opened.type(), had), had);
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

    /** The status that the version's HTTP binding asks for, unless HTTP itself has a say. */
    private static void fault(
            SoapVersion soap, String namespace, Problem problem, HttpServletResponse response)
            throws IOException {
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
        send(soap, status, SoapEnvelopes.fault(soap, namespace, problem), response);
    }

    private static void send(
            SoapVersion soap, HttpStatus status, String xml, HttpServletResponse response)
            throws IOException {
        response.setStatus(status.value());
        response.setContentType(soap.contentType() + ";charset=UTF-8");
        if (status == HttpStatus.SERVICE_UNAVAILABLE) {
            response.setHeader(HttpHeaders.RETRY_AFTER, "1");
        }
        if (status == HttpStatus.UNAUTHORIZED) {
            response.setHeader(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"");
        }
        var body = xml.getBytes(StandardCharsets.UTF_8);
        response.setContentLength(body.length);
        response.getOutputStream().write(body);
    }
}
