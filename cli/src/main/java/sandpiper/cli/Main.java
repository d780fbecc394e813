package sandpiper.cli;

import java.io.PrintWriter;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import sandpiper.client.RefusedException;

/** The command {@code sandpiper}. */
@Command(
        name = "sandpiper",
        mixinStandardHelpOptions = true,
        version = "sandpiper 0.1.0",
        description = "Business objects as web services: define, release, use.",
        subcommands = {
            ServeCommand.class,
            DemoCommand.class,
            CheckCommand.class,
            PushCommand.class,
            PullCommand.class,
            DiffCommand.class,
            ReleaseCommand.class,
            RecordsCommand.class,
            EvalCommand.class,
            CallCommand.class,
            EventsCommand.class,
            WebhooksCommand.class,
            TraceCommand.class,
            ContractCommand.class,
            ClientsCommand.class,
            UsersCommand.class,
            RolesCommand.class,
            TrafficCommand.class,
            StatusCommand.class,
            AutoComplete.GenerateCompletion.class
        },
        footer = {
            "",
            "A first look:",
            "  sandpiper demo",
            "  sandpiper records find Stay --filter 'state = \"Alongside\"'"
        })
public final class Main {
    private Main() {}

    /** Runs the command and ends the process, unless it started a service. */
    public static void main(String[] arguments) {
        int code = commandLine().execute(arguments);
        if (code != ServeCommand.KEEPS_RUNNING) {
            System.exit(code);
        }
    }

    /** The command with its way of telling what went wrong. */
    static CommandLine commandLine() {
        return new CommandLine(new Main())
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler((e, line, _) -> {
                    print(e, line.getErr());
                    return 1;
                });
    }

    private static void print(Exception e, PrintWriter err) {
        if (e instanceof RefusedException refused) {
            err.println(refused.getMessage());
            if (refused.errors().size() > 1 || !refused.errors().contains(refused.getMessage())) {
                refused.errors().forEach(error -> err.println("  " + error));
            }
        } else {
            err.println(e.getMessage() == null ? e.toString() : e.getMessage());
        }
        err.flush();
    }
}
