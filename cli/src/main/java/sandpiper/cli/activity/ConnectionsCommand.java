package sandpiper.cli.activity;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.access.SecretInput;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.cli.records.ValueArguments;
import sandpiper.client.ConnectionCalls;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

@Command(
        name = "connections",
        mixinStandardHelpOptions = true,
        description = "Outside services whose codes and answers are used.",
        subcommands = {
            ConnectionsCommand.Listed.class,
            ConnectionsCommand.Try.class,
            ConnectionsCommand.ReachAt.class,
            ConnectionsCommand.Forget.class,
            ConnectionsCommand.Compare.class
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper connections list",
            "  sandpiper connections try tide-table.rate currency=USD day=2026-05-01",
            "  sandpiper connections reach tide-table --address https://tides.example --bearer"
                    + " --secret-file token.txt",
            "  sandpiper connections compare tide-table newer.openapi.json"
        })
public final class ConnectionsCommand {
    /** What every command here has. */
    abstract static class Base extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Show all.")
    static final class Listed extends Base {
        @Option(names = "--json", description = "Print JSON.")
        boolean json;

        @Override
        public Integer call() {
            var connections = connection.open().connections().all();
            if (json) {
                return sayJson(connections);
            }
            if (connections.value().isEmpty()) {
                return say("There are no connections.");
            }
            var table = new Table(List.of("Connection", "Gives", "Reached at", "By", "State"));
            for (var one : connections.value()) {
                var reach = one.reach();
                table.add(
                        List.of(
                                one.name(),
                                gives(one),
                                reach == null ? "no address yet" : reach.address(),
                                reach == null ? "" : reach.scheme(),
                                state(one)));
            }
            return say(table);
        }

        private static String gives(ConnectionCalls.ConnectionEntry one) {
            var all = new ArrayList<String>();
            one.lookups().forEach(lookup -> all.add(lookup.name()));
            one.calls()
                    .forEach(call ->
                            all.add(
                                    "%s(%s)"
                                            .formatted(
                                                    call.name(),
                                                    String.join(
                                                            ", ",
                                                            call.parameters().stream()
                                                                    .map(each -> each.name())
                                                                    .toList()))));
            return String.join(", ", all);
        }

        private static String state(ConnectionCalls.ConnectionEntry one) {
            return one.leftAlone() ? "does not answer" : one.live() ? "in use" : "not released yet";
        }
    }

    @Command(
            name = "try",
            mixinStandardHelpOptions = true,
            description =
                    "Ask what one offers: a call with its parameters, a lookup with search=TEXT or"
                            + " code=CODE.")
    static final class Try extends Base {
        @Parameters(index = "0", paramLabel = "CONNECTION.NAME")
        String what;

        @Parameters(index = "1..*", paramLabel = "NAME=VALUE", arity = "0..*")
        List<String> values = List.of();

        @Override
        public Integer call() throws IOException {
            var parts = what.split("\\.", 2);
            if (parts.length < 2) {
                throw new RefusedException(
                        0,
                        "Write what is asked as tide-table.rate, not %s.".formatted(what),
                        List.of());
            }
            var tried =
                    connection
                            .open()
                            .connections()
                            .tryOut(parts[0], parts[1], ValueArguments.read(values, null))
                            .value();
            var message = tried.message();
            if (message != null) {
                throw new RefusedException(0, message, List.of());
            }
            say(tried.answer() == null ? "null" : ManageClient.writePretty(tried.answer()));
            return say("In %d ms.".formatted(tried.millis()));
        }
    }

    @Command(
            name = "reach",
            mixinStandardHelpOptions = true,
            description =
                    "Say where the service of a setting is reached, and by what this instance is"
                            + " known there. The setting is called as the connection unless that"
                            + " says otherwise.")
    static final class ReachAt extends Base {
        @Parameters(paramLabel = "SETTING")
        String setting;

        @Option(names = "--address", required = true, paramLabel = "URL")
        String address;

        @Option(names = "--basic", paramLabel = "NAME", description = "A name and a password.")
        @Nullable String basic;

        @Option(names = "--bearer", description = "A token.")
        boolean bearer;

        @Option(
                names = "--client",
                paramLabel = "CLIENT",
                description = "OAuth 2.0 client credentials.")
        @Nullable String client;

        @Option(
                names = "--token-address",
                paramLabel = "URL",
                description = "Where the client gets its tokens.")
        @Nullable String tokenAddress;

        @Option(names = "--scope", paramLabel = "SCOPE")
        @Nullable String scope;

        @Option(
                names = "--secret-file",
                paramLabel = "FILE",
                description = "Holds the password, token or secret; asked for when absent.")
        @Nullable Path secretFile;

        @Override
        public Integer call() throws IOException {
            boolean several =
                    (basic == null ? 0 : 1) + (bearer ? 1 : 0) + (client == null ? 0 : 1) > 1;
            if (several) {
                throw new RefusedException(
                        0, "Give one of --basic, --bearer and --client.", List.of());
            }
            var scheme =
                    basic != null
                            ? "basic"
                            : bearer ? "bearer" : client != null ? "client-credentials" : "none";
            var secret = scheme.equals("none") ? null : SecretInput.read(secretFile, "Secret");
            connection
                    .open()
                    .connections()
                    .reach(
                            setting,
                            new ConnectionCalls.ReachWanted(
                                    address,
                                    scheme,
                                    basic == null ? client : basic,
                                    secret,
                                    tokenAddress,
                                    scope));
            return say("Kept. Its secret is sealed and not shown again.");
        }
    }

    @Command(
            name = "forget",
            mixinStandardHelpOptions = true,
            description = "Forget where the service of a setting is reached.")
    static final class Forget extends Base {
        @Parameters(paramLabel = "SETTING")
        String setting;

        @Override
        public Integer call() {
            connection.open().connections().forget(setting);
            return say("Forgotten.");
        }
    }

    @Command(
            name = "compare",
            mixinStandardHelpOptions = true,
            description =
                    "Say how a newer document differs in what is used of it, and cut it down to"
                            + " that.")
    static final class Compare extends Base {
        @Parameters(index = "0", paramLabel = "CONNECTION")
        String name;

        @Parameters(index = "1", paramLabel = "DOCUMENT")
        Path document;

        @Option(
                names = "--write",
                paramLabel = "FILE",
                description = "Write what is used of it to a file, for the package.")
        @Nullable Path write;

        @Override
        public Integer call() throws IOException {
            var excerpt =
                    connection
                            .open()
                            .connections()
                            .excerpt(name, Files.readAllBytes(document))
                            .value();
            if (excerpt.differences().isEmpty()) {
                say("What is used is the same in it.");
            }
            excerpt.differences().forEach(this::say);
            if (write != null) {
                Files.writeString(write, excerpt.text());
                say("Written to %s.".formatted(write));
            }
            return 0;
        }
    }
}
