package sandpiper.logic.syntax;

import sandpiper.logic.Span;

/**
 * A word of the language. For {@link Kind#TEXT} and {@link Kind#TEMPORAL}, {@code text} is the
 * content without quotes and with escapes resolved; for all others it is what was written.
 *
 * @param startsLine whether nothing but space stands before it on its line
 */
record Token(Kind kind, String text, Span span, boolean startsLine) {
    enum Kind {
        NUMBER,
        TEXT,
        TEMPORAL,
        NAME,
        SYMBOL,
        END
    }

    boolean is(String symbol) {
        return kind == Kind.SYMBOL && text.equals(symbol);
    }

    boolean isWord(String word) {
        return kind == Kind.NAME && text.equals(word);
    }
}
