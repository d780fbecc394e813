package sandpiper.server.outgoing;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.UnknownHostException;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.SSLException;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.io.HttpClientResponseHandler;
import org.apache.hc.core5.util.Timeout;
import org.jspecify.annotations.Nullable;

/**
 * A client of HTTP for addresses that others give. Only {@link Targets} that may be called are,
 * every wait has an end, and no redirect is followed. Safe to be used by many threads.
 */
public final class OutgoingHttp implements AutoCloseable {
    private static final int CONNECTIONS = 64;
    private static final int CONNECTIONS_EACH = 8;

    private final Targets targets;
    private final Duration wholeTime;
    private final CloseableHttpClient http;
    private final ScheduledExecutorService watch;

    /** {@code wholeTime} is all that one call may take. */
    public OutgoingHttp(Targets targets, Duration wholeTime, String name) {
        this.targets = targets;
        this.wholeTime = wholeTime;
        this.watch =
                Executors.newSingleThreadScheduledExecutor(
                        Thread.ofPlatform()
                                .daemon()
                                .name("sandpiper-%s-watch".formatted(name))
                                .factory());
        var timeout = Timeout.of(wholeTime);
        this.http =
                HttpClients.custom()
                        .disableRedirectHandling()
                        .disableAutomaticRetries()
                        .disableCookieManagement()
                        .disableAuthCaching()
                        .setUserAgent("Sandpiper")
                        .setConnectionManager(
                                PoolingHttpClientConnectionManagerBuilder.create()
                                        .setDnsResolver(targets)
                                        .setMaxConnTotal(CONNECTIONS)
                                        .setMaxConnPerRoute(CONNECTIONS_EACH)
                                        .setDefaultConnectionConfig(
                                                ConnectionConfig.custom()
                                                        .setConnectTimeout(timeout)
                                                        .setSocketTimeout(timeout)
                                                        .build())
                                        .build())
                        .setDefaultRequestConfig(
                                RequestConfig.custom()
                                        .setConnectionRequestTimeout(timeout)
                                        .setResponseTimeout(timeout)
                                        .build())
                        .build();
    }

    /** The rules by which addresses are called. */
    public Targets targets() {
        return targets;
    }

    /**
     * Why there was no answer.
     *
     * @param sent whether the request may have reached the other side
     */
    public record NoAnswer(String said, boolean sent) {}

    /** What is done with an answer, or with that there is none. */
    public interface Receiver<T> extends HttpClientResponseHandler<T> {
        /** There is no answer. */
        T none(NoAnswer why);
    }

    /** Sends a request. Never throws for what is wrong on the other side. */
    public <T> T send(URI address, HttpUriRequestBase request, Receiver<T> receiver) {
        try {
            targets.check(address.toString());
        } catch (IllegalArgumentException e) {
            return receiver.none(new NoAnswer(String.valueOf(e.getMessage()), false));
        }
        // A receiver that sends a byte now and then keeps a socket's own time-out from ever ending.
        var end = watch.schedule(request::cancel, wholeTime.toMillis(), TimeUnit.MILLISECONDS);
        try {
            return http.execute(request, receiver);
        } catch (IllegalArgumentException e) {
            return receiver.none(new NoAnswer(String.valueOf(e.getMessage()), false));
        } catch (IOException e) {
            return receiver.none(why(e, request.isCancelled()));
        } finally {
            end.cancel(false);
        }
    }

    private NoAnswer why(IOException e, boolean late) {
        if (late || e instanceof InterruptedIOException) {
            return new NoAnswer(
                    "There was no answer within %d s.".formatted(wholeTime.toSeconds()), true);
        }
        return switch (e) {
            case SSLException _ ->
                    new NoAnswer(
                            "Its certificate is not right: %s".formatted(firstLine(e.getMessage())),
                            false);
            case UnknownHostException _ -> new NoAnswer("There is no host of that name.", false);
            case ConnectException _ -> new NoAnswer("Nothing answers at that address.", false);
            default ->
                    new NoAnswer(
                            "The connection broke: %s".formatted(firstLine(e.getMessage())), true);
        };
    }

    private static String firstLine(@Nullable String message) {
        return message == null ? "no reason was given" : message.lines().findFirst().orElse("");
    }

    @Override
    public void close() throws IOException {
        watch.shutdownNow();
        http.close();
    }
}
