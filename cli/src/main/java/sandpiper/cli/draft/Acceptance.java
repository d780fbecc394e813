package sandpiper.cli.draft;

import java.io.PrintWriter;
import java.util.ArrayList;
import picocli.CommandLine.Option;
import sandpiper.client.DraftCalls;

/** What of the bad news of a release is accepted. */
final class Acceptance {
    @Option(
            names = "--accept-losses",
            description = "Go on although data will be taken away; see diff.")
    boolean losses;

    @Option(
            names = "--accept-breaks",
            description = "Go on although callers of published services break; see diff.")
    boolean breaks;

    @Option(
            names = "--accept-failing",
            description = "Go on although examples fail; see check --examples.")
    boolean failing;

    @Option(
            names = "--forget",
            description =
                    "Drop the values of what is removed at once, instead of keeping them aside for"
                            + " 30 days.")
    boolean forget;

    DraftCalls.Wanted wanted(String note) {
        return new DraftCalls.Wanted(note, losses, breaks, failing, forget);
    }

    /** Whether a release may go on; tells what is missing when it may not. */
    boolean covers(DraftCalls.Preview preview, PrintWriter out) {
        if (preview.diagnostics().stream().anyMatch(DraftCalls.Finding::isError)) {
            out.println("It has errors; nothing was released.");
            return false;
        }
        if (!preview.obstacles().isEmpty()) {
            out.println("The data stands in the way; nothing was released.");
            return false;
        }
        var missing = new ArrayList<String>();
        if (!preview.losses().isEmpty() && !losses) {
            missing.add("--accept-losses");
        }
        if (!preview.breaks().isEmpty() && !breaks) {
            missing.add("--accept-breaks");
        }
        if (!missing.isEmpty()) {
            out.println(
                    "Nothing was released. To go on all the same, say so: %s."
                            .formatted(String.join(" ", missing)));
        }
        return missing.isEmpty();
    }
}
