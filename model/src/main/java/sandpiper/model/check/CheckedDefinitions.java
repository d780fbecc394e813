package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Diagnostic;
import sandpiper.model.release.Release;

/**
 * What checking files came to.
 *
 * @param diagnostics everything there is to say, in the order of files and lines
 * @param compiled what the files mean, or {@code null} when there is an error
 * @param outline what could be understood of objects and events whatever is wrong, for somebody who
 *     is writing; never to be released
 */
public record CheckedDefinitions(
        List<Diagnostic> diagnostics, @Nullable Release compiled, Release outline) {
    public CheckedDefinitions {
        diagnostics = List.copyOf(diagnostics);
    }

    /** The same with further errors, which keep it from being released. */
    CheckedDefinitions with(List<Diagnostic> errors) {
        var all = new ArrayList<>(diagnostics);
        all.addAll(errors);
        all.sort(Diagnostic.BY_PLACE);
        return new CheckedDefinitions(all, null, outline);
    }

    /** The release, or nothing when there is an error. */
    public Optional<Release> release() {
        return Optional.ofNullable(compiled);
    }

    /** The diagnostics that keep the files from being released. */
    public List<Diagnostic> errors() {
        return diagnostics.stream()
                .filter(diagnostic -> diagnostic.severity() == Diagnostic.Severity.ERROR)
                .toList();
    }
}
