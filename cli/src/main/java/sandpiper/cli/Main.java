package sandpiper.cli;

import java.io.PrintWriter;
import java.util.List;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import sandpiper.cli.access.ClientsCommand;
import sandpiper.cli.access.KeysCommand;
import sandpiper.cli.access.RolesCommand;
import sandpiper.cli.access.UsersCommand;
import sandpiper.cli.activity.ConnectionsCommand;
import sandpiper.cli.activity.ContractCommand;
import sandpiper.cli.activity.EventsCommand;
import sandpiper.cli.activity.RevisionsCommand;
import sandpiper.cli.activity.StatusCommand;
import sandpiper.cli.activity.TraceCommand;
import sandpiper.cli.activity.TrafficCommand;
import sandpiper.cli.activity.WebhooksCommand;
import sandpiper.cli.draft.CheckCommand;
import sandpiper.cli.draft.DiffCommand;
import sandpiper.cli.draft.EvalCommand;
import sandpiper.cli.draft.KeptCommand;
import sandpiper.cli.draft.PullCommand;
import sandpiper.cli.draft.PushCommand;
import sandpiper.cli.draft.RehearseCommand;
import sandpiper.cli.draft.ReleaseCommand;
import sandpiper.cli.draft.RoutesCommand;
import sandpiper.cli.draft.TakeBackCommand;
import sandpiper.cli.pack.PackCommand;
import sandpiper.cli.pack.PackagesCommand;
import sandpiper.cli.pack.SigningKeyCommand;
import sandpiper.cli.pack.UnpackCommand;
import sandpiper.cli.records.CallCommand;
import sandpiper.cli.records.RecordsCommand;
import sandpiper.cli.service.BackupCommand;
import sandpiper.cli.service.DemoCommand;
import sandpiper.cli.service.MoveCommand;
import sandpiper.cli.service.RestoreCommand;
import sandpiper.cli.service.ServeCommand;
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
                    RehearseCommand.class,
                    TakeBackCommand.class,
                    KeptCommand.class,
                    RoutesCommand.class,
                    PackCommand.class,
                    UnpackCommand.class,
                    PackagesCommand.class,
                    SigningKeyCommand.class,
                    RecordsCommand.class,
                    EvalCommand.class,
                    CallCommand.class,
                    EventsCommand.class,
                    ConnectionsCommand.class,
                    WebhooksCommand.class,
                    TraceCommand.class,
                    ContractCommand.class,
                    RevisionsCommand.class,
                    ClientsCommand.class,
                    UsersCommand.class,
                    RolesCommand.class,
                    TrafficCommand.class,
                    KeysCommand.class,
                    BackupCommand.class,
                    RestoreCommand.class,
                    MoveCommand.class,
                    ComponentsCommand.class,
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

    /** The command with all that belongs to it, and its way of telling what went wrong. */
    public static CommandLine commandLine() {
        return with(COMMANDS.stream().map(CommandLine::new).toList());
    }

    /**
     * The same for some arguments. Making commands takes longer than most of them run, so when the
     * arguments name one, only that one is there, and when they name none, what help tells of each.
     */
    public static CommandLine commandLine(String... arguments) {
        var first = arguments.length == 0 ? "" : arguments[0];
        if (first.equals(name(AutoComplete.GenerateCompletion.class))) {
            return commandLine();
        }
        var named = COMMANDS.stream().filter(command -> first.equals(name(command))).toList();
        return with(
                named.isEmpty()
                        ? COMMANDS.stream().map(Main::described).toList()
                        : named.stream().map(CommandLine::new).toList());
    }

    private static CommandLine described(Class<?> command) {
        var told = command.getAnnotation(Command.class);
        var spec = CommandLine.Model.CommandSpec.create().name(told.name());
        spec.usageMessage().header(told.header()).description(told.description());
        spec.usageMessage().hidden(told.hidden());
        return new CommandLine(spec);
    }

    private static CommandLine with(List<CommandLine> commands) {
        var line = new CommandLine(new Main());
        commands.forEach(command -> line.addSubcommand(command.getCommandName(), command));
        return line.setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler((e, failed, _) -> {
                    print(e, failed.getErr());
                    return 1;
                });
    }

    private static String name(Class<?> command) {
        return command.getAnnotation(Command.class).name();
    }

    /**
     * Runs one command as the launcher does.
     *
     * @param out takes what it prints, errors too
     * @return the exit code
     */
    public static int run(PrintWriter out, String... words) {
        return commandLine(words).setOut(out).setErr(out).execute(words);
    }

    private static void print(Exception e, PrintWriter err) {
        if (e instanceof RefusedException refused) {
            var message = String.valueOf(refused.getMessage());
            var errors = refused.errors();
            // With a place in front, one error says what the message says, and where.
            boolean same = errors.size() == 1 && errors.getFirst().endsWith(message);
            err.println(same ? errors.getFirst() : message);
            if (!same) {
                errors.forEach(error -> err.println("  " + error));
            }
        } else {
            err.println(e.getMessage() == null ? e.toString() : e.getMessage());
        }
        err.flush();
    }
}
