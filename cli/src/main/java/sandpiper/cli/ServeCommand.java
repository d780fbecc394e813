package sandpiper.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.Settings;

@Command(
        name = "serve",
        mixinStandardHelpOptions = true,
        description = "Start the service.",
        footer = {
            "",
            "Example:",
            "  sandpiper serve --data /var/lib/sandpiper/data.db --port 8080"
        })
final class ServeCommand implements Callable<Integer> {
    /** No exit code of its own: the process lives as long as the service. */
    static final int KEEPS_RUNNING = -1;

    @Spec CommandSpec spec;

    @Option(
            names = "--data",
            paramLabel = "FILE",
            defaultValue = ".sandpiper/data.db",
            description = "The file that holds everything (default: ${DEFAULT-VALUE}).")
    Path data;

    @Option(
            names = "--port",
            defaultValue = "8080",
            description = "The port to answer on (default: ${DEFAULT-VALUE}).")
    int port;

    @Override
    public Integer call() {
        var running =
                SandpiperServer.start(
                        new Settings(data, port, System.getenv("SANDPIPER_FIRST_PASSWORD")));
        var out = spec.commandLine().getOut();
        out.println("Sandpiper answers at " + running.address());
        out.flush();
        return KEEPS_RUNNING;
    }
}
