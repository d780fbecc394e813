package sandpiper.server.config;

import java.nio.file.Path;
import java.time.Clock;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.springframework.scheduling.annotation.Scheduled;
import sandpiper.engine.Engine;
import sandpiper.engine.example.Examples;
import sandpiper.store.SqliteStorage;

/** Puts the engine on its storage. */
@Configuration
@EnableScheduling
class EngineConfiguration {
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    @Bean(destroyMethod = "close")
    Engine engine(@Value("${sandpiper.data}") Path data, Clock clock) {
        return new Engine(SqliteStorage.open(data, clock), clock);
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
