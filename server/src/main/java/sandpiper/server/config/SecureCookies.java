package sandpiper.server.config;

import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import sandpiper.server.intake.PublicAddress;

/** Cookies go over TLS alone when everybody comes that way. */
@Configuration
class SecureCookies {
    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> secureSessions(
            PublicAddress address) {
        return factory -> {
            if (address.isSecure()) {
                factory.getSettings().getSession().getCookie().setSecure(true);
            }
        };
    }
}
