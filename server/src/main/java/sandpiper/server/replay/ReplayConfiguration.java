package sandpiper.server.replay;

import java.time.Clock;
import org.springframework.boot.security.autoconfigure.web.servlet.SecurityFilterProperties;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.Scheduled;
import sandpiper.server.settings.Settings;

/** Keeps calls where the operator allows it. */
@Configuration
class ReplayConfiguration {
    @Bean(destroyMethod = "close")
    Recordings recordings(Settings settings, Clock clock) {
        var recording = settings.recording();
        return new Recordings(
                settings.calls().toAbsolutePath(),
                recording.bytes().toBytes(),
                recording.kept(),
                clock);
    }

    @Bean
    FilterRegistrationBean<RecordingFilter> recording(
            Recordings recordings, Settings settings, Clock clock) {
        var filter = new FilterRegistrationBean<>(new RecordingFilter(recordings, clock));
        filter.setEnabled(settings.recording().bytes().toBytes() > 0);
        // Behind the one that takes bodies in, so that they can be read again.
        filter.setOrder(SecurityFilterProperties.DEFAULT_FILTER_ORDER + 12);
        return filter;
    }

    @Bean
    OldCalls oldCalls(Recordings recordings) {
        return new OldCalls(recordings);
    }

    /** Forgets from time to time what is older than it may be. */
    static class OldCalls {
        private final Recordings recordings;

        OldCalls(Recordings recordings) {
            this.recordings = recordings;
        }

        @Scheduled(fixedDelayString = "PT1H", initialDelayString = "PT1M")
        void forget() {
            recordings.forgetOld();
        }
    }
}
