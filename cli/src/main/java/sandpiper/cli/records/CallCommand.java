package sandpiper.cli.records;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

@Command(
        name = "call",
        mixinStandardHelpOptions = true,
        description = "Call a function and print what it gives back.",
        footer = {
            "",
            "Examples:",
            "  sandpiper call Stay.quote --with length=9.5 --with nights=3",
            "  sandpiper call Stay.checkOut --on ST-2026-000330 --with meter=4120.5",
            "  sandpiper call Stay.invoice --on ST-2026-000101 --on ST-2026-000102",
            "",
            "On several records it is done for each by itself, and each has its line."
        })
public final class CallCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            index = "0",
            paramLabel = "OBJECT.FUNCTION",
            description = "The function, as in Stay.quote.")
    String function;

    @Option(
            names = "--on",
            paramLabel = "KEY",
            description = "The record it is called on; may be repeated.")
    List<String> keys = List.of();

    @Option(
            names = "--with",
            paramLabel = "PARAMETER=VALUE",
            description = "An argument; a value that begins with [ or { is JSON. May be repeated.")
    @Nullable Map<String, String> arguments;

    @Option(names = "--json", description = "Print the answer as JSON.")
    boolean json;

    @Override
    public Integer call() {
        int dot = function.indexOf('.');
        if (dot < 1) {
            throw new ParameterException(
                    spec.commandLine(),
                    "Write object and function with a point between them, as in Stay.quote.");
        }
        var object = function.substring(0, dot);
        var name = function.substring(dot + 1);
        return keys.size() > 1 ? each(object, name) : one(object, name);
    }

    private Integer one(String object, String name) {
        var key = keys.isEmpty() ? null : keys.getFirst();
        var answer = connection.open().records().call(object, name, key, given());
        var called = answer.value();
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer.json()));
        } else if (called.returns()) {
            out.println(shown(called.result()));
        } else {
            out.println("Done.");
        }
        called.warnings().forEach(warning -> out.println("Warning: " + warning));
        out.flush();
        return 0;
    }

    private Integer each(String object, String name) {
        var answer = connection.open().records().callEach(object, name, keys, given());
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer.json()));
        } else {
            var table = new Table(List.of("Record", "Outcome", "Result"));
            for (var one : answer.value().results()) {
                table.add(
                        List.of(
                                one.key(),
                                one.done() ? "done" : "refused",
                                one.done()
                                        ? shown(one.result())
                                        : Objects.requireNonNullElse(one.problem(), "")));
            }
            table.print(out);
        }
        out.flush();
        return answer.value().failed() == 0 ? 0 : 1;
    }

    private static String shown(@Nullable JsonNode result) {
        if (result == null || result.isNull() || result.isMissingNode()) {
            return "";
        }
        return result.isContainer() ? ManageClient.writePretty(result) : result.asString();
    }

    private Map<String, Object> given() {
        var given = new LinkedHashMap<String, Object>();
        if (arguments != null) {
            arguments.forEach((name, value) -> {
                boolean isJson = value.startsWith("[") || value.startsWith("{");
                given.put(name, isJson ? ManageClient.read(value) : value);
            });
        }
        return given;
    }
}
