package sandpiper.logic;

/** Shows a person's own text back to them, cut when it is long. */
public final class Quoted {
    private static final int LONGEST = 40;

    private Quoted() {}

    /** The text in double quotes, at most 40 characters of it, with line breaks shown as spaces. */
    public static String of(String text) {
        var line = text.replaceAll("\\R", " ");
        var length = line.codePointCount(0, line.length());
        if (length > LONGEST) {
            line = line.substring(0, line.offsetByCodePoints(0, LONGEST)) + "…";
        }
        return '"' + line + '"';
    }
}
