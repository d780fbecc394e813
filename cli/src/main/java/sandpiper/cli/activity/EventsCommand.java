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
import sandpiper.client.ManageClient;

@Command(
        name = "events",
        mixinStandardHelpOptions = true,
        description = "Show what has happened, and who was told of it.",
        subcommands = {
            EventsCommand.Deliveries.class,
            EventsCommand.Redeliver.class,
            EventsCommand.Runs.class
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper events StayEnded",
            "  sandpiper events deliveries --state parked",
            "  sandpiper events redeliver 4711",
            "  sandpiper events runs Stay.checkOut --failed"
        })
public final class EventsCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @Parameters(
            arity = "0..1",
            paramLabel = "TEXT",
            description = "Part of an event's name or of its record's key.")
    @Nullable String search;

    @Option(
            names = "--limit",
            defaultValue = "20",
            description = "How many, newest first (default: ${DEFAULT-VALUE}).")
    int limit;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var events = connection.open().activity().events(search == null ? "" : search, limit);
        if (json) {
            return sayJson(events);
        }
        var table = new Table(List.of("At", "Event", "Record", "By", "Tells"));
        for (var one : events.value()) {
            table.add(
                    List.of(
                            one.at(),
                            one.name(),
                            Objects.requireNonNullElse(one.key(), ""),
                            one.by(),
                            ManageClient.write(one.data())));
        }
        return say(table);
    }

    @Command(
            name = "deliveries",
            mixinStandardHelpOptions = true,
            description = "Show deliveries to handlers, schedules and webhooks, newest first.")
    static final class Deliveries extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;

        @Option(
                names = "--to",
                paramLabel = "TARGET",
                defaultValue = "",
                description = "As in \"webhook bookkeeping\" or \"handler Stay.lookOverBerth\".")
        String target;

        @Option(
                names = "--state",
                defaultValue = "",
                description = "waiting, done or parked; any when absent.")
        String state;

        @Option(names = "--limit", defaultValue = "20", description = "How many.")
        int limit;

        @Option(names = "--json", description = "Print JSON.")
        boolean json;

        @Override
        public Integer call() {
            var deliveries = connection.open().activity().deliveries(target, state, limit);
            if (json) {
                return sayJson(deliveries);
            }
            var table =
                    new Table(List.of("No.", "Event", "Record", "To", "State", "Tries", "Said"));
            for (var one : deliveries.value()) {
                table.add(
                        List.of(
                                String.valueOf(one.number()),
                                one.event().name(),
                                Objects.requireNonNullElse(one.event().key(), ""),
                                one.target(),
                                one.state(),
                                String.valueOf(one.tries()),
                                one.said()));
            }
            return say(table);
        }
    }

    @Command(
            name = "redeliver",
            mixinStandardHelpOptions = true,
            description = "Try deliveries again that were given up.")
    static final class Redeliver extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;

        @Parameters(
                arity = "0..1",
                paramLabel = "NUMBER",
                description = "The delivery; all that are parked when absent.")
        @Nullable Long number;

        @Option(
                names = "--to",
                paramLabel = "TARGET",
                defaultValue = "",
                description = "Only those to this target.")
        String target;

        @Override
        public Integer call() {
            var activity = connection.open().activity();
            long count =
                    number == null ? activity.redeliverAll(target) : activity.redeliver(number);
            return say("%d %s tried again.".formatted(count, count == 1 ? "is" : "are"));
        }
    }

    @Command(
            name = "runs",
            mixinStandardHelpOptions = true,
            description = "Show runs of functions, handlers and schedules, newest first.")
    static final class Runs extends AnsweringCommand implements Callable<Integer> {
        @Mixin Connection connection;

        @Parameters(
                arity = "0..1",
                paramLabel = "NAME",
                description = "Part of the name, as in Stay.checkOut.")
        @Nullable String name;

        @Option(
                names = "--on",
                paramLabel = "KEY",
                defaultValue = "",
                description = "The record, or part of its key.")
        String key;

        @Option(names = "--failed", description = "Only those that were refused.")
        boolean failed;

        @Option(names = "--limit", defaultValue = "20", description = "How many.")
        int limit;

        @Option(names = "--json", description = "Print JSON.")
        boolean json;

        @Override
        public Integer call() {
            var runs =
                    connection.open().activity().runs(name == null ? "" : name, key, failed, limit);
            if (json) {
                return sayJson(runs);
            }
            var table = new Table(List.of("At", "What", "On", "Outcome", "Said", "ms", "Trace"));
            for (var one : runs.value()) {
                table.add(
                        List.of(
                                one.at(),
                                one.kind() + " " + one.name(),
                                one.key(),
                                one.done() ? "done" : "refused",
                                one.said(),
                                String.valueOf(one.millis()),
                                Objects.requireNonNullElse(one.trace(), "")));
            }
            return say(table);
        }
    }
}
