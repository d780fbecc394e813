package sandpiper.server.rehearsal;

import org.apache.catalina.LifecycleException;
import org.apache.catalina.core.StandardContext;
import org.apache.catalina.core.StandardHost;
import org.springframework.boot.tomcat.TomcatWebServer;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServer;
import org.springframework.boot.web.server.WebServerException;
import org.springframework.boot.web.server.servlet.ContextPath;
import org.springframework.boot.web.servlet.ServletContextInitializer;

/**
 * Puts an instance into the web server of another: it answers at a place of its own, behind the
 * same address, with the same connections.
 */
final class GuestServerFactory extends TomcatServletWebServerFactory {
    private final TomcatWebServer hosting;
    private final String place;
    private volatile boolean open = true;

    GuestServerFactory(TomcatWebServer hosting, String place) {
        this.hosting = hosting;
        this.place = place;
    }

    /** Whether requests are still worked on. */
    boolean isOpen() {
        return open;
    }

    @Override
    public WebServer getWebServer(ServletContextInitializer... initializers) {
        var host = (StandardHost) hosting.getTomcat().getHost();
        getSettings().setContextPath(ContextPath.of(place));
        var folders = new TempDirs(hosting.getPort());
        boolean starting = host.getStartChildren();
        // It is started when it is set up.
        host.setStartChildren(false);
        try {
            prepareContext(host, initializers, folders);
        } finally {
            host.setStartChildren(starting);
        }
        var context = (StandardContext) host.findChild(place);
        try {
            context.start();
        } catch (LifecycleException e) {
            throw new WebServerException("The copy cannot be served", e);
        }
        if (!context.getState().isAvailable() || context.findFilterDefs().length == 0) {
            host.removeChild(context);
            throw new WebServerException(
                    "The copy cannot be served; the log says why", new IllegalStateException());
        }
        return new Guest(host, context, folders);
    }

    private final class Guest implements WebServer {
        private final StandardHost host;
        private final StandardContext context;
        private final TempDirs folders;

        Guest(StandardHost host, StandardContext context, TempDirs folders) {
            this.host = host;
            this.context = context;
            this.folders = folders;
        }

        @Override
        public void start() {
            // It answers since it was put there.
        }

        @Override
        public void stop() {
            // What is used by requests ends after this, and what it was put in after that.
            open = false;
        }

        @Override
        public void destroy() {
            if (host.findChild(context.getName()) == context) {
                host.removeChild(context);
                folders.cleanup();
            }
        }

        @Override
        public int getPort() {
            return hosting.getPort();
        }
    }
}
