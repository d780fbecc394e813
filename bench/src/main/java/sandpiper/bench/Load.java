package sandpiper.bench;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.Base64;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntFunction;

/**
 * Sends requests from a fixed number of connections, each as soon as its last was answered, for a
 * fixed time.
 */
final class Load {
    private static final String WHO =
            "Basic "
                    + Base64.getEncoder()
                            .encodeToString(
                                    "booking-site:berths-for-all".getBytes(StandardCharsets.UTF_8));

    /** What a run came to: answers a second, and how long they took. */
    record Result(double perSecond, double medianMillis, double p99Millis) {}

    private Load() {}

    static HttpRequest get(String address) {
        return HttpRequest.newBuilder(URI.create(address)).header("Authorization", WHO).build();
    }

    static HttpRequest post(String address, String body) {
        return post(address, body, "application/json");
    }

    static HttpRequest post(String address, String body, String type) {
        return HttpRequest.newBuilder(URI.create(address))
                .header("Authorization", WHO)
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
    }

    /**
     * Runs for a time; the n-th request is made by {@code requests}. Any answer but a good one ends
     * the measurement.
     */
    static Result run(int connections, Duration time, IntFunction<HttpRequest> requests)
            throws Exception {
        var next = new AtomicInteger();
        var took = new ConcurrentLinkedQueue<Long>();
        long end = System.nanoTime() + time.toNanos();
        try (var pool = Executors.newFixedThreadPool(connections)) {
            var workers =
                    java.util.stream.IntStream.range(0, connections)
                            .mapToObj(_ ->
                                    pool.submit(() -> {
                                        work(requests, next, took, end);
                                        return true;
                                    }))
                            .toList();
            for (var worker : workers) {
                worker.get();
            }
        }
        var sorted = took.stream().mapToLong(Long::longValue).sorted().toArray();
        return new Result(
                sorted.length / (time.toMillis() / 1000.0), at(sorted, 0.5), at(sorted, 0.99));
    }

    private static void work(
            IntFunction<HttpRequest> requests,
            AtomicInteger next,
            ConcurrentLinkedQueue<Long> took,
            long end)
            throws IOException, InterruptedException {
        // A client each: its one connection is then kept open, as a load driver should.
        try (var http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build()) {
            while (System.nanoTime() < end) {
                long start = System.nanoTime();
                var answer =
                        http.send(
                                requests.apply(next.getAndIncrement()),
                                HttpResponse.BodyHandlers.ofString());
                took.add(System.nanoTime() - start);
                if (answer.statusCode() >= 300) {
                    throw new IOException("%d: %s".formatted(answer.statusCode(), answer.body()));
                }
            }
        }
    }

    private static double at(long[] sorted, double share) {
        return sorted.length == 0
                ? 0
                : sorted[(int) Math.min(sorted.length - 1L, Math.round(sorted.length * share))]
                        / 1e6;
    }

    static double median(double... values) {
        var sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
