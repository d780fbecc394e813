package sandpiper.server.config;

import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.DistributionSummary;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import sandpiper.engine.writer.WriteMetrics;

/** Figures of how writing goes: commits, how many changes share one, and what rules take. */
final class WriteMeters implements WriteMetrics {
    private final MeterRegistry meters;
    private final Timer commits;
    private final DistributionSummary shared;
    private final Counter conflicts;
    private final Counter disconnects;
    private final Map<String, Timer> rules = new ConcurrentHashMap<>();

    WriteMeters(MeterRegistry meters) {
        this.meters = meters;
        this.commits =
                Timer.builder("sandpiper.commit")
                        .description("From the beginning of a transaction until it is durable.")
                        .publishPercentileHistogram()
                        .register(meters);
        this.shared =
                DistributionSummary.builder("sandpiper.commit.changes")
                        .description("Changes that share one commit.")
                        .register(meters);
        this.conflicts =
                Counter.builder("sandpiper.commit.conflicts")
                        .description("Transactions done again since others changed the same.")
                        .register(meters);
        this.disconnects =
                Counter.builder("sandpiper.commit.disconnects")
                        .description("Transactions done again since a connection was lost.")
                        .register(meters);
    }

    @Override
    public void committed(int jobs, long nanos) {
        commits.record(nanos, TimeUnit.NANOSECONDS);
        shared.record(jobs);
    }

    @Override
    public void conflicted(boolean lost) {
        (lost ? disconnects : conflicts).increment();
    }

    @Override
    public void ruleRan(String rule, long nanos) {
        rules.computeIfAbsent(
                        rule,
                        name ->
                                Timer.builder("sandpiper.rule")
                                        .description("What a rule takes for one record.")
                                        .tag("rule", name)
                                        .register(meters))
                .record(nanos, TimeUnit.NANOSECONDS);
    }
}
