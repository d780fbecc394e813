package sandpiper.cli.activity;

import static sandpiper.client.ManageClient.escape;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import tools.jackson.databind.JsonNode;

@Command(
        name = "webhooks",
        mixinStandardHelpOptions = true,
        description = "Outside addresses that are told of events.",
        subcommands = {
            WebhooksCommand.Listed.class,
            WebhooksCommand.Create.class,
            WebhooksCommand.Change.class,
            WebhooksCommand.Rotate.class,
            WebhooksCommand.Test.class,
            WebhooksCommand.Remove.class
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper webhooks create ledger --address https://ledger.example/hook --event"
                    + " StayEnded",
            "  sandpiper webhooks change ledger --filter 'total > 1000'",
            "  sandpiper webhooks test ledger"
        })
public final class WebhooksCommand {
    private static final String PATH = "/manage/v1/webhooks";

    /** What every command here has. */
    abstract static class Base extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;

        final int saySecret(JsonNode made) {
            return say(
                    "%s%nSecret, shown this once: %s"
                            .formatted(
                                    made.path("webhook").path("address").asString(),
                                    made.path("secret").asString()));
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Show all.")
    static final class Listed extends Base {
        @Option(names = "--json", description = "Print JSON.")
        boolean json;

        @Override
        public Integer call() {
            var webhooks = connection.open().get(PATH);
            if (json) {
                return sayJson(webhooks);
            }
            var table = new Table(List.of("Webhook", "Address", "Events", "Filter", "State"));
            for (var one : webhooks) {
                table.add(
                        List.of(
                                one.path("name").asString(),
                                one.path("address").asString(),
                                joined(one.path("events")),
                                one.path("filter").asString(""),
                                one.path("disabled").asBoolean() ? "disabled" : "in use"));
            }
            return say(table);
        }
    }

    @Command(name = "create", mixinStandardHelpOptions = true, description = "Make one.")
    static final class Create extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Option(names = "--address", required = true, paramLabel = "URL")
        String address;

        @Option(
                names = "--event",
                required = true,
                paramLabel = "EVENT",
                description = "As in StayEnded or Stay.created; may be repeated.")
        List<String> events;

        @Option(
                names = "--filter",
                paramLabel = "FEEL",
                description = "A condition over what the events tell.")
        @Nullable String filter;

        @Option(names = "--label")
        @Nullable String label;

        @Override
        public Integer call() {
            var body = new LinkedHashMap<String, Object>();
            body.put("name", name);
            body.put("address", address);
            body.put("events", events);
            if (filter != null) {
                body.put("filter", filter);
            }
            if (label != null) {
                body.put("label", label);
            }
            return saySecret(connection.open().post(PATH, body));
        }
    }

    @Command(
            name = "change",
            mixinStandardHelpOptions = true,
            description = "Change one; what is not given stays.")
    static final class Change extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Option(names = "--address", paramLabel = "URL")
        @Nullable String address;

        @Option(names = "--event", paramLabel = "EVENT", description = "All it hears from now on.")
        @Nullable List<String> events;

        @Option(names = "--filter", paramLabel = "FEEL", description = "Empty to take it away.")
        @Nullable String filter;

        @Option(names = "--disable", description = "Deliver nothing for now.")
        boolean disable;

        @Option(names = "--enable", description = "Deliver again.")
        boolean enable;

        @Override
        public Integer call() {
            var body = new LinkedHashMap<String, Object>();
            put(body, "address", address);
            put(body, "events", events);
            put(body, "filter", filter);
            if (disable || enable) {
                body.put("disabled", disable);
            }
            connection.open().patch(PATH + "/" + escape(name), body, null);
            return say("Changed.");
        }

        private static void put(Map<String, Object> body, String key, @Nullable Object value) {
            if (value != null) {
                body.put(key, value);
            }
        }
    }

    @Command(
            name = "rotate",
            mixinStandardHelpOptions = true,
            description = "Make a new secret; messages are signed with both for a while.")
    static final class Rotate extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Option(
                names = "--overlap-hours",
                defaultValue = "24",
                description = "For how long (default: ${DEFAULT-VALUE}).")
        int overlapHours;

        @Override
        public Integer call() {
            return saySecret(
                    connection
                            .open()
                            .post(
                                    PATH + "/" + escape(name) + "/rotate",
                                    Map.of("overlapHours", overlapHours)));
        }
    }

    @Command(name = "test", mixinStandardHelpOptions = true, description = "Send a test.")
    static final class Test extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Override
        public Integer call() {
            connection.open().post(PATH + "/" + escape(name) + "/test", Map.of());
            return say(
                    "A test is on its way; see sandpiper events deliveries --to \"webhook %s\"."
                            .formatted(name));
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Remove one; what waits for it is forgotten.")
    static final class Remove extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Override
        public Integer call() {
            connection.open().delete(PATH + "/" + escape(name));
            return say("Removed.");
        }
    }
}
