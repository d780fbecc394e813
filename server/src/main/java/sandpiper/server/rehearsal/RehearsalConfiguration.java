package sandpiper.server.rehearsal;

import org.springframework.boot.autoconfigure.condition.ConditionalOnBean;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import sandpiper.server.settings.Rehearsed;

/** What an instance has besides when it is a copy. */
@Configuration
@ConditionalOnBean(Rehearsed.class)
class RehearsalConfiguration {
    @Bean
    FilterRegistrationBean<PlaceFilter> place(Rehearsed rehearsed, GuestServerFactory server) {
        var filter =
                new FilterRegistrationBean<>(new PlaceFilter(rehearsed.place(), server::isOpen));
        filter.setOrder(Ordered.HIGHEST_PRECEDENCE);
        return filter;
    }

    @Bean
    FilterRegistrationBean<HeldFilter> held() {
        var filter = new FilterRegistrationBean<>(new HeldFilter());
        // After addresses were looked at, before anybody signs in.
        filter.setOrder(Ordered.HIGHEST_PRECEDENCE + 3);
        return filter;
    }
}
