package sandpiper.server.intake;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/**
 * Reads bodies into memory: of a size, at a rate, and all that are there at the same time within a
 * sum. Safe between threads.
 */
final class BodyReader {
    /** What a body may take however short it is. */
    private static final long FIRST_NANOS = TimeUnit.SECONDS.toNanos(10);

    /** The least rate at which more of it has to come. */
    private static final long BYTES_A_SECOND = 16 << 10;

    private static final int STEP = 16 << 10;
    private static final long WAIT_FOR_ROOM = 5;

    private final Semaphore kilobytes;
    private final LongSupplier nanoTime;

    /**
     * @param sum bytes of all bodies that are worked on
     * @param nanoTime as of {@link System#nanoTime}
     */
    BodyReader(long sum, LongSupplier nanoTime) {
        this.kilobytes = new Semaphore((int) Math.min(Integer.MAX_VALUE, sum >> 10), true);
        this.nanoTime = nanoTime;
    }

    /** A body in memory, which takes up room until it is closed. */
    final class Body implements AutoCloseable {
        private byte[] bytes = new byte[0];
        private int held;

        byte[] bytes() {
            return bytes;
        }

        @Override
        public void close() {
            kilobytes.release(held);
            held = 0;
        }

        private void hold(long length) {
            int wanted = (int) ((length >> 10) + 1);
            if (wanted > held) {
                try {
                    if (!kilobytes.tryAcquire(wanted - held, WAIT_FOR_ROOM, TimeUnit.SECONDS)) {
                        throw new ProblemException(
                                HttpStatus.SERVICE_UNAVAILABLE,
                                "Too much is being sent just now; nothing of this was done. Try"
                                        + " again in a moment.");
                    }
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                    throw new ProblemException(
                            HttpStatus.SERVICE_UNAVAILABLE, "The service is stopping.", e);
                }
                held = wanted;
            }
        }
    }

    /**
     * Reads on until a body ends.
     *
     * @param start what has been read of it before
     * @param length what the sender says, or -1
     * @param largest bytes it may have
     * @throws ProblemException 413 when it is larger, 408 when it comes too slowly, 503 when there
     *     is no room
     */
    Body read(byte[] start, InputStream from, long length, int largest) {
        if (length > largest) {
            throw tooLarge(largest);
        }
        var body = new Body();
        try {
            body.hold(Math.max(length, start.length));
            long began = nanoTime.getAsLong();
            var into = new ByteArrayOutputStream((int) Math.max(length, STEP));
            into.writeBytes(start);
            var step = new byte[STEP];
            for (int read = from.read(step); read >= 0; read = from.read(step)) {
                into.write(step, 0, read);
                if (into.size() > largest) {
                    throw tooLarge(largest);
                }
                body.hold(into.size());
                requireRate(began, into.size());
            }
            if (length >= 0 && into.size() < length) {
                throw new ProblemException(
                        HttpStatus.BAD_REQUEST, "The body ends before all of it has come.");
            }
            body.bytes = into.toByteArray();
            return body;
        } catch (IOException e) {
            body.close();
            throw new ProblemException(
                    HttpStatus.REQUEST_TIMEOUT, "The body did not come to its end in time.", e);
        } catch (RuntimeException | Error e) {
            body.close();
            throw e;
        }
    }

    /**
     * Reads the beginning of a body: so many bytes, or fewer when it ends before.
     *
     * @throws ProblemException 408 when it comes too slowly, 503 when there is no room
     */
    Body head(InputStream from, int most) {
        var head = new Body();
        try {
            head.hold(most);
            long began = nanoTime.getAsLong();
            var bytes = new byte[most];
            int length = 0;
            for (int read = 0; read >= 0 && length < most; length += Math.max(read, 0)) {
                read = from.read(bytes, length, most - length);
                requireRate(began, length);
            }
            head.bytes = Arrays.copyOf(bytes, length);
            return head;
        } catch (IOException e) {
            head.close();
            throw new ProblemException(
                    HttpStatus.REQUEST_TIMEOUT, "The body did not come to its end in time.", e);
        } catch (RuntimeException | Error e) {
            head.close();
            throw e;
        }
    }

    private void requireRate(long began, int size) {
        long allowed = FIRST_NANOS + TimeUnit.SECONDS.toNanos(size / BYTES_A_SECOND);
        if (nanoTime.getAsLong() - began > allowed) {
            throw new ProblemException(
                    HttpStatus.REQUEST_TIMEOUT, "The body comes too slowly; send it at once.");
        }
    }

    private static ProblemException tooLarge(int largest) {
        return new ProblemException(
                HttpStatus.CONTENT_TOO_LARGE,
                "The body may have %,d bytes here; send larger amounts in several requests."
                        .formatted(largest));
    }
}
