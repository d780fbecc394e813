package sandpiper.cli.draft;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;

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
        var preview = connection.open().draft().preview();
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(preview.json()));
        } else {
            out.print(inWords(preview.value()));
        }
        out.flush();
        var said = preview.value();
        return said.obstacles().isEmpty() && said.diagnostics().isEmpty() ? 0 : 1;
    }

    /** A preview as lines of text. */
    public static String inWords(DraftCalls.Preview preview) {
        return inWords(preview, "The draft");
    }

    /**
     * The same.
     *
     * @param what is compared to the live release, as at the beginning of a sentence
     */
    static String inWords(DraftCalls.Preview preview, String what) {
        var text = new StringBuilder();
        for (var diagnostic : preview.diagnostics()) {
            text.append(
                    "%s:%d:%d: %s%n"
                            .formatted(
                                    diagnostic.file(),
                                    diagnostic.line(),
                                    diagnostic.column(),
                                    diagnostic.message()));
        }
        list(text, "Changes", preview.changes());
        text.append(concerns(preview));
        if (preview.files().isEmpty()) {
            text.append("%s is the same as the live release.%n".formatted(what));
        } else if (preview.changes().isEmpty() && preview.diagnostics().isEmpty()) {
            int files = preview.files().size();
            text.append(
                    files == 1
                            ? "1 file differs in its text only.%n".formatted()
                            : "%d files differ in their text only.%n".formatted(files));
        }
        return text.toString();
    }

    /** What keeps a preview from being released as it is, as lines of text; empty when nothing. */
    static String concerns(DraftCalls.Preview preview) {
        var text = new StringBuilder();
        list(text, "Data that would be taken away", preview.losses());
        list(text, "Contracts that would break", preview.breaks());
        list(text, "In the way", preview.obstacles());
        list(text, "Done along with it", preview.following());
        list(text, "Left behind", preview.left());
        return text.toString();
    }

    private static void list(StringBuilder text, String title, List<String> sentences) {
        if (!sentences.isEmpty()) {
            text.append("%s:%n".formatted(title));
            sentences.forEach(sentence -> text.append("  - %s%n".formatted(sentence)));
        }
    }
}
