package sandpiper.server.outside;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Locale;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.StringEntity;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.server.json.Bounds;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SecretCipher;

/**
 * Sends one request to a service outside and reads its answer. A redirect is followed to the same
 * place only, an answer is read up to its bound, and what is not JSON is refused.
 */
final class OutsideHttp {
    private static final int MOST_REDIRECTS = 3;
    private static final int DEEPEST = 100;

    private final OutgoingHttp http;
    private final OutsideCredentials credentials;
    private final int largest;
    private final JsonReader json;

    OutsideHttp(OutgoingHttp http, SecretCipher cipher, Clock clock, int largest) {
        this.http = http;
        this.credentials = new OutsideCredentials(http, cipher, clock);
        this.largest = largest;
        this.json = new JsonReader(new Bounds(largest, DEEPEST, 1));
    }

    /** Sends a request; {@code repeatKey} goes with what changes something. */
    Heard send(Reach reach, OutsideRequest request, String repeatKey) {
        var heard = once(reach, request, repeatKey, request.address(), 0);
        if (heard.status() == 401 && reach.scheme().equals("client-credentials")) {
            // The token may have been taken back before its time.
            credentials.forget(reach);
            return once(reach, request, repeatKey, request.address(), 0);
        }
        return heard;
    }

    private Heard once(
            Reach reach, OutsideRequest request, String repeatKey, URI address, int redirects) {
        OutsideCredentials.Header header;
        try {
            http.targets().check(address.toString());
            header = credentials.header(reach);
        } catch (IllegalArgumentException e) {
            return Heard.failed(0, String.valueOf(e.getMessage()), false, false);
        }
        if (header instanceof OutsideCredentials.Header.Missing(var why)) {
            return Heard.failed(0, why, true, false);
        }
        var sent = new HttpUriRequestBase(request.method(), address);
        sent.setHeader("Accept", "application/json");
        request.headers().forEach(sent::setHeader);
        if (header instanceof OutsideCredentials.Header.Value(var text)) {
            sent.setHeader("Authorization", text);
        }
        boolean reads = request.method().equals("GET");
        if (!reads) {
            sent.setHeader("Idempotency-Key", '"' + repeatKey.replace('"', '\'') + '"');
        }
        if (request.body() != null) {
            sent.setEntity(
                    new StringEntity(JsonText.write(request.body()), ContentType.APPLICATION_JSON));
        }
        var received =
                http.send(
                        address,
                        sent,
                        new OutgoingHttp.Receiver<Received>() {
                            @Override
                            public Received handleResponse(ClassicHttpResponse response)
                                    throws IOException {
                                return received(response);
                            }

                            @Override
                            public Received none(OutgoingHttp.NoAnswer why) {
                                return new Received(
                                        0, new byte[0], "", why.said(), reads || !why.sent());
                            }
                        });
        if (received.status() >= 300 && received.status() < 400) {
            return redirected(reach, request, repeatKey, address, received, redirects);
        }
        return heard(received, reads);
    }

    /** Bytes of an answer; {@code location} or why there is none in {@code said}. */
    private record Received(int status, byte[] body, String type, String said, boolean again) {}

    private Received received(ClassicHttpResponse response) throws IOException {
        int status = response.getCode();
        var location = response.getFirstHeader("Location");
        var entity = response.getEntity();
        if (entity == null || status == 204) {
            return new Received(
                    status, new byte[0], "", location == null ? "" : location.getValue(), false);
        }
        // Not read to its end when it is too much: the connection is closed behind it.
        try (var content = entity.getContent()) {
            return new Received(
                    status,
                    content.readNBytes(largest + 1),
                    entity.getContentType() == null ? "" : entity.getContentType(),
                    location == null ? "" : location.getValue(),
                    false);
        }
    }

    private Heard redirected(
            Reach reach,
            OutsideRequest request,
            String repeatKey,
            URI from,
            Received received,
            int redirects) {
        URI to;
        try {
            to = from.resolve(received.said());
        } catch (IllegalArgumentException _) {
            to = from;
        }
        boolean same =
                String.valueOf(from.getScheme()).equalsIgnoreCase(to.getScheme())
                        && String.valueOf(from.getHost()).equalsIgnoreCase(to.getHost())
                        && from.getPort() == to.getPort();
        if (!same) {
            return Heard.failed(
                    received.status(),
                    "It answered %d, a redirect to another place, which is not followed."
                            .formatted(received.status()),
                    false,
                    false);
        }
        if (!request.method().equals("GET")
                || received.said().isEmpty()
                || redirects == MOST_REDIRECTS) {
            return Heard.failed(
                    received.status(),
                    "It answered %d, a redirect that leads nowhere.".formatted(received.status()),
                    false,
                    false);
        }
        return once(reach, request, repeatKey, to, redirects + 1);
    }

    private Heard heard(Received received, boolean reads) {
        int status = received.status();
        if (status == 0) {
            return Heard.failed(0, received.said(), true, received.again());
        }
        if (status == 401 || status == 403) {
            return Heard.failed(
                    status,
                    "It answered %d: it does not accept the credentials of this instance."
                            .formatted(status),
                    true,
                    false);
        }
        if (status >= 500 || status == 429) {
            return Heard.failed(status, "It answered %d.".formatted(status), true, reads);
        }
        if (status >= 400) {
            return Heard.failed(status, "It answered %d.".formatted(status), false, false);
        }
        if (received.body().length > largest) {
            return Heard.failed(
                    status, "Its answer has more than %,d bytes.".formatted(largest), false, false);
        }
        if (received.body().length == 0) {
            return new Heard(status, null, null, false, false);
        }
        var type = received.type().toLowerCase(Locale.ROOT);
        if (!type.isEmpty() && !type.contains("json")) {
            return Heard.failed(
                    status,
                    "Its answer is not JSON but %s.".formatted(type.split(";", 2)[0].strip()),
                    false,
                    false);
        }
        try {
            return new Heard(status, json.any(received.body()), null, false, false);
        } catch (ProblemException e) {
            return Heard.failed(
                    status,
                    "Its answer is not JSON: %s".formatted(beginning(received.body())),
                    false,
                    false);
        }
    }

    private static String beginning(byte[] body) {
        var text = new String(body, 0, Math.min(body.length, 80), StandardCharsets.UTF_8);
        return text.lines().findFirst().orElse("").strip();
    }
}
