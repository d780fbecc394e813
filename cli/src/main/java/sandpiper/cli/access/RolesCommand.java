package sandpiper.cli.access;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.AccessCalls;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.databind.node.ObjectNode;

@Command(
        name = "roles",
        mixinStandardHelpOptions = true,
        description = "Named sets of grants for users: list, show, set, remove.",
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Example:",
            "  sandpiper roles show clerk > clerk.json",
            "  sandpiper roles set clerk --file clerk.json"
        })
public final class RolesCommand extends AnsweringCommand {
    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "List roles with what they grant and who holds them.")
    int list(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var roles = connection.open().access().roles();
        if (json) {
            return sayJson(roles);
        }
        var table = new Table(List.of("Role", "Duties", "Records", "Services", "Held by"));
        roles.value()
                .forEach(role ->
                        table.add(
                                List.of(
                                        role.name(),
                                        joined(role.duties()).toLowerCase(Locale.ROOT),
                                        objects(role.objects()),
                                        joined(role.services()),
                                        joined(role.users()))));
        return say(table);
    }

    /** {@code Stay vcer, Berth v}: the first letter of each action. */
    private static String objects(List<AccessCalls.ObjectGrant> grants) {
        var texts = new ArrayList<String>();
        for (var grant : grants) {
            var actions = new StringBuilder();
            grant.actions()
                    .forEach(action ->
                            actions.append(action.substring(0, 1).toLowerCase(Locale.ROOT)));
            texts.add(grant.object() + " " + actions);
        }
        return String.join(", ", texts);
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Print a role as JSON, as set takes it.")
    int show(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The role's name.") String name) {
        var role = connection.open().access().role(name);
        return sayJson(
                role.orElseThrow(() ->
                        new RefusedException(
                                0, "There is no role \"%s\".".formatted(name), List.of())));
    }

    @Command(
            name = "set",
            mixinStandardHelpOptions = true,
            description = "Make a role, or give it other grants.")
    int set(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "Small letters, digits and hyphens.")
                    String name,
            @Option(
                            names = "--file",
                            required = true,
                            paramLabel = "FILE",
                            description = "JSON with label, duties, services and objects.")
                    Path file)
            throws IOException {
        var role = ManageClient.read(Files.readString(file));
        if (role instanceof ObjectNode shown) {
            // What roles show says besides.
            shown.remove(List.of("name", "users", "from"));
        }
        connection.open().access().setRole(name, role);
        return say("set " + name);
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a role nobody holds.")
    int remove(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The role's name.") String name) {
        connection.open().access().removeRole(name);
        return say("removed " + name);
    }
}
