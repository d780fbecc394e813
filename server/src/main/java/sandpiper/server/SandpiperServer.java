package sandpiper.server;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import sandpiper.server.config.Settings;

/** Starts and stops an instance. */
@SpringBootApplication(
        excludeName =
                "org.springframework.boot.security.autoconfigure.UserDetailsServiceAutoConfiguration")
public class SandpiperServer {
    /** A running instance. */
    public record Running(ConfigurableApplicationContext context, int port)
            implements AutoCloseable {
        /** Where it answers, without a slash at the end. */
        public String address() {
            return "http://127.0.0.1:" + port;
        }

        @Override
        public void close() {
            context.close();
        }
    }

    /** Starts an instance and returns when it answers. */
    public static Running start(Settings settings) {
        var properties =
                new LinkedHashMap<String, Object>(
                        Map.of(
                                "sandpiper.data", settings.data().toString(),
                                "server.port", settings.port()));
        var password = settings.firstPassword();
        if (password != null) {
            properties.put("sandpiper.first-password", password);
        }
        var application = new SpringApplication(SandpiperServer.class);
        application.setWebApplicationType(WebApplicationType.SERVLET);
        application.setDefaultProperties(properties);
        application.addInitializers(context ->
                context.getEnvironment()
                        .getPropertySources()
                        .addFirst(
                                new org.springframework.core.env.MapPropertySource(
                                        "start", properties)));
        var context = application.run();
        var server = ((ServletWebServerApplicationContext) context).getWebServer();
        return new Running(context, java.util.Objects.requireNonNull(server).getPort());
    }
}
