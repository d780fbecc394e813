package sandpiper.engine.definition;

import java.util.List;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.model.Diagnostic;

/**
 * What releasing the draft would mean.
 *
 * @param diagnostics what there is to say about the files; with an error among them nothing below
 *     is known
 * @param changes what differs from the live release, a sentence each
 * @param losses what data would be lost, a sentence each; needs to be accepted
 * @param obstacles why the data as it is stands in the way, a sentence each
 * @param breaks what published services would take from those who call them, a sentence each; needs
 *     to be accepted, or a new version of the service
 * @param follows what is done along with it: formulas that are worked out anew with the number of
 *     their records, grants, views and webhooks that take new names, a sentence each
 * @param leftBehind grants and views that name what is removed, or whose condition no longer fits,
 *     a sentence each; what is renamed they follow
 * @param files what differs in the text, by path
 */
public record ReleasePreview(
        List<Diagnostic> diagnostics,
        List<String> changes,
        List<String> losses,
        List<String> obstacles,
        List<String> breaks,
        List<String> follows,
        List<String> leftBehind,
        List<FileChange> files) {
    public ReleasePreview {
        diagnostics = List.copyOf(diagnostics);
        changes = List.copyOf(changes);
        losses = List.copyOf(losses);
        obstacles = List.copyOf(obstacles);
        breaks = List.copyOf(breaks);
        follows = List.copyOf(follows);
        leftBehind = List.copyOf(leftBehind);
        files = List.copyOf(files);
    }

    /** One file that differs; an empty text stands for a file that is not there. */
    public record FileChange(String path, String before, String after) {}

    /** Whether any file has an error. */
    public boolean hasErrors() {
        return diagnostics.stream()
                .anyMatch(diagnostic -> diagnostic.severity() == Diagnostic.Severity.ERROR);
    }

    /** What became of a release. */
    public sealed interface Result {
        record Released(DefinitionStorage.StoredRelease release) implements Result {}

        /** It was not done, for what the preview says. */
        record Refused(ReleasePreview preview, String message) implements Result {}
    }
}
