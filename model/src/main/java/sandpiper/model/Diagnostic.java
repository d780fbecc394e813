package sandpiper.model;

import java.util.Comparator;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.ProblemCode;

/**
 * One thing to say about a definition file. Lines and columns count from 1, columns in code points;
 * the end is exclusive.
 *
 * @param file path from the folder that holds the packages, with forward slashes
 * @param code stable identifier of the kind of problem
 * @param message a whole sentence in the consultant's words
 * @param suggestion what was probably meant, as text to put in the place, or {@code null}
 */
public record Diagnostic(
        String file,
        int line,
        int column,
        int endLine,
        int endColumn,
        Severity severity,
        String code,
        String message,
        @Nullable String suggestion) {

    /** Order in which a person reads them. */
    public static final Comparator<Diagnostic> BY_PLACE =
            Comparator.comparing(Diagnostic::file)
                    .thenComparingInt(Diagnostic::line)
                    .thenComparingInt(Diagnostic::column);

    /** An error keeps a draft from being released; a warning does not. */
    public enum Severity {
        ERROR,
        WARNING
    }

    /** An error at a place. */
    public static Diagnostic error(
            String file,
            Place place,
            ProblemCode code,
            String message,
            @Nullable String suggestion) {
        return new Diagnostic(
                file,
                place.line(),
                place.column(),
                place.endLine(),
                place.endColumn(),
                Severity.ERROR,
                code.id(),
                message,
                suggestion);
    }

    /** The same in other words. */
    public Diagnostic said(String otherMessage) {
        return new Diagnostic(
                file, line, column, endLine, endColumn, severity, code, otherMessage, suggestion);
    }

    /** A warning at a place. */
    public static Diagnostic warning(String file, Place place, ProblemCode code, String message) {
        return new Diagnostic(
                file,
                place.line(),
                place.column(),
                place.endLine(),
                place.endColumn(),
                Severity.WARNING,
                code.id(),
                message,
                null);
    }
}
