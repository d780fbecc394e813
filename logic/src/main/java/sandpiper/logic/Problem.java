package sandpiper.logic;

import org.jspecify.annotations.Nullable;

/**
 * One thing wrong with text a person wrote.
 *
 * @param code what kind of problem it is
 * @param span where it stands
 * @param message a whole sentence in the consultant's words
 * @param suggestion what was probably meant, or {@code null} when nothing is near
 */
public record Problem(Code code, Span span, String message, @Nullable String suggestion) {
    /** A problem for which nothing better can be offered. */
    public Problem(Code code, Span span, String message) {
        this(code, span, message, null);
    }

    /** The message, followed by the suggestion as a question when there is one. */
    public String sentence() {
        return suggestion == null ? message : message + " Did you mean \"" + suggestion + "\"?";
    }
}
