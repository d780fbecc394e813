package sandpiper.cli.common;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/** What commands have in common that answer with a line, a table or JSON. */
public abstract class AnsweringCommand {
    @Spec @Nullable CommandSpec spec;

    protected final PrintWriter out() {
        return Objects.requireNonNull(spec).commandLine().getOut();
    }

    protected final int say(String text) {
        out().println(text);
        out().flush();
        return 0;
    }

    protected final int sayJson(JsonNode json) {
        return say(ManageClient.writePretty(json));
    }

    protected final int say(Table table) {
        table.print(out());
        out().flush();
        return 0;
    }

    /** A list of texts with commas between them. */
    protected static String joined(JsonNode list) {
        var texts = new ArrayList<String>();
        list.forEach(one -> texts.add(one.asString()));
        return String.join(", ", texts);
    }
}
