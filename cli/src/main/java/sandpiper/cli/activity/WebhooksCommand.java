package sandpiper.cli.activity;

import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.WebhookCalls;

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
    /** What every command here has. */
    abstract static class Base extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;

        final int saySecret(WebhookCalls.WebhookSecret made) {
            return say(
                    "%s%nSecret, shown this once: %s"
                            .formatted(made.webhook().address(), made.secret()));
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Show all.")
    static final class Listed extends Base {
        @Option(names = "--json", description = "Print JSON.")
        boolean json;

        @Override
        public Integer call() {
            var webhooks = connection.open().webhooks().all();
            if (json) {
                return sayJson(webhooks);
            }
            var table = new Table(List.of("Webhook", "Address", "Events", "Filter", "State"));
            for (var one : webhooks.value()) {
                table.add(
                        List.of(
                                one.name(),
                                one.address(),
                                joined(one.events()),
                                Objects.requireNonNullElse(one.filter(), ""),
                                one.disabled() ? "disabled" : "in use"));
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
            var wanted = new WebhookCalls.Wanted(name, address, events, filter, label, null);
            return saySecret(connection.open().webhooks().create(wanted));
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
            var change =
                    new WebhookCalls.Wanted(
                            null,
                            address,
                            events,
                            filter,
                            null,
                            (disable || enable) ? disable : null);
            connection.open().webhooks().change(name, change);
            return say("Changed.");
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
            return saySecret(connection.open().webhooks().rotate(name, overlapHours));
        }
    }

    @Command(name = "test", mixinStandardHelpOptions = true, description = "Send a test.")
    static final class Test extends Base {
        @Parameters(paramLabel = "NAME")
        String name;

        @Override
        public Integer call() {
            connection.open().webhooks().test(name);
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
            connection.open().webhooks().remove(name);
            return say("Removed.");
        }
    }
}
