package sandpiper.cli.draft;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.activity.TraceCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.records.ValueArguments;
import sandpiper.client.ManageClient;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.run.Calculator;
import sandpiper.logic.value.ValueText;
import tools.jackson.databind.JsonNode;

@Command(
        name = "eval",
        mixinStandardHelpOptions = true,
        description = {
            "Work out an expression (FEEL), by itself or on a record; keeps nothing.",
            "By itself it needs no service. On a record it is asked of the service, which also"
                    + " tries checks and the steps of rules."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper eval 'date(\"2026-05-01\") + duration(\"P7D\")'",
            "  sandpiper eval --on Stay/ST-2026-000042 'sum(charges.gross) + nights * nightlyRate'",
            "  sandpiper eval --on Stay/ST-2026-000042 --as then 'set departure = departure +"
                    + " @\"P1D\"'"
        })
public final class EvalCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "EXPRESSION", description = "What to work out.")
    String expression;

    @Option(
            names = "--on",
            paramLabel = "OBJECT[/KEY]",
            description = "A record, or an object alone to try it on a new record.")
    @Nullable String on;

    @Option(
            names = "--with",
            paramLabel = "FIELD=VALUE",
            description = "A value to put into the record first; can stand several times.")
    List<String> with = List.of();

    /** What the text is. */
    enum Role {
        EXPRESSION,
        CHECK,
        WHEN,
        THEN,
        SAY
    }

    @Option(
            names = "--as",
            paramLabel = "ROLE",
            defaultValue = "expression",
            description = "What the text is: ${COMPLETION-CANDIDATES}; expression when not said.")
    Role role;

    @Option(names = "--steps", description = "Print the account of what was done as well.")
    boolean steps;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        var err = spec.commandLine().getErr();
        int code = on == null ? alone(out, err) : onRecord(on, out, err);
        out.flush();
        err.flush();
        return code;
    }

    private int alone(PrintWriter out, PrintWriter err) {
        var answer = new Calculator(Clock.system(ZoneId.systemDefault())).evaluate(expression);
        boolean unreadable = false;
        for (var problem : answer.problems()) {
            print(problem, err);
            unreadable |= keepsFromRunning(problem);
        }
        if (unreadable) {
            return 1;
        }
        out.println(ValueText.literal(answer.value()));
        answer.notes().forEach(note -> err.println("  " + note));
        return 0;
    }

    /**
     * What cannot be read has no value; what does not fit comes to null, as the standard has it.
     */
    private static boolean keepsFromRunning(LogicProblem problem) {
        return problem.isError()
                && (problem.code().id().startsWith("SP1")
                        || problem.code() == LogicCode.UNKNOWN_NAME
                        || problem.code() == LogicCode.UNKNOWN_FUNCTION);
    }

    private void print(LogicProblem problem, PrintWriter err) {
        print(problem.span(), problem.code().id(), problem.sentence(), problem.isError(), err);
    }

    private void print(Span span, String code, String sentence, boolean error, PrintWriter err) {
        err.printf("%s%s %s%n", error ? "" : "warning ", code, sentence);
        var line = expression.lines().findFirst().orElse("");
        if (expression.lines().count() <= 1) {
            err.println("  | " + line);
            err.println(
                    "  | "
                            + " ".repeat(Math.min(span.start(), 200))
                            + "^".repeat(Math.clamp(span.end() - span.start(), 1, 200)));
        }
    }

    private int onRecord(String record, PrintWriter out, PrintWriter err) throws IOException {
        int slash = record.indexOf('/');
        var logic = new LinkedHashMap<String, Object>();
        logic.put("role", role.name().toUpperCase(Locale.ROOT));
        logic.put("object", slash < 0 ? record : record.substring(0, slash));
        logic.put("text", expression);
        var body = new LinkedHashMap<String, Object>();
        body.put("logic", logic);
        if (slash >= 0) {
            body.put("key", record.substring(slash + 1));
        }
        body.put("values", ValueArguments.read(with, null));
        var answer = connection.open().post("/manage/v1/trials", body);
        for (var finding : answer.path("findings")) {
            var suggestion = finding.path("suggestion");
            print(
                    new Span(finding.path("start").asInt(), finding.path("end").asInt()),
                    finding.path("code").asString(),
                    finding.path("message").asString()
                            + (suggestion.isString()
                                    ? " Did you mean %s?".formatted(suggestion.asString())
                                    : ""),
                    !finding.path("warning").asBoolean(),
                    err);
        }
        answer.path("faults").forEach(fault -> err.println(fault.path("message").asString()));
        if (answer.path("value").isString()) {
            out.println(answer.path("value").asString());
        }
        answer.path("notes").forEach(note -> err.println("  " + note.asString()));
        var after = answer.path("record");
        if (after.isObject()) {
            after.path("warnings")
                    .forEach(warning ->
                            err.println("warning " + warning.path("message").asString()));
            out.println(ManageClient.writePretty(after.path("values")));
        }
        if (steps) {
            TraceCommand.print(answer.path("steps"), out);
        }
        return isRun(answer) ? 0 : 1;
    }

    private static boolean isRun(JsonNode answer) {
        return (answer.path("value").isString() || answer.path("record").isObject())
                && answer.path("faults").isEmpty();
    }
}
