package sandpiper.cli.access;

import java.io.IOException;
import java.nio.file.Path;
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
    private static final String PATH = "/manage/v1/users";

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "List users with their roles.")
    int list(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var users = connection.open().get(PATH);
        if (json) {
            return sayJson(users);
        }
        var table = new Table(List.of("User", "Label", "Roles", "Duties of their own", "State"));
        users.forEach(user ->
                table.add(
                        List.of(
                                user.path("name").asString(),
                                user.path("label").asString(),
                                joined(user.path("roles")),
                                joined(user.path("duties")),
                                user.path("disabled").asBoolean() ? "disabled" : "in use")));
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
        var body = new LinkedHashMap<String, Object>();
        body.put("name", name);
        body.put("roles", roles == null ? List.of() : roles);
        if (label != null) {
            body.put("label", label);
        }
        body.put("password", SecretInput.read(file, "Password for " + name));
        body.put("temporary", !keep);
        connection.open().post(PATH, body);
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
        var body = new LinkedHashMap<String, Object>();
        if (roles != null) {
            body.put("roles", roles);
        }
        if (disable || enable) {
            body.put("disabled", disable);
        }
        if (password || file != null) {
            body.put("password", SecretInput.read(file, "New password for " + name));
            body.put("temporary", !keep);
        }
        connection.open().patch(path(name), body, null);
        return say("changed " + name);
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove a user for good.")
    int remove(
            @Mixin Connection connection,
            @Parameters(paramLabel = "NAME", description = "The user's name.") String name) {
        connection.open().delete(path(name));
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
                .post(
                        PATH + "/me/password",
                        Map.of(
                                "current",
                                SecretInput.read(current, "Current password"),
                                "next",
                                SecretInput.read(file, "New password")));
        return say("changed");
    }

    @Command(
            name = "log",
            mixinStandardHelpOptions = true,
            description = "Show who changed what of users, roles and clients, newest first.")
    int log(
            @Mixin Connection connection,
            @Option(names = "--json", description = "Print JSON.") boolean json) {
        var entries = connection.open().get("/manage/v1/access-log");
        if (json) {
            return sayJson(entries);
        }
        var table = new Table(List.of("At", "By", "What", "Of", "Detail"));
        entries.forEach(entry ->
                table.add(
                        List.of(
                                entry.path("at").asString(),
                                entry.path("by").asString(),
                                entry.path("what").asString(),
                                entry.path("subject").asString(),
                                entry.path("detail").asString())));
        return say(table);
    }

    private static String path(String name) {
        return PATH + "/" + ManageClient.escape(name);
    }
}
