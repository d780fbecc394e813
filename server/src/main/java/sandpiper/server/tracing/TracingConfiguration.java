package sandpiper.server.tracing;

import io.opentelemetry.api.common.AttributeKey;
import io.opentelemetry.api.trace.Tracer;
import io.opentelemetry.exporter.otlp.http.trace.OtlpHttpSpanExporter;
import io.opentelemetry.sdk.resources.Resource;
import io.opentelemetry.sdk.trace.SdkTracerProvider;
import io.opentelemetry.sdk.trace.export.BatchSpanProcessor;
import java.util.Objects;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import sandpiper.server.settings.Settings;

/**
 * Sends spans over OTLP/HTTP to the address in {@code sandpiper.tracing.endpoint}, such as {@code
 * http://127.0.0.1:4318/v1/traces}. Without one nothing is recorded.
 */
@Configuration
@ConditionalOnProperty("sandpiper.tracing.endpoint")
class TracingConfiguration {
    @Bean(destroyMethod = "close")
    SdkTracerProvider spans(Settings settings) {
        var endpoint = Objects.requireNonNull(settings.tracing().endpoint());
        var exporter = OtlpHttpSpanExporter.builder().setEndpoint(endpoint).build();
        return SdkTracerProvider.builder()
                .addResource(
                        Resource.builder()
                                .put(AttributeKey.stringKey("service.name"), "sandpiper")
                                .build())
                .addSpanProcessor(BatchSpanProcessor.builder(exporter).build())
                .build();
    }

    @Bean
    SpanFilter spanFilter(SdkTracerProvider spans) {
        Tracer tracer = spans.get("sandpiper");
        return new SpanFilter(tracer);
    }
}
