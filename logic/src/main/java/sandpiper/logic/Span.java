package sandpiper.logic;

/**
 * A stretch of source text.
 *
 * @param start 0-based code point, inclusive
 * @param end 0-based code point, exclusive; never before {@code start}
 */
public record Span(int start, int end) {
    public Span {
        if (start < 0 || end < start) {
            throw new IllegalArgumentException(
                    "Span must run forward from 0, but was %d..%d".formatted(start, end));
        }
    }

    /** The smallest span that holds both. */
    public Span to(Span other) {
        return new Span(Math.min(start, other.start), Math.max(end, other.end));
    }
}
