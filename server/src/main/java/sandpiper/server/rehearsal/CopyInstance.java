package sandpiper.server.rehearsal;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.logging.LoggingApplicationListener;
import org.springframework.boot.tomcat.TomcatWebServer;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;
import org.springframework.core.env.PropertySource;
import org.springframework.util.ClassUtils;
import sandpiper.engine.Engine;
import sandpiper.engine.rehearsal.CopyHost.Copy;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.server.security.Admission;
import sandpiper.server.security.SignInFailures;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/**
 * Starts an instance on a copy, in the web server of the live one: with the same settings, the same
 * people and clients, and nothing that goes out.
 */
final class CopyInstance {
    /** Of the places where requests are worked on, so that the live service keeps most. */
    private static final int SHARE = 4;

    /** Connections to a copy that lies in a database, of which the live service keeps most. */
    private static final int COPY_READERS = 4;

    private static final int COPY_WRITERS = 2;

    private final ServletWebServerApplicationContext live;
    private final Settings settings;
    private final Engine engine;

    CopyInstance(ServletWebServerApplicationContext live, Settings settings, Engine engine) {
        this.live = live;
        this.settings = settings;
        this.engine = engine;
    }

    /** Returns when it answers. */
    ConfigurableApplicationContext start(Copy copy, String place) {
        var hosting = (TomcatWebServer) Objects.requireNonNull(live.getWebServer());
        var application = new SpringApplication(application());
        application.setWebApplicationType(WebApplicationType.SERVLET);
        application.setRegisterShutdownHook(false);
        // The log is set up, and goes on when the copy is gone.
        application.setListeners(
                application.getListeners().stream()
                        .filter(one -> !(one instanceof LoggingApplicationListener))
                        .toList());
        application.addInitializers(context -> {
            sources(context.getEnvironment(), overrides(copy, place));
            var beans = (GenericApplicationContext) context;
            beans.registerBean(
                    GuestServerFactory.class, () -> new GuestServerFactory(hosting, place));
            beans.registerBean(
                    Rehearsed.class,
                    () -> new Rehearsed(place, copy.made(), copy.changes(), copy.by()));
            beans.registerBean(Admission.class, () -> Admission.asIn(engine));
            beans.registerBean(SignInFailures.class, () -> live.getBean(SignInFailures.class));
            beans.registerBean(OpenSessions.class, engine::sessions);
        });
        return application.run();
    }

    /** The class with which the live instance was started. */
    private Class<?> application() {
        var name = live.getBeanNamesForAnnotation(SpringBootApplication.class)[0];
        return ClassUtils.getUserClass(Objects.requireNonNull(live.getType(name)));
    }

    private Map<String, Object> overrides(Copy copy, String place) {
        var values = new LinkedHashMap<String, Object>();
        values.put("sandpiper.data", copy.data());
        values.put("sandpiper.database.readers", COPY_READERS);
        values.put("sandpiper.database.writers", COPY_WRITERS);
        values.put("sandpiper.key-file", settings.key().toAbsolutePath().toString());
        values.put("sandpiper.new", "false");
        values.put("sandpiper.first-password", "");
        values.put(
                "sandpiper.limits.requests-at-once",
                Math.max(1, settings.limits().requestsAtOnce() / SHARE));
        values.put("sandpiper.recording.bytes", "0B");
        // The console shows definitions to be read, as in an instance that takes packages only.
        values.put("sandpiper.instance.accepts", "packages");
        // The word by which a condition on the property is not met.
        values.put("sandpiper.tracing.endpoint", "false");
        if (!settings.publicAddress().isEmpty()) {
            values.put("sandpiper.public-address", settings.publicAddress() + place);
        }
        return values;
    }

    private void sources(ConfigurableEnvironment environment, Map<String, Object> overrides) {
        var sources = environment.getPropertySources();
        List<PropertySource<?>> same = new ArrayList<>();
        live.getEnvironment().getPropertySources().forEach(same::add);
        sources.stream().map(PropertySource::getName).toList().forEach(sources::remove);
        same.forEach(sources::addLast);
        sources.addFirst(new MapPropertySource("rehearsal", overrides));
    }
}
