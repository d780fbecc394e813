package sandpiper.model.type;

import java.util.regex.Pattern;

/** Numbers of bytes as people write them: {@code 800}, {@code 500 kB}, {@code 3 MB}. */
public final class ByteCount {
    /** Up to {@link FileType#MOST}. */
    public static final Pattern FORM =
            Pattern.compile("[1-9]\\d{0,8}|[1-9]\\d{0,5} ?kB|([1-9]\\d?|1\\d\\d|200) ?MB");

    private static final long KILO = 1_000;

    private ByteCount() {}

    /** The bytes a text of the {@link #FORM} stands for; the usual ones for any other text. */
    public static long of(String text) {
        if (!FORM.matcher(text).matches()) {
            return FileType.USUAL_LARGEST;
        }
        long number = Long.parseLong(text.replaceAll("\\D", ""));
        long unit = text.endsWith("MB") ? KILO * KILO : text.endsWith("kB") ? KILO : 1;
        return Math.min(number * unit, FileType.MOST);
    }
}
