package sandpiper.server;

import java.util.LinkedHashMap;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import sandpiper.engine.writer.LastWord;
import sandpiper.server.config.StartOptions;

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

    /**
     * Starts an instance and returns when it answers.
     *
     * @throws StartException when it cannot, with why
     */
    public static Running start(StartOptions settings) {
        LastWord.install();
        var properties = new LinkedHashMap<String, Object>();
        var data = settings.data();
        if (data != null) {
            properties.put("sandpiper.data", data);
        }
        if (settings.port() != null) {
            properties.put("sandpiper.port", settings.port());
        }
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
        var config = settings.config();
        var arguments =
                config == null
                        ? new String[0]
                        : new String[] {"--spring.config.additional-location=" + config.toUri()};
        var context = run(application, arguments);
        var server = ((ServletWebServerApplicationContext) context).getWebServer();
        return new Running(context, java.util.Objects.requireNonNull(server).getPort());
    }

    private static ConfigurableApplicationContext run(
            SpringApplication application, String... arguments) {
        try {
            return application.run(arguments);
        } catch (RuntimeException e) {
            throw StartException.of(e);
        }
    }
}
