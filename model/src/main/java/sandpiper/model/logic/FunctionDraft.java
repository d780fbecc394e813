package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.List;
import sandpiper.model.Diagnostic;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * A function that is not released, compiled against a release so that it can be tried there.
 *
 * @param diagnostics what is wrong with it; it can be run when there is no error among them
 */
public record FunctionDraft(CompiledFunction function, List<Diagnostic> diagnostics) {
    public FunctionDraft {
        diagnostics = List.copyOf(diagnostics);
    }

    public static FunctionDraft of(
            Release release, ObjectType object, FunctionDefinition definition) {
        var diagnostics = new ArrayList<Diagnostic>();
        var compiled = new ReactionCompiler(release, object, diagnostics).function(definition);
        return new FunctionDraft(compiled, diagnostics);
    }

    public boolean hasErrors() {
        return diagnostics.stream().anyMatch(one -> one.severity() == Diagnostic.Severity.ERROR);
    }
}
