package sandpiper.cli.draft;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.time.ZoneId;
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
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.run.Calculator;
import sandpiper.logic.value.ValueText;

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
        var logic =
                new DraftCalls.Logic(
                        role.name().toUpperCase(Locale.ROOT),
                        slash < 0 ? record : record.substring(0, slash),
                        expression);
        var trial =
                new DraftCalls.Trial(
                        logic,
                        slash < 0 ? null : record.substring(slash + 1),
                        ValueArguments.read(with, null));
        var tried = connection.open().draft().tryOut(trial).value();
        for (var finding : tried.findings()) {
            var suggestion = finding.suggestion();
            print(
                    new Span(finding.start(), finding.end()),
                    finding.code(),
                    finding.message()
                            + (suggestion == null ? "" : " Did you mean %s?".formatted(suggestion)),
                    !finding.warning(),
                    err);
        }
        tried.faults().forEach(fault -> err.println(fault.message()));
        if (tried.value() != null) {
            out.println(tried.value());
        }
        tried.notes().forEach(note -> err.println("  " + note));
        var after = tried.record();
        if (after != null) {
            after.warnings().forEach(warning -> err.println("warning " + warning.message()));
            out.println(ManageClient.writePretty(after.values()));
        }
        if (steps) {
            TraceCommand.print(tried.steps(), out);
        }
        boolean isRun = (tried.value() != null || after != null) && tried.faults().isEmpty();
        return isRun ? 0 : 1;
    }
}
