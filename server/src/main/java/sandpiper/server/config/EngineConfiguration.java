package sandpiper.server.config;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.util.unit.DataSize;
import sandpiper.engine.Engine;
import sandpiper.engine.Tuning;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.example.Examples;
import sandpiper.server.json.Bounds;
import sandpiper.store.SqliteStorage;

/** Puts the engine on its storage. */
@Configuration
@EnableScheduling
class EngineConfiguration {
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    @Bean
    Bounds bounds(
            @Value("${sandpiper.limits.body}") DataSize body,
            @Value("${sandpiper.limits.depth}") int depth,
            @Value("${sandpiper.limits.page}") int page) {
        var bounds = new Bounds(body.toBytes(), depth, page);
        bounds.apply();
        return bounds;
    }

    @Bean(destroyMethod = "close")
    Engine engine(
            @Value("${sandpiper.data}") Path data,
            @Value("${sandpiper.new:false}") boolean fresh,
            @Value("${sandpiper.demo:false}") boolean demo,
            @Value("${sandpiper.limits.waiting-changes}") int longestQueue,
            @Value("${sandpiper.limits.read-time}") Duration longestRead,
            Clock clock,
            MeterRegistry meters) {
        DataFile.requireExpected(data, fresh);
        var engine =
                new Engine(
                        SqliteStorage.open(data, clock, longestRead),
                        clock,
                        new Tuning(longestQueue, Backoff.OF_HANDLERS, new WriteMeters(meters)));
        DataFile.requireDemoMeant(engine, demo);
        Gauge.builder("sandpiper.changes.waiting", engine, Engine::waiting)
                .description("Changes that wait to be written.")
                .register(meters);
        return engine;
    }

    @Bean
    Examples examples() {
        return new Examples(SqliteStorage::temporary);
    }

    @Bean
    Housekeeping housekeeping(Engine engine) {
        return new Housekeeping(engine);
    }

    /** What has to be done from time to time. */
    static class Housekeeping {
        private final Engine engine;

        Housekeeping(Engine engine) {
            this.engine = engine;
        }

        @Scheduled(fixedDelayString = "PT1H", initialDelayString = "PT10M")
        void forgetOldAnswers() {
            engine.forgetOldAnswers();
        }
    }
}
