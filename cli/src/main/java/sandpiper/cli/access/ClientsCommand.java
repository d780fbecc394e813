package sandpiper.cli.access;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

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
    private static final String PATH = "/manage/v1/clients";

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "List clients with what they may call and when they last did.")
    int list(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var clients = connection.open().get(PATH);
        if (json) {
            return sayJson(clients);
        }
        var table = new Table(List.of("Client", "Label", "Grants", "Last used", "State"));
        clients.forEach(client ->
                table.add(
                        List.of(
                                client.path("name").asString(),
                                client.path("label").asString(),
                                joined(client.path("grants")),
                                client.path("lastUsed").asString("never"),
                                state(client))));
        return say(table);
    }

    private static String state(JsonNode client) {
        if (client.path("disabled").asBoolean()) {
            return "disabled";
        }
        var until = client.path("previousUntil").asString("");
        return until.isEmpty() ? "in use" : "old secret right until " + until;
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
        var body = new LinkedHashMap<String, Object>();
        body.put("name", name);
        body.put("grants", grants);
        body.put("digests", digests);
        if (callsPerMinute != null) {
            body.put("callsPerMinute", callsPerMinute);
        }
        if (label != null) {
            body.put("label", label);
        }
        return secret(connection.open().post(PATH, body));
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
        return secret(
                connection.open().post(path(name) + "/secret", Map.of("overlapHours", hours)));
    }

    private int secret(JsonNode made) {
        out().printf(
                        "client %s%nsecret %s%nNote it now: it is not shown again.%n",
                        made.path("client").path("name").asString(),
                        made.path("secret").asString());
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
        connection.open().patch(path(name), Map.of("callsPerMinute", callsPerMinute), null);
        return say(
                callsPerMinute == 0
                        ? name + " may call as often as usual"
                        : "%s may call %,d times a minute".formatted(name, callsPerMinute));
    }

    private int switched(Connection connection, String name, boolean disabled) {
        connection.open().patch(path(name), Map.of("disabled", disabled), null);
        return say(name + (disabled ? " is disabled" : " is in use again"));
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a client for good.")
    int remove(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The client's name.") String name) {
        connection.open().delete(path(name));
        out().println(name + " is removed");
        out().flush();
        return 0;
    }

    private static String path(String name) {
        return PATH + "/" + ManageClient.escape(name);
    }
}
