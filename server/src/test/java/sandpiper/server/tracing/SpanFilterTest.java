package sandpiper.server.tracing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import io.opentelemetry.api.trace.StatusCode;
import io.opentelemetry.sdk.common.CompletableResultCode;
import io.opentelemetry.sdk.trace.SdkTracerProvider;
import io.opentelemetry.sdk.trace.data.SpanData;
import io.opentelemetry.sdk.trace.export.SimpleSpanProcessor;
import io.opentelemetry.sdk.trace.export.SpanExporter;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import sandpiper.server.settings.SomeSettings;

class SpanFilterTest {
    private final List<SpanData> spans = new ArrayList<>();
    private final SpanFilter filter =
            new SpanFilter(
                    SdkTracerProvider.builder()
                            .addSpanProcessor(SimpleSpanProcessor.create(new Kept()))
                            .build()
                            .get("test"));

    /** Keeps spans to look at. */
    private final class Kept implements SpanExporter {
        @Override
        public CompletableResultCode export(Collection<SpanData> some) {
            spans.addAll(some);
            return CompletableResultCode.ofSuccess();
        }

        @Override
        public CompletableResultCode flush() {
            return CompletableResultCode.ofSuccess();
        }

        @Override
        public CompletableResultCode shutdown() {
            return CompletableResultCode.ofSuccess();
        }
    }

    @Test
    void aRequestIsPartOfItsCallersTrace() throws Exception {
        var request = new MockHttpServletRequest("GET", "/api/desk/v1/stays/ST-1");
        request.addHeader("traceparent", "00-0af7651916cd43dd8448eb211c80319c-b7ad6b7169203331-01");
        var response = new MockHttpServletResponse();

        filter.doFilter(request, response, (_, _) -> response.setStatus(404));

        assertThat(spans)
                .singleElement()
                .satisfies(span -> {
                    assertThat(span.getTraceId()).isEqualTo("0af7651916cd43dd8448eb211c80319c");
                    assertThat(span.getParentSpanId()).isEqualTo("b7ad6b7169203331");
                    assertThat(span.getAttributes().asMap().toString())
                            .contains("http.response.status_code=404")
                            .contains("url.path=/api/desk/v1/stays/ST-1");
                    assertThat(span.getStatus().getStatusCode()).isEqualTo(StatusCode.UNSET);
                });
    }

    @Test
    void aFailureIsMarked() {
        assertThatThrownBy(() ->
                        filter.doFilter(
                                new MockHttpServletRequest("GET", "/x"),
                                new MockHttpServletResponse(),
                                (_, _) -> {
                                    throw new IllegalStateException("broken");
                                }))
                .isInstanceOf(IllegalStateException.class);
        assertThat(spans.getFirst().getStatus().getStatusCode()).isEqualTo(StatusCode.ERROR);
    }

    @Test
    void spansAreSentOverOtlp() throws Exception {
        var received = new LinkedBlockingQueue<String>();
        var collector = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        collector.createContext(
                "/v1/traces",
                exchange -> {
                    received.add(new String(exchange.getRequestBody().readAllBytes()));
                    exchange.sendResponseHeaders(200, -1);
                    exchange.close();
                });
        collector.start();
        try (var provider =
                new TracingConfiguration()
                        .spans(
                                SomeSettings.with(
                                        Map.of(
                                                "sandpiper.tracing.endpoint",
                                                "http://127.0.0.1:%d/v1/traces"
                                                        .formatted(
                                                                collector
                                                                        .getAddress()
                                                                        .getPort()))))) {
            new TracingConfiguration()
                    .spanFilter(provider)
                    .doFilter(
                            new MockHttpServletRequest("GET", "/api/desk/v1/stays"),
                            new MockHttpServletResponse(),
                            (_, _) -> {});
            provider.forceFlush().join(10, TimeUnit.SECONDS);

            assertThat(received.poll(10, TimeUnit.SECONDS)).contains("/api/desk/v1/stays");
        } finally {
            collector.stop(0);
        }
    }
}
