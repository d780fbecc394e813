package sandpiper.cli;

import java.io.PrintWriter;
import java.util.List;
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
        footer = {
            "",
            "A first look:",
            "  sandpiper demo",
            "  sandpiper records find Stay --filter 'state = \"Alongside\"'"
        })
public final class Main {
    private static final List<Class<?>> COMMANDS =
            List.of(
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
                    BackupCommand.class,
                    StatusCommand.class,
                    AutoComplete.GenerateCompletion.class);

    private Main() {}

    /** Runs the command and ends the process, unless it started a service. */
    public static void main(String[] arguments) {
        int code = commandLine(arguments).execute(arguments);
        if (code != ServeCommand.KEEPS_RUNNING) {
            System.exit(code);
        }
    }

    /** The command with its way of telling what went wrong. */
    static CommandLine commandLine() {
        return commandLine(new String[0]);
    }

    /**
     * The same for some arguments. When they name a command, only that one is there: making all of
     * them takes longer than most of them run.
     */
    private static CommandLine commandLine(String[] arguments) {
        var line = new CommandLine(new Main());
        var named =
                COMMANDS.stream()
                        .filter(command ->
                                arguments.length > 0 && arguments[0].equals(name(command)))
                        .filter(command -> command != AutoComplete.GenerateCompletion.class)
                        .toList();
        (named.isEmpty() ? COMMANDS : named)
                .forEach(command -> line.addSubcommand(name(command), command));
        return line.setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler((e, failed, _) -> {
                    print(e, failed.getErr());
                    return 1;
                });
    }

    private static String name(Class<?> command) {
        return command.getAnnotation(Command.class).name();
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
