package sandpiper.server.webhook;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import org.apache.hc.client5.http.classic.methods.HttpPost;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.settings.Settings;

/**
 * Posts one message. Every wait has an end, no redirect is followed, and no more than the beginning
 * of an answer is read.
 */
@Component
class WebhookClient {
    private static final int LONGEST_ANSWER = 4_000;
    private final OutgoingHttp http;

    @Autowired
    WebhookClient(Targets webhookTargets, Settings settings) {
        this(webhookTargets, settings.webhooks().timeout());
    }

    WebhookClient(Targets targets, Duration wholeTime) {
        this.http = new OutgoingHttp(targets, wholeTime, "webhook");
    }

    /**
     * What came of a message.
     *
     * @param status of the answer; 0 when there was none
     * @param answer its beginning
     * @param said what came of it, in a sentence
     * @param delivered whether it was taken
     * @param gone whether the receiver wants no more
     * @param retryAfter how long the receiver asks to wait, or {@code null}
     */
    record Sent(
            int status,
            String answer,
            String said,
            boolean delivered,
            boolean gone,
            @Nullable Duration retryAfter) {
        static Sent failed(String said) {
            return new Sent(0, "", said, false, false, null);
        }
    }

    /** Sends a message. Never throws for what is wrong on the other side. */
    Sent post(String address, Map<String, String> headers, String body) {
        URI uri;
        try {
            uri = http.targets().check(address);
        } catch (IllegalArgumentException e) {
            return Sent.failed(String.valueOf(e.getMessage()));
        }
        var request = new HttpPost(uri);
        headers.forEach(request::setHeader);
        request.setEntity(
                new StringEntity(
                        body, ContentType.create(CloudEvents.TYPE, StandardCharsets.UTF_8)));
        return http.send(
                uri,
                request,
                new OutgoingHttp.Receiver<>() {
                    @Override
                    public Sent handleResponse(ClassicHttpResponse response) throws IOException {
                        return read(response);
                    }

                    @Override
                    public Sent none(OutgoingHttp.NoAnswer why) {
                        return Sent.failed(why.said());
                    }
                });
    }

    private static Sent read(ClassicHttpResponse response) throws IOException {
        int status = response.getCode();
        var answer = beginning(response);
        boolean delivered = status >= 200 && status < 300;
        var said =
                delivered
                        ? "Taken with %d.".formatted(status)
                        : status >= 300 && status < 400
                                ? "It answered %d, a redirect, which is not followed; give the new address."
                                        .formatted(status)
                                : status == 410
                                        ? "It answered 410: it wants no more."
                                        : "It answered %d.".formatted(status);
        return new Sent(status, answer, said, delivered, status == 410, retryAfter(response));
    }

    private static String beginning(ClassicHttpResponse response) throws IOException {
        var entity = response.getEntity();
        if (entity == null) {
            return "";
        }
        // Not read to its end: the connection is closed behind it.
        try (InputStream content = entity.getContent()) {
            var bytes = content.readNBytes(LONGEST_ANSWER);
            return new String(bytes, StandardCharsets.UTF_8);
        }
    }

    private static @Nullable Duration retryAfter(ClassicHttpResponse response) {
        var header = response.getFirstHeader("Retry-After");
        if (header == null || !header.getValue().matches("\\d{1,6}")) {
            return null;
        }
        return Duration.ofSeconds(Long.parseLong(header.getValue()));
    }

    @PreDestroy
    void close() throws IOException {
        http.close();
    }
}
