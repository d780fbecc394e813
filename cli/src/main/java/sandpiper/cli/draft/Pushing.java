package sandpiper.cli.draft;

import java.io.PrintWriter;
import sandpiper.client.DraftCalls;

/** Files put into the draft of a service, and what the service says of them. */
public final class Pushing {
    private Pushing() {}

    /** Tells which files differ from the draft before, and what there is to say about them. */
    static void tell(DraftCalls.Pushed pushed, PrintWriter out) {
        pushed.added().forEach(path -> out.println("added    " + path));
        pushed.changed().forEach(path -> out.println("changed  " + path));
        pushed.removed().forEach(path -> out.println("removed  " + path));
        pushed.diagnostics()
                .forEach(diagnostic ->
                        out.printf(
                                "%s:%d:%d: %s %s%n",
                                diagnostic.file(),
                                diagnostic.line(),
                                diagnostic.column(),
                                diagnostic.code(),
                                diagnostic.message()));
    }
}
