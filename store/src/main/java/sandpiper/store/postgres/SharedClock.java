package sandpiper.store.postgres;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.concurrent.atomic.AtomicLong;

/**
 * The time of the database, by the clock of this machine and what the two differ by: what several
 * processes hold for a while must not depend on whose clock is right. Safe for any thread.
 */
final class SharedClock extends Clock {
    /** A difference that the way to the database may account for. */
    private static final Duration NEGLIGIBLE = Duration.ofMillis(20);

    private final Clock own;
    private final AtomicLong ahead;

    SharedClock(Clock own) {
        this(own, new AtomicLong());
    }

    private SharedClock(Clock own, AtomicLong ahead) {
        this.own = own;
        this.ahead = ahead;
    }

    Instant own() {
        return own.instant();
    }

    /**
     * Goes by what the database's clock said.
     *
     * @param asked by the own clock, when it was asked
     * @param answered by the own clock, when it had answered
     * @return how much the database's clock is ahead of the own one
     */
    Duration set(Instant database, Instant asked, Instant answered) {
        var halfway = asked.plus(Duration.between(asked, answered).dividedBy(2));
        var measured = Duration.between(halfway, database);
        var change = measured.minusNanos(ahead.get()).abs();
        if (change.compareTo(NEGLIGIBLE) > 0) {
            ahead.set(measured.toNanos());
        }
        return measured;
    }

    @Override
    public Instant instant() {
        return own.instant().plusNanos(ahead.get());
    }

    @Override
    public ZoneId getZone() {
        return own.getZone();
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return new SharedClock(own.withZone(zone), ahead);
    }
}
