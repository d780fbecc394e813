package sandpiper.bench.line;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** The lines that were measured, as tables in Markdown. */
public final class Report {
    private final List<String> compared = new ArrayList<>();
    private final List<String> alone = new ArrayList<>();

    /** Ratios of the rounds of one line. */
    public record Ratios(double... values) {
        /** The one in the middle. */
        public double median() {
            return Report.median(values);
        }

        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "**%.2f** (%.2f to %.2f)",
                    median(),
                    Arrays.stream(values).min().orElseThrow(),
                    Arrays.stream(values).max().orElseThrow());
        }
    }

    /** One service's part of a line: medians over the rounds. */
    record Side(double perSecond, double medianMillis, double p99Millis, double cpuMicros) {
        static Side of(List<Side> rounds) {
            return new Side(
                    median(rounds.stream().mapToDouble(Side::perSecond).toArray()),
                    median(rounds.stream().mapToDouble(Side::medianMillis).toArray()),
                    median(rounds.stream().mapToDouble(Side::p99Millis).toArray()),
                    median(rounds.stream().mapToDouble(Side::cpuMicros).toArray()));
        }
    }

    /** The middle one. */
    public static double median(double... values) {
        var sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    void compared(String work, String goal, Ratios ratios, Side ours, Side theirs) {
        add(
                compared,
                "| %s | %s | %s | %.0f : %.0f | %.1f : %.1f | %.1f : %.1f | %.0f : %.0f |",
                work,
                goal,
                ratios,
                ours.perSecond(),
                theirs.perSecond(),
                ours.medianMillis(),
                theirs.medianMillis(),
                ours.p99Millis(),
                theirs.p99Millis(),
                ours.cpuMicros(),
                theirs.cpuMicros());
    }

    void alone(String work, String goal, String measured) {
        add(alone, "| %s | %s | %s |", work, goal, measured);
    }

    private static void add(List<String> to, String format, Object... values) {
        var line = String.format(Locale.ROOT, format, values);
        System.out.println(line);
        to.add(line);
    }

    /** The lines that were compared. */
    public String sideBySide() {
        return """
        | work | goal | ratio of throughput | a second | median ms | p99 ms | processor µs |
        | --- | --- | --- | --- | --- | --- | --- |
        %s
        """
                .formatted(String.join("\n", compared));
    }

    /** Everything that was measured. */
    public String text() {
        return """
        ## Side by side

        Sandpiper : control in each column. Processor time is that of the service alone, in microseconds for each request.

        %s
        ## Sandpiper by itself

        | work | goal | measured |
        | --- | --- | --- |
        %s
        """
                .formatted(sideBySide(), String.join("\n", alone));
    }
}
