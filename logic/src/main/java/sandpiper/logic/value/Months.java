package sandpiper.logic.value;

/**
 * A years and months duration, DMN 1.5 §10.3.2.3.8.
 *
 * @param count whole months, years included; below 0 runs backwards
 */
public record Months(long count) implements Comparable<Months> {
    @Override
    public int compareTo(Months other) {
        return Long.compare(count, other.count);
    }

    /** ISO 8601: {@code P1Y2M}, {@code P0M}. */
    @Override
    public String toString() {
        if (count == 0) {
            return "P0M";
        }
        long size = Math.abs(count);
        return (count < 0 ? "-P" : "P")
                + (size / 12 == 0 ? "" : size / 12 + "Y")
                + (size % 12 == 0 ? "" : size % 12 + "M");
    }
}
