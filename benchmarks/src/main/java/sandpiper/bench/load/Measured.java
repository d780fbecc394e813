package sandpiper.bench.load;

import org.HdrHistogram.Histogram;

/**
 * What a load came to.
 *
 * @param times of all answers, in nanoseconds
 * @param seconds it lasted
 * @param failed answers that were not good
 */
public record Measured(Histogram times, double seconds, int failed) {
    /** Answers a second. */
    public double perSecond() {
        return times.getTotalCount() / seconds;
    }

    /** The time, in milliseconds, within which a share of the answers came. */
    public double millis(double percent) {
        return times.getValueAtPercentile(percent) / 1e6;
    }

    /** The longest time, in milliseconds. */
    public double longestMillis() {
        return times.getMaxValue() / 1e6;
    }
}
