package sandpiper.cli.service;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.client.RefusedException;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

@Command(
        name = "serve",
        mixinStandardHelpOptions = true,
        description = "Start the service.",
        footer = {
            "",
            "Example:",
            "  sandpiper serve --data /var/lib/sandpiper/data.db --port 8080",
            "",
            "Every setting can also stand in a file (--config) or the environment: see",
            "docs/guide/operating.md."
        })
public final class ServeCommand implements Callable<Integer> {
    /** No exit code of its own: the process lives as long as the service. */
    public static final int KEEPS_RUNNING = -1;

    @Spec CommandSpec spec;

    @Option(
            names = "--data",
            paramLabel = "FILE|URL",
            description = {
                "The file that holds everything (usually .sandpiper/data.db), or the address of a",
                "database, as in jdbc:postgresql://db1/marina; its password comes from",
                "SANDPIPER_DATABASE_PASSWORD or a file (sandpiper.database.password-file)."
            })
    @Nullable String data;

    @Option(
            names = "--port",
            paramLabel = "N",
            description = "The port to answer on (usually 8080; 0 for any that is free).")
    @Nullable Integer port;

    @Option(
            names = "--config",
            paramLabel = "FILE",
            description = "A file with settings, in YAML or as properties.")
    @Nullable Path config;

    @Option(
            names = "--new",
            description = "Begin an empty data file, although signs are there of one before.")
    boolean fresh;

    @Option(
            names = "--demo-data",
            description = "Serve a file the demo made, whose passwords everybody knows.")
    boolean demoData;

    /** A file with settings that is named must be there. */
    private @Nullable Path existing() {
        if (config != null && !Files.isReadable(config)) {
            throw new RefusedException(0, "%s cannot be read.".formatted(config), List.of());
        }
        return config == null ? null : config.toAbsolutePath();
    }

    @Override
    public Integer call() {
        System.setProperty("sandpiper.new", Boolean.toString(fresh));
        System.setProperty("sandpiper.demo", Boolean.toString(demoData));
        var running =
                SandpiperServer.start(
                        new StartOptions(
                                data, port, System.getenv("SANDPIPER_FIRST_PASSWORD"), existing()));
        var out = spec.commandLine().getOut();
        out.println("Sandpiper answers at " + running.address());
        out.flush();
        return KEEPS_RUNNING;
    }
}
