package sandpiper.cli.common;

/** A number with the word that goes with it. */
public final class Plural {
    private Plural() {}

    /** {@code 1 file}, {@code 2 files}, {@code 0 files}. */
    public static String of(long count, String one) {
        return "%d %s".formatted(count, word(count, one));
    }

    /** The word alone, where an {@code s} makes it many. */
    public static String word(long count, String one) {
        return count == 1 ? one : one + "s";
    }
}
