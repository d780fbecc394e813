package sandpiper.model.definition;

import org.jspecify.annotations.Nullable;
import sandpiper.model.Place;

/**
 * An expression, message or steps as written in a definition, with the way back to its place. Two
 * are equal when their texts are.
 */
public final class LogicText {
    private final String text;
    private final Origin origin;

    /** Where a text stands. */
    public interface Origin {
        /** The file's path. */
        String file();

        /** The place of a stretch of the text; code points from 0. */
        Place place(int start, int end);
    }

    public LogicText(String text, Origin origin) {
        this.text = text;
        this.origin = origin;
    }

    public String text() {
        return text;
    }

    public Origin origin() {
        return origin;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof LogicText that && text.equals(that.text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
