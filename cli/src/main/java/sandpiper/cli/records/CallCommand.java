package sandpiper.cli.records;

import static sandpiper.client.ManageClient.escape;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
        var path =
                "/manage/v1/functions/%s/%s"
                        .formatted(
                                escape(function.substring(0, dot)),
                                escape(function.substring(dot + 1)));
        return keys.size() > 1 ? each(path) : one(path);
    }

    private Integer one(String path) {
        var body = new LinkedHashMap<String, Object>();
        if (!keys.isEmpty()) {
            body.put("key", keys.getFirst());
        }
        body.put("arguments", given());
        var answer = connection.open().post(path, body);
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer));
        } else if (answer.path("returns").asBoolean()) {
            out.println(shown(answer.path("result")));
        } else {
            out.println("Done.");
        }
        answer.path("warnings").forEach(warning -> out.println("Warning: " + warning.asString()));
        out.flush();
        return 0;
    }

    private Integer each(String path) {
        var answer =
                connection.open().post(path + "/each", Map.of("keys", keys, "arguments", given()));
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer));
        } else {
            var table = new Table(List.of("Record", "Outcome", "Result"));
            for (var one : answer.path("results")) {
                boolean done = one.path("done").asBoolean();
                table.add(
                        List.of(
                                one.path("key").asString(),
                                done ? "done" : "refused",
                                done ? shown(one.path("result")) : one.path("problem").asString()));
            }
            table.print(out);
        }
        out.flush();
        return answer.path("failed").asLong() == 0 ? 0 : 1;
    }

    private static String shown(JsonNode result) {
        if (result.isNull() || result.isMissingNode()) {
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
