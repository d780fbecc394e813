package sandpiper.testing;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock that stands still until a test sets it. Safe for use by many threads. */
public final class SettableClock extends Clock {
    private volatile Instant now;

    /** Stands at a moment, in UTC. */
    public SettableClock(Instant now) {
        this.now = now;
    }

    public void set(Instant other) {
        now = other;
    }

    public void advance(Duration by) {
        now = now.plus(by);
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return Clock.fixed(now, zone);
    }

    @Override
    public Instant instant() {
        return now;
    }
}
