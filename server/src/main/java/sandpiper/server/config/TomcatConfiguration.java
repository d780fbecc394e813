package sandpiper.server.config;

import org.apache.tomcat.util.buf.EncodedSolidusHandling;
import org.springframework.boot.tomcat.TomcatConnectorCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the server needs beyond the settings the framework has for it. */
@Configuration
class TomcatConfiguration {
    /** Bytes that hold a page of fifty records, so that it goes out in one piece. */
    private static final int WRITTEN_AT_ONCE = 16 << 10;

    @Bean
    TomcatConnectorCustomizer keysMayHoldSlashes() {
        return connector ->
                connector.setEncodedSolidusHandling(EncodedSolidusHandling.PASS_THROUGH.getValue());
    }

    @Bean
    TomcatConnectorCustomizer pagesGoOutAtOnce() {
        return connector ->
                connector.setProperty("socket.appWriteBufSize", Integer.toString(WRITTEN_AT_ONCE));
    }
}
