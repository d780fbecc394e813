package sandpiper.bench.load;

import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.IntFunction;
import org.HdrHistogram.Histogram;

/**
 * Load on one service from a fixed number of connections. Any answer but a good one ends it, unless
 * failures are to be counted.
 */
public final class Load {
    /** Longest time that is told apart, in nanoseconds. */
    private static final long LONGEST = Duration.ofMinutes(2).toNanos();

    private final List<URI> servers;
    private final int connections;
    private final boolean countsFailures;
    private final AtomicInteger next = new AtomicInteger();

    private Load(List<URI> servers, int connections, boolean countsFailures) {
        this.servers = servers;
        this.connections = connections;
        this.countsFailures = countsFailures;
    }

    /** Load from some connections on a service at an address without a path. */
    public static Load on(String server, int connections) {
        return onAll(List.of(server), connections);
    }

    /** The same on several that are equal, each with its share of the connections. */
    public static Load onAll(List<String> servers, int connections) {
        return new Load(servers.stream().map(URI::create).toList(), connections, false);
    }

    /** The same load, which goes on when an answer is not good and counts it. */
    public Load countingFailures() {
        return new Load(servers, connections, true);
    }

    /**
     * Sends each request as soon as the one before on its connection was answered (closed loop).
     */
    public Measured closed(Duration time, IntFunction<Call> calls) throws IOException {
        long end = System.nanoTime() + time.toNanos();
        return until(() -> System.nanoTime() >= end, calls);
    }

    /** The same until something is so. */
    public Measured until(BooleanSupplier done, IntFunction<Call> calls) throws IOException {
        return run(
                System.nanoTime(),
                (wire, tally) -> {
                    while (!done.getAsBoolean()) {
                        long sent = System.nanoTime();
                        ask(wire, calls, tally);
                        tally.took(System.nanoTime() - sent);
                    }
                });
    }

    /**
     * Sends requests at fixed moments, whether or not earlier ones were answered. Times are counted
     * from the moment at which a request was due, so that one that has to wait for a connection is
     * not made to look quick.
     *
     * @param rate requests a second over all connections
     */
    public Measured fixed(Duration time, double rate, IntFunction<Call> calls) throws IOException {
        long start = System.nanoTime();
        long end = start + time.toNanos();
        double gap = 1e9 / rate;
        var due = new AtomicInteger();
        return run(
                start,
                (wire, tally) -> {
                    while (true) {
                        long at = start + (long) (due.getAndIncrement() * gap);
                        if (at >= end) {
                            return;
                        }
                        for (long wait = at - System.nanoTime();
                                wait > 0;
                                wait = at - System.nanoTime()) {
                            LockSupport.parkNanos(wait);
                        }
                        ask(wire, calls, tally);
                        tally.took(System.nanoTime() - at);
                    }
                });
    }

    /** Sends one request and gives the body of its answer. */
    public static byte[] once(String server, Call call) throws IOException {
        try (var wire = new Wire(URI.create(server))) {
            var answer = wire.ask(call);
            if (!answer.isGood()) {
                throw new IOException(answer.toString());
            }
            return answer.body();
        }
    }

    private void ask(Wire wire, IntFunction<Call> calls, Tally tally) throws IOException {
        var answer = wire.ask(calls.apply(next.getAndIncrement()));
        if (!answer.isGood()) {
            if (!countsFailures) {
                throw new IOException(answer.toString());
            }
            tally.failed++;
        }
    }

    /** What one connection does. */
    @FunctionalInterface
    private interface Worker {
        void work(Wire wire, Tally tally) throws IOException;
    }

    /** What one connection has measured. */
    private static final class Tally {
        private final Histogram times = new Histogram(LONGEST, 3);
        private int failed;

        void took(long nanos) {
            times.recordValue(Math.min(nanos, LONGEST));
        }
    }

    private Measured run(long start, Worker worker) throws IOException {
        var all = new Histogram(LONGEST, 3);
        int failed = 0;
        try (var pool = Executors.newFixedThreadPool(connections)) {
            var running = new ArrayList<Future<Tally>>();
            for (int i = 0; i < connections; i++) {
                var server = servers.get(i % servers.size());
                running.add(
                        pool.submit(() -> {
                            var tally = new Tally();
                            try (var wire = new Wire(server)) {
                                worker.work(wire, tally);
                            }
                            return tally;
                        }));
            }
            for (var one : running) {
                var tally = one.get();
                all.add(tally.times);
                failed += tally.failed;
            }
        } catch (ExecutionException e) {
            throw new IOException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
        return new Measured(all, (System.nanoTime() - start) / 1e9, failed);
    }
}
