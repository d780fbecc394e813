package sandpiper.server.config;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.time.Clock;
import java.util.Optional;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.scheduling.annotation.Scheduled;
import sandpiper.engine.Engine;
import sandpiper.engine.Tuning;
import sandpiper.engine.delivery.Backoff;
import sandpiper.engine.example.Examples;
import sandpiper.engine.outside.OutsideServices;
import sandpiper.engine.port.Storage;
import sandpiper.engine.rehearsal.CopyHost;
import sandpiper.engine.rehearsal.Rehearsals;
import sandpiper.server.json.Bounds;
import sandpiper.server.json.JsonReader;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;
import sandpiper.store.SqliteStorage;

/** Puts the engine on its storage. */
@Configuration
@EnableScheduling
@EnableConfigurationProperties(Settings.class)
class EngineConfiguration {
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    @Bean
    JsonReader jsonReader(Settings settings) {
        var limits = settings.limits();
        return new JsonReader(
                new Bounds((int) limits.body().toBytes(), limits.depth(), limits.page()));
    }

    /** The engine closes it. */
    @Bean(destroyMethod = "")
    Storage storage(Settings settings, Clock clock) {
        return DataPlace.open(settings, clock);
    }

    @Bean(destroyMethod = "close")
    Engine engine(
            Settings settings,
            Storage storage,
            MeterRegistry meters,
            OutsideServices outside,
            Optional<Rehearsed> rehearsed) {
        var limits = settings.limits();
        var engine =
                new Engine(
                        storage,
                        storage.clock(),
                        new Tuning(
                                limits.waitingChanges(),
                                Backoff.OF_HANDLERS,
                                new WriteMeters(meters),
                                rehearsed.isEmpty(),
                                outside));
        DataFile.requireDemoMeant(engine, settings.demo());
        Gauge.builder("sandpiper.changes.waiting", engine, Engine::waiting)
                .description("Changes that wait to be written.")
                .register(meters);
        return engine;
    }

    @Bean
    Targets webhookTargets(Settings settings) {
        return new Targets(settings.webhooks().allow(), "sandpiper.webhooks.allow");
    }

    @Bean
    Targets connectionTargets(Settings settings) {
        return new Targets(settings.connections().allow(), "sandpiper.connections.allow");
    }

    @Bean
    Examples examples() {
        return new Examples(SqliteStorage::temporary);
    }

    @Bean(destroyMethod = "close")
    Rehearsals rehearsals(
            Engine engine, Storage storage, Examples examples, CopyHost host, Settings settings) {
        return new Rehearsals(engine, examples, DataPlace.copies(settings, engine, storage), host);
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
        void forgetOld() {
            engine.forgetOld();
        }
    }
}
