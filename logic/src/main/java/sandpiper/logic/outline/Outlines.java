package sandpiper.logic.outline;

import sandpiper.logic.syntax.ExprText;
import sandpiper.logic.syntax.Parser;

/** Takes conditions apart and puts them together. */
public final class Outlines {
    private Outlines() {}

    /**
     * Takes a text apart. What comes out means exactly what the text does: where that would not be
     * so, and where the text cannot be read, it is {@link Outline.Text} as a whole.
     */
    public static Outline read(String text) {
        var parsed = Parser.parse(text);
        if (!parsed.problems().isEmpty()) {
            return new Outline.Text(text);
        }
        var outline = new OutlineReader(text).condition(parsed.expr());
        var again = Parser.parse(OutlineText.of(outline));
        boolean same =
                again.problems().isEmpty()
                        && ExprText.of(again.expr()).equals(ExprText.of(parsed.expr()));
        return same ? outline : new Outline.Text(text);
    }

    /**
     * The text of a condition. Texts within it stand as they are, in brackets where they need them.
     *
     * @throws IllegalArgumentException when a part has not all that it needs; the message says what
     */
    public static String write(Outline outline) {
        return OutlineText.of(outline);
    }
}
