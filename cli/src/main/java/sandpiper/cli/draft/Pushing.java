package sandpiper.cli.draft;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Map;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/** Files put into the draft of a service, and what the service says of them. */
public final class Pushing {
    private Pushing() {}

    /** Puts a folder's packages into the draft. */
    static JsonNode push(ManageClient client, Path folder) {
        return client.post("/manage/v1/draft/push", Map.of("files", PackageFiles.read(folder)));
    }

    /** The errors among the diagnostics. */
    static int errors(JsonNode pushed) {
        int errors = 0;
        for (var diagnostic : pushed.path("diagnostics")) {
            errors += diagnostic.path("severity").asString("").equals("ERROR") ? 1 : 0;
        }
        return errors;
    }

    /** Tells which files differ from the draft before, and what there is to say about them. */
    static void tell(JsonNode pushed, PrintWriter out) {
        pushed.path("added").forEach(path -> out.println("added    " + path.asString()));
        pushed.path("changed").forEach(path -> out.println("changed  " + path.asString()));
        pushed.path("removed").forEach(path -> out.println("removed  " + path.asString()));
        pushed.path("diagnostics")
                .forEach(diagnostic ->
                        out.printf(
                                "%s:%d:%d: %s %s%n",
                                diagnostic.path("file").asString(),
                                diagnostic.path("line").asInt(),
                                diagnostic.path("column").asInt(),
                                diagnostic.path("code").asString(),
                                diagnostic.path("message").asString()));
    }
}
