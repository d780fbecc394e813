package sandpiper.cli.access;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
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
        name = "users",
        mixinStandardHelpOptions = true,
        description =
                "People who sign in: list, create, change, remove; who changed what of access.",
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Example:",
            "  sandpiper users create ragna --role dock-master",
            "  sandpiper users change ragna --disable"
        })
public final class UsersCommand extends AnsweringCommand {
    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "List users with their roles.")
    int list(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var users = connection.open().access().users();
        if (json) {
            return sayJson(users);
        }
        var table = new Table(List.of("User", "Label", "Roles", "Duties of their own", "State"));
        users.value()
                .forEach(user ->
                        table.add(
                                List.of(
                                        user.name(),
                                        user.label(),
                                        joined(user.roles()),
                                        joined(user.duties()),
                                        user.disabled() ? "disabled" : "in use")));
        return say(table);
    }

    @Command(
            name = "create",
            mixinStandardHelpOptions = true,
            description = "Create a user; asks for the first password.")
    int create(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "Small letters, digits, points.")
                    String name,
            @Option(names = "--role", paramLabel = "ROLE", description = "May be repeated.")
                    @Nullable List<String> roles,
            @Option(names = "--label", paramLabel = "TEXT", description = "What people read.")
                    @Nullable String label,
            @Option(
                            names = "--password-file",
                            paramLabel = "FILE",
                            description = "Read the password from here instead of asking.")
                    @Nullable Path file,
            @Option(
                            names = "--keep-password",
                            description =
                                    "The password is the user's own already; otherwise another is"
                                            + " chosen at the first sign-in.")
                    boolean keep)
            throws IOException {
        var made =
                new AccessCalls.NewUser(
                        name,
                        roles == null ? List.of() : roles,
                        label,
                        SecretInput.read(file, "Password for " + name),
                        !keep);
        connection.open().access().createUser(made);
        return say("created " + name);
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Give a user other roles, another password, or no access for now.")
    int change(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The user's name.") String name,
            @Option(names = "--role", paramLabel = "ROLE", description = "All roles from now on.")
                    @Nullable List<String> roles,
            @Option(names = "--disable", description = "Sign the user out and let nobody in.")
                    boolean disable,
            @Option(names = "--enable", description = "Let the user in again.") boolean enable,
            @Option(names = "--password", description = "Ask for a new password.") boolean password,
            @Option(
                            names = "--password-file",
                            paramLabel = "FILE",
                            description = "Read the new password from here.")
                    @Nullable Path file,
            @Option(
                            names = "--keep-password",
                            description =
                                    "The new password is the user's own already; otherwise another"
                                            + " is chosen at the next sign-in.")
                    boolean keep)
            throws IOException {
        boolean anew = password || file != null;
        var change =
                new AccessCalls.UserChange(
                        roles,
                        (disable || enable) ? disable : null,
                        anew ? SecretInput.read(file, "New password for " + name) : null,
                        anew ? !keep : null);
        connection.open().access().changeUser(name, change);
        return say("changed " + name);
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a user for good.")
    int remove(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The user's name.") String name) {
        connection.open().access().removeUser(name);
        return say("removed " + name);
    }

    @Command(
            name = "password",
            mixinStandardHelpOptions = true,
            description = "Change your own password; open sessions end.")
    int password(
            @Mixin Connection connection,
            @Option(names = "--password-file", paramLabel = "FILE", description = "The new one.")
                    @Nullable Path file,
            @Option(
                            names = "--current-file",
                            paramLabel = "FILE",
                            description = "The one that is right now.")
                    @Nullable Path current)
            throws IOException {
        connection
                .open()
                .access()
                .changePassword(
                        SecretInput.read(current, "Current password"),
                        SecretInput.read(file, "New password"));
        return say("changed");
    }

    @Command(
            name = "log",
            mixinStandardHelpOptions = true,
            description = "Show who changed what of users, roles and clients, newest first.")
    int log(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var entries = connection.open().access().log();
        if (json) {
            return sayJson(entries);
        }
        var table = new Table(List.of("At", "By", "What", "Of", "Detail"));
        entries.value()
                .forEach(entry ->
                        table.add(
                                List.of(
                                        entry.at(),
                                        entry.by(),
                                        entry.what(),
                                        entry.subject(),
                                        entry.detail())));
        return say(table);
    }
}
