package sandpiper.server.config;

import org.apache.catalina.core.StandardHost;
import org.apache.tomcat.util.buf.EncodedSolidusHandling;
import org.springframework.boot.tomcat.ConfigurableTomcatWebServerFactory;
import org.springframework.boot.tomcat.TomcatConnectorCustomizer;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import sandpiper.server.intake.Intake;
import sandpiper.server.intake.ProblemReportValve;
import sandpiper.server.intake.UnreadBodyValve;
import sandpiper.server.settings.Settings;

/** What the server needs beyond the settings the framework has for it. */
@Configuration
class TomcatConfiguration {
    /** Bytes that hold a page of fifty records, so that it goes out in one piece. */
    private static final int WRITTEN_AT_ONCE = 16 << 10;

    @Bean
    TomcatConnectorCustomizer keysMayHoldSlashes() {
        return connector -> {
            var asItCame = EncodedSolidusHandling.PASS_THROUGH.getValue();
            connector.setEncodedSolidusHandling(asItCame);
            connector.setEncodedReverseSolidusHandling(asItCame);
        };
    }

    @Bean
    TomcatConnectorCustomizer pagesGoOutAtOnce() {
        return connector ->
                connector.setProperty("socket.appWriteBufSize", Integer.toString(WRITTEN_AT_ONCE));
    }

    /**
     * Threads for what is worked on and for bodies that are on their way. No form is read by the
     * web server, which would wait for it before anybody has looked at who sends it.
     */
    @Bean
    TomcatConnectorCustomizer bodiesAreTakenIn(Settings settings) {
        int atOnce = settings.limits().requestsAtOnce();
        return connector -> {
            connector.setProperty("maxThreads", Integer.toString(atOnce + Intake.THREADS));
            connector.setProperty("disableUploadTimeout", "false");
            connector.setProperty("connectionUploadTimeout", "5000");
            connector.setParseBodyMethods("");
        };
    }

    @Bean
    WebServerFactoryCustomizer<ConfigurableTomcatWebServerFactory> refusedInTheProtocol() {
        return factory -> {
            factory.addEngineValves(new UnreadBodyValve());
            factory.addContextCustomizers(context ->
                    ((StandardHost) context.getParent())
                            .setErrorReportValveClass(ProblemReportValve.class.getName()));
        };
    }
}
