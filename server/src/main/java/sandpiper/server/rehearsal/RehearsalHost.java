package sandpiper.server.rehearsal;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Objects;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.rehearsal.CopyHost;
import sandpiper.engine.rehearsal.ReplayReport;
import sandpiper.server.replay.Replay;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/** Serves copies beside the live service, at {@code /rehearsal}. */
@Component
public class RehearsalHost implements CopyHost {
    /** Where the data without the draft answers while calls are replayed. */
    private static final String BEFORE = "/rehearsal-before";

    private final ServletWebServerApplicationContext live;
    private final Settings settings;
    private final Replay replay;
    private final Engine engine;

    RehearsalHost(ApplicationContext live, Settings settings, Replay replay, Engine engine) {
        this.live = (ServletWebServerApplicationContext) live;
        this.settings = settings;
        this.replay = replay;
        this.engine = engine;
    }

    @Override
    public boolean hasCalls() {
        return replay.hasCalls();
    }

    @Override
    public Served serve(Copy copy) {
        return serve(copy, Rehearsed.PLACE);
    }

    private Served serve(Copy copy, String place) {
        var context = new CopyInstance(live, settings, engine).start(copy, place);
        return new Served() {
            @Override
            public String place() {
                return place;
            }

            @Override
            public void close() {
                context.close();
            }
        };
    }

    @Override
    public ReplayReport replay(Copy before, Served after) throws InterruptedException {
        try (var old = serve(before, BEFORE)) {
            return replay.play(address() + old.place(), address() + after.place());
        }
    }

    /** Where the service reaches itself. */
    private String address() {
        int port = Objects.requireNonNull(live.getWebServer()).getPort();
        return "http://%s:%d".formatted(host(), port);
    }

    private String host() {
        try {
            var listening = InetAddress.getByName(settings.address());
            var reached =
                    listening.isAnyLocalAddress() ? InetAddress.getLoopbackAddress() : listening;
            var text = reached.getHostAddress();
            return text.contains(":") ? "[%s]".formatted(text) : text;
        } catch (UnknownHostException _) {
            return settings.address();
        }
    }
}
