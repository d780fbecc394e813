package sandpiper.cli.common;

import java.io.PrintWriter;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import sandpiper.client.Answer;
import sandpiper.client.ManageClient;

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

    /** Word for word what the service said. */
    protected final int sayJson(Answer<?> answer) {
        return say(ManageClient.writePretty(answer.json()));
    }

    protected final int say(Table table) {
        table.print(out());
        out().flush();
        return 0;
    }

    /** A list of texts with commas between them. */
    protected static String joined(List<String> texts) {
        return String.join(", ", texts);
    }
}
