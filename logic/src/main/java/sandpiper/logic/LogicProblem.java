package sandpiper.logic;

import org.jspecify.annotations.Nullable;

/**
 * One thing wrong with text a person wrote.
 *
 * @param code stable and never reused; programs and tests look at this, not at the wording
 * @param message a whole sentence in the consultant's words
 * @param suggestion what was probably meant, as text to put in the place of the span, or {@code
 *     null} when nothing is near
 */
public record LogicProblem(
        ProblemCode code,
        Span span,
        String message,
        @Nullable String suggestion,
        Severity severity) {

    /** An error keeps logic from being released; a warning asks for a second look. */
    public enum Severity {
        ERROR,
        WARNING
    }

    public LogicProblem(ProblemCode code, Span span, String message, @Nullable String suggestion) {
        this(code, span, message, suggestion, Severity.ERROR);
    }

    public LogicProblem(ProblemCode code, Span span, String message) {
        this(code, span, message, null, Severity.ERROR);
    }

    public static LogicProblem warning(
            ProblemCode code, Span span, String message, @Nullable String suggestion) {
        return new LogicProblem(code, span, message, suggestion, Severity.WARNING);
    }

    /** The message with what was probably meant, in one line. */
    public String sentence() {
        return suggestion == null ? message : message + " Did you mean " + suggestion + "?";
    }

    public boolean isError() {
        return severity == Severity.ERROR;
    }

    /** The same behind a number of code points. */
    public LogicProblem shifted(int by) {
        return by == 0
                ? this
                : new LogicProblem(
                        code,
                        new Span(span.start() + by, span.end() + by),
                        message,
                        suggestion,
                        severity);
    }
}
