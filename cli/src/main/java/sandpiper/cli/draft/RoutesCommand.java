package sandpiper.cli.draft;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;

@Command(
        name = "routes",
        mixinStandardHelpOptions = true,
        description = "Show which fields travel along which routes, and what gets them.",
        footer = {"", "Examples:", "  sandpiper routes", "  sandpiper routes --draft"})
public final class RoutesCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @Option(
            names = "--draft",
            description = "Those of the draft; what is live while that has errors.")
    boolean draft;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var routes = connection.open().draft().routes(draft ? "DRAFT" : "LIVE");
        if (json) {
            return sayJson(routes);
        }
        if (routes.value().isEmpty()) {
            return say("There are no routes.");
        }
        var table = new Table(List.of("Route", "Field", "", "Reaches", "Shown by"));
        for (var route : routes.value()) {
            var services = String.join(", ", route.services());
            if (route.travellers().isEmpty()) {
                table.add(List.of(route.name(), "", "", "nothing travels yet", services));
            }
            for (var one : route.travellers()) {
                table.add(
                        List.of(
                                route.name(),
                                one.object() + "." + one.field(),
                                one.follows() ? "followed on" : "taken over by",
                                String.join(", ", one.reaches()),
                                services));
            }
        }
        return say(table);
    }
}
