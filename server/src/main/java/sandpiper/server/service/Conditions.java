package sandpiper.server.service;

import java.time.Clock;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.logic.type.RecordType;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;

/** Reads conditions over records; what is wrong with one becomes a problem. */
public final class Conditions {
    private Conditions() {}

    /**
     * A condition over records of a type.
     *
     * @param name as the one who wrote it calls it, as in {@code filter}
     * @param text in FEEL, or {@code null} for none
     * @throws ProblemException when it is not right, with each thing and its column
     */
    public static @Nullable Condition read(
            String name, @Nullable String text, RecordType type, Clock clock) {
        return read(name, text, true, given -> ConditionChecker.check(given, type, clock));
    }

    /**
     * The same, checked in a way of the caller's.
     *
     * @param written whether the caller wrote the text; of one made from something else columns
     *     mean nothing to the caller
     */
    static @Nullable Condition read(
            String name, @Nullable String text, boolean written, Function<String, Checked> check) {
        if (text == null) {
            return null;
        }
        return switch (check.apply(text)) {
            case Checked.Accepted(var condition) -> condition;
            case Checked.Rejected(var problems) ->
                    throw new ProblemException(
                            isBeyond(problems) && !written
                                    ? HttpStatus.NOT_IMPLEMENTED
                                    : HttpStatus.BAD_REQUEST,
                            "The %s is not right: %s"
                                    .formatted(name, problems.getFirst().sentence()),
                            written
                                    ? problems.stream().map(one -> error(name, one)).toList()
                                    : List.of());
        };
    }

    /** Whether a condition is right as such, but none that records are found by here. */
    private static boolean isBeyond(List<LogicProblem> problems) {
        return problems.stream()
                .allMatch(problem ->
                        problem.code() == LogicCode.NOT_IN_SQL
                                || problem.code() == LogicCode.NO_FIELD);
    }

    private static Wrong error(String name, LogicProblem problem) {
        return new Wrong(
                FaultPath.WHOLE,
                problem.code().id(),
                "%s, column %d: %s"
                        .formatted(name, problem.span().start() + 1, problem.sentence()));
    }
}
