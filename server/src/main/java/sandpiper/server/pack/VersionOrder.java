package sandpiper.server.pack;

import java.math.BigInteger;
import java.util.regex.Pattern;

/** The order of versions such as 1.2.10: number by number; what is no number comes before. */
public final class VersionOrder {
    private static final Pattern NUMBER = Pattern.compile("[0-9]{1,50}");

    private VersionOrder() {}

    /** Whether a version comes before another; one that is not known comes before none. */
    public static boolean isOlder(String version, String wanted) {
        return !wanted.isEmpty() && compare(version.split("\\."), wanted.split("\\.")) < 0;
    }

    private static int compare(String[] one, String[] other) {
        for (int i = 0; i < Math.max(one.length, other.length); i++) {
            int step = compare(i < one.length ? one[i] : "0", i < other.length ? other[i] : "0");
            if (step != 0) {
                return step;
            }
        }
        return 0;
    }

    private static int compare(String one, String other) {
        boolean areNumbers = NUMBER.matcher(one).matches() && NUMBER.matcher(other).matches();
        if (areNumbers) {
            return new BigInteger(one).compareTo(new BigInteger(other));
        }
        boolean isNumber = NUMBER.matcher(one).matches();
        return isNumber == NUMBER.matcher(other).matches()
                ? one.compareTo(other)
                : isNumber ? 1 : -1;
    }
}
