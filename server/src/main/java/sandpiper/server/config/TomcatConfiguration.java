package sandpiper.server.config;

import org.apache.tomcat.util.buf.EncodedSolidusHandling;
import org.springframework.boot.tomcat.TomcatConnectorCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Lets keys hold any character, a slash included. */
@Configuration
class TomcatConfiguration {
    @Bean
    TomcatConnectorCustomizer keysMayHoldSlashes() {
        return connector ->
                connector.setEncodedSolidusHandling(EncodedSolidusHandling.PASS_THROUGH.getValue());
    }
}
