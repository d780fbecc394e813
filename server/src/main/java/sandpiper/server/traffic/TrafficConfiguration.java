package sandpiper.server.traffic;

import io.micrometer.core.instrument.binder.jvm.JvmMemoryMetrics;
import io.micrometer.core.instrument.binder.jvm.JvmThreadMetrics;
import io.micrometer.core.instrument.binder.system.ProcessorMetrics;
import io.micrometer.core.instrument.binder.system.UptimeMetrics;
import io.micrometer.prometheusmetrics.PrometheusConfig;
import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Where figures are collected. */
@Configuration
@EnableScheduling
class TrafficConfiguration {
    @Bean(destroyMethod = "close")
    PrometheusMeterRegistry meters() {
        var meters = new PrometheusMeterRegistry(PrometheusConfig.DEFAULT);
        new JvmMemoryMetrics().bindTo(meters);
        new JvmThreadMetrics().bindTo(meters);
        new ProcessorMetrics().bindTo(meters);
        new UptimeMetrics().bindTo(meters);
        return meters;
    }
}
