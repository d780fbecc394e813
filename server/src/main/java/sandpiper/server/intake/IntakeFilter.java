package sandpiper.server.intake;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.security.autoconfigure.web.servlet.SecurityFilterProperties;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.engine.access.Actor;
import sandpiper.engine.writer.LastWord;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Settings;

/**
 * Takes bodies in, once it is known who asks: within a size, at a rate, and of nobody so many that
 * others wait. A place to work is taken only when all of the body is there, so that whoever sends
 * slowly keeps nobody else from working.
 */
@Component
@Order(SecurityFilterProperties.DEFAULT_FILTER_ORDER + 10)
final class IntakeFilter extends OncePerRequestFilter {
    /** Bodies that are read at the same time; each keeps a thread of the web server waiting. */
    static final int READING = 160;

    private static final int OF_ONE_ADDRESS = 24;
    private static final int OF_ONE_CALLER = 64;

    /** What somebody may send who does not say who asks: a sign-in, a request for a token. */
    private static final int OF_NOBODY = 16 << 10;

    /** The part of a message that must hold its credentials. */
    private static final int HEAD = 64 << 10;

    private static final long LONGEST_WAIT = 20;

    private final BodyShares known = new BodyShares(READING - 2 * OF_ONE_ADDRESS, OF_ONE_CALLER);
    private final BodyShares unknown = new BodyShares(2 * OF_ONE_ADDRESS, OF_ONE_ADDRESS);
    private final BodyReader reader;
    private final Semaphore places;
    private final MessageSignIn messages;

    /** Bytes of the body of one who says who asks. */
    private final int largest;

    IntakeFilter(Settings settings, MessageSignIn messages, JsonReader json) {
        this.largest = json.bounds().body();
        this.places = new Semaphore(settings.limits().requestsAtOnce(), true);
        this.messages = messages;
        this.reader = new BodyReader(Runtime.getRuntime().maxMemory() / 8, System::nanoTime);
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!hasBody(request)) {
            work(request, response, chain);
            return;
        }
        BodyReader.Body body;
        try {
            body = takeIn(request);
        } catch (ProblemException refused) {
            // What is left of it is not waited for.
            LastAnswer.say(request, response);
            if (refused.problem().status() == HttpStatus.UNSUPPORTED_MEDIA_TYPE.value()) {
                response.setHeader(HttpHeaders.ACCEPT_ENCODING, ContentCoding.TAKEN);
            }
            refuse(request, response, refused);
            return;
        }
        try (body) {
            work(new ReadRequest(request, body.bytes()), response, chain);
        }
    }

    private void refuse(
            HttpServletRequest request, HttpServletResponse response, ProblemException refused)
            throws IOException {
        if (!messages.isFor(request)) {
            Refusal.write(request, response, refused);
            return;
        }
        var problem = refused.problem();
        var written = messages.refusal(request, problem);
        response.setStatus(problem.status());
        if (problem.status() == HttpStatus.UNAUTHORIZED.value()) {
            response.setHeader(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"");
        }
        if (problem.status() == HttpStatus.SERVICE_UNAVAILABLE.value()) {
            response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        }
        response.setContentType(written.contentType());
        response.getOutputStream().write(written.text().getBytes(StandardCharsets.UTF_8));
    }

    private static boolean hasBody(HttpServletRequest request) {
        return request.getContentLengthLong() > 0
                || request.getHeader(HttpHeaders.TRANSFER_ENCODING) != null;
    }

    private BodyReader.Body takeIn(HttpServletRequest request) {
        var actor = actor();
        var shares = actor == null ? unknown : known;
        var caller = actor == null ? request.getRemoteAddr() : actor.kind() + " " + actor.name();
        if (!shares.take(caller)) {
            throw new ProblemException(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "Too many requests of yours are on their way; wait for some of them to end.");
        }
        try {
            return actor == null ? ofNobody(request) : read(new byte[0], request, largest);
        } catch (IOException e) {
            throw new ProblemException(
                    HttpStatus.REQUEST_TIMEOUT, "The body did not come to its end in time.", e);
        } finally {
            shares.give(caller);
        }
    }

    /** Of who does not say who asks, little is read; more when a message says so inside. */
    private BodyReader.Body ofNobody(HttpServletRequest request) throws IOException {
        if (!messages.isFor(request)) {
            return read(new byte[0], request, OF_NOBODY);
        }
        if (ContentCoding.isCompressed(request)) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "A message that is compressed needs HTTP Basic or a token; who sends it must"
                            + " be known before it is read.");
        }
        try (var head = reader.head(request.getInputStream(), HEAD)) {
            var actor = messages.signIn(head.bytes(), request.getRemoteAddr());
            if (actor.isEmpty()) {
                throw new ProblemException(
                        HttpStatus.UNAUTHORIZED,
                        "Send the id and secret of a client with HTTP Basic or as a UsernameToken"
                                + " in the first %,d bytes of the message.".formatted(HEAD));
            }
            request.setAttribute(MessageSignIn.ACTOR, actor.get());
            return read(head.bytes(), request, largest);
        }
    }

    private BodyReader.Body read(byte[] start, HttpServletRequest request, int largest)
            throws IOException {
        // Of what is compressed nobody knows before how much it comes to.
        long length = ContentCoding.isCompressed(request) ? -1 : request.getContentLengthLong();
        return reader.read(start, ContentCoding.of(request), length, largest);
    }

    private static @Nullable Actor actor() {
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getPrincipal() instanceof Actor actor
                ? actor
                : null;
    }

    private void work(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        // Whoever watches over the service must get an answer however busy it is.
        if (request.getRequestURI().equals("/manage/v1/health")) {
            chain.doFilter(request, response);
            return;
        }
        if (!place()) {
            Refusal.write(
                    request,
                    response,
                    new ProblemException(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            "The service is busy; nothing of this was done. Try again in a"
                                    + " moment."));
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (ServletException | Error e) {
            if (LastWord.isFinal(e)) {
                LastWord.end(e);
            }
            throw e;
        } finally {
            places.release();
        }
    }

    private boolean place() {
        try {
            return places.tryAcquire(LONGEST_WAIT, TimeUnit.SECONDS);
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
