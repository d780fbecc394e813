package sandpiper.cli.access;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.AccessCalls;

@Command(
        name = "clients",
        mixinStandardHelpOptions = true,
        description =
                "Outside systems that call services: list, create, rotate, limit, disable, remove.",
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Example:",
            "  sandpiper clients create booking-site --grant 'berth-desk/*/*'",
            "  sandpiper clients rotate booking-site --overlap-hours 48"
        })
public final class ClientsCommand extends AnsweringCommand {
    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "List clients with what they may call and when they last did.")
    int list(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var clients = connection.open().access().clients();
        if (json) {
            return sayJson(clients);
        }
        var table = new Table(List.of("Client", "Label", "Grants", "Last used", "State"));
        clients.value()
                .forEach(client ->
                        table.add(
                                List.of(
                                        client.name(),
                                        client.label(),
                                        joined(client.grants()),
                                        Objects.requireNonNullElse(client.lastUsed(), "never"),
                                        state(client))));
        return say(table);
    }

    private static String state(AccessCalls.Client client) {
        if (client.disabled()) {
            return "disabled";
        }
        var until = client.previousUntil();
        return until == null ? "in use" : "old secret right until " + until;
    }

    @Command(
            name = "create",
            mixinStandardHelpOptions = true,
            description = "Create a client and print its secret, this once.")
    int create(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "Small letters, digits and hyphens.")
                    String name,
            @Option(
                            names = "--grant",
                            required = true,
                            paramLabel = "SERVICE/RESOURCE/OPERATION",
                            description = "What it may call, with * for all; may be repeated.")
                    List<String> grants,
            @Option(names = "--label", paramLabel = "TEXT", description = "What people read.")
                    @Nullable String label,
            @Option(
                            names = "--calls-per-minute",
                            paramLabel = "N",
                            description = "How often it may call; as usual when absent.")
                    @Nullable Integer callsPerMinute,
            @Option(
                            names = "--digests",
                            description =
                                    "It signs in with password digests (SOAP); its secret is kept"
                                            + " sealed for that.")
                    boolean digests) {
        var made = new AccessCalls.NewClient(name, grants, digests, callsPerMinute, label);
        return secret(connection.open().access().createClient(made).value());
    }

    @Command(
            name = "rotate",
            mixinStandardHelpOptions = true,
            description = "Give a client a new secret; the old one stays right for a while.")
    int rotate(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name,
            @Option(
                            names = "--overlap-hours",
                            paramLabel = "N",
                            defaultValue = "24",
                            description =
                                    "Hours for which both are right (default: ${DEFAULT-VALUE}).")
                    int hours) {
        return secret(connection.open().access().rotateClient(name, hours).value());
    }

    private int secret(AccessCalls.ClientSecret made) {
        out().printf(
                        "client %s%nsecret %s%nNote it now: it is not shown again.%n",
                        made.client().name(), made.secret());
        out().flush();
        return 0;
    }

    @Command(
            name = "disable",
            mixinStandardHelpOptions = true,
            description = "Let a client do nothing from now on; its tokens end at once.")
    int disable(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name) {
        return switched(connection, name, true);
    }

    @Command(
            name = "enable",
            mixinStandardHelpOptions = true,
            description = "Let a disabled client call again.")
    int enable(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name) {
        return switched(connection, name, false);
    }

    @Command(
            name = "limit",
            mixinStandardHelpOptions = true,
            description = "Say how often a client may call.")
    int limit(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name,
            @Option(
                            names = "--calls-per-minute",
                            required = true,
                            paramLabel = "N",
                            description = "Calls a minute; 0 for what is usual.")
                    int callsPerMinute) {
        connection.open().access().limitClient(name, callsPerMinute);
        return say(
                callsPerMinute == 0
                        ? name + " may call as often as usual"
                        : "%s may call %,d times a minute".formatted(name, callsPerMinute));
    }

    private int switched(Connection connection, String name, boolean disabled) {
        connection.open().access().switchClient(name, disabled);
        return say(name + (disabled ? " is disabled" : " is in use again"));
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a client for good.")
    int remove(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name) {
        connection.open().access().removeClient(name);
        out().println(name + " is removed");
        out().flush();
        return 0;
    }
}
