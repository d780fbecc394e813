package sandpiper.cli.draft;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

@Command(
        name = "diff",
        mixinStandardHelpOptions = true,
        description =
                "Tell what releasing the draft would change, and what would become of the data.",
        footer = {"", "Example:", "  sandpiper diff"})
public final class DiffCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var preview = connection.open().get("/manage/v1/releases/preview");
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(preview));
        } else {
            out.print(inWords(preview));
        }
        out.flush();
        return preview.path("obstacles").isEmpty() && preview.path("diagnostics").isEmpty() ? 0 : 1;
    }

    /** A preview as lines of text. */
    static String inWords(JsonNode preview) {
        var text = new StringBuilder();
        for (var diagnostic : preview.path("diagnostics")) {
            text.append(
                    "%s:%d:%d: %s%n"
                            .formatted(
                                    diagnostic.path("file").asString(),
                                    diagnostic.path("line").asInt(),
                                    diagnostic.path("column").asInt(),
                                    diagnostic.path("message").asString()));
        }
        list(text, "Changes", preview.path("changes"));
        text.append(concerns(preview));
        if (preview.path("files").isEmpty()) {
            text.append("The draft is the same as the live release.%n".formatted());
        } else if (preview.path("changes").isEmpty() && preview.path("diagnostics").isEmpty()) {
            text.append(
                    "%d files differ in their text only.%n"
                            .formatted(preview.path("files").size()));
        }
        return text.toString();
    }

    /** What keeps a preview from being released as it is, as lines of text; empty when nothing. */
    static String concerns(JsonNode preview) {
        var text = new StringBuilder();
        list(text, "Data that would be lost", preview.path("losses"));
        list(text, "Contracts that would break", preview.path("breaks"));
        list(text, "In the way", preview.path("obstacles"));
        return text.toString();
    }

    private static void list(StringBuilder text, String title, JsonNode sentences) {
        if (!sentences.isEmpty()) {
            text.append("%s:%n".formatted(title));
            sentences.forEach(sentence -> text.append("  - %s%n".formatted(sentence.asString())));
        }
    }
}
