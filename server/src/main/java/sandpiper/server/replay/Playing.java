package sandpiper.server.replay;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.HashMap;
import java.util.Iterator;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import sandpiper.engine.rehearsal.ReplayReport;
import sandpiper.server.security.AccessTokens;

/** One replay: each call to one copy and then to the other, one call after the other. */
final class Playing implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Playing.class);
    private static final Duration LONGEST_CALL = Duration.ofSeconds(30);
    private static final Duration LONGEST = Duration.ofMinutes(15);
    private static final Duration TOKEN_USED = AccessTokens.LIFE.dividedBy(2);

    private final AccessTokens tokens;
    private final String before;
    private final String after;
    private final Map<String, Token> ofClients = new HashMap<>();
    private final AnswerComparison comparison = new AnswerComparison();
    private final Tally tally = new Tally();
    private final HttpClient http =
            HttpClient.newBuilder()
                    .version(HttpClient.Version.HTTP_1_1)
                    .connectTimeout(LONGEST_CALL)
                    .build();

    private record Token(String text, long until) {}

    Playing(AccessTokens tokens, String before, String after) {
        this.tokens = tokens;
        this.before = before;
        this.after = after;
    }

    /** Plays calls as far as time allows, and counts the others. */
    ReplayReport play(Iterator<RecordedCall> calls) throws InterruptedException {
        long end = System.nanoTime() + LONGEST.toNanos();
        while (calls.hasNext()) {
            var call = calls.next();
            tally.came(call);
            if (System.nanoTime() - end < 0) {
                play(call);
            }
        }
        return tally.report();
    }

    private void play(RecordedCall call) throws InterruptedException {
        try {
            var now = ask(before, call);
            var then = ask(after, call);
            // Of a client that is no longer there nothing can be told.
            if (now.status() != HttpStatus.UNAUTHORIZED.value()) {
                tally.played(call, comparison.compare(now, then));
            }
        } catch (IOException | IllegalArgumentException e) {
            LOG.debug("{} {} could not be played", call.method(), call.target(), e);
        }
    }

    private ReplayedAnswer ask(String copy, RecordedCall call)
            throws IOException, InterruptedException {
        var request =
                HttpRequest.newBuilder(URI.create(copy + call.target()))
                        .timeout(LONGEST_CALL)
                        .header(HttpHeaders.AUTHORIZATION, "Bearer " + token(call.client()))
                        .method(
                                call.method(),
                                call.body().length == 0
                                        ? BodyPublishers.noBody()
                                        : BodyPublishers.ofByteArray(call.body()));
        call.headers().forEach(request::header);
        var came = http.send(request.build(), BodyHandlers.ofByteArray());
        return new ReplayedAnswer(
                came.statusCode(),
                came.headers().firstValue(HttpHeaders.CONTENT_TYPE).orElse(""),
                came.headers().firstValue(HttpHeaders.LOCATION).orElse(""),
                withoutPlace(copy, came.body()));
    }

    /** Addresses in answers are those of the copies. */
    private static byte[] withoutPlace(String copy, byte[] body) {
        var place = URI.create(copy).getPath() + "/";
        return new String(body, StandardCharsets.UTF_8)
                .replace(place, "/")
                .getBytes(StandardCharsets.UTF_8);
    }

    private String token(String client) {
        long now = System.nanoTime();
        var known = ofClients.get(client);
        if (known == null || known.until() - now < 0) {
            known = new Token(tokens.issue(client), now + TOKEN_USED.toNanos());
            ofClients.put(client, known);
        }
        return known.text();
    }

    @Override
    public void close() {
        // What is on its way is of no use any more.
        http.shutdownNow();
    }
}
