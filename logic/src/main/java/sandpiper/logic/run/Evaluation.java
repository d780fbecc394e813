package sandpiper.logic.run;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import sandpiper.logic.function.CallContext;
import sandpiper.logic.value.Nothing;

/**
 * One run of expressions, or of many on one request: its moment, where its records come from, what
 * it may still spend, and notes on what came to null. For one thread.
 */
public final class Evaluation implements CallContext {
    /** Small steps of work; a million cost some tens of milliseconds. */
    public static final int USUAL_BUDGET = 5_000_000;

    /** Items one list may have. */
    public static final int MOST_ITEMS = 1_000_000;

    /**
     * Time that what logic does may take, from its first act to the last; others wait for it. It is
     * time of a processor, so that nobody is refused because the machine is busy with something
     * else; all in all it may take {@value #PATIENCE} times as long.
     */
    public static final Duration LONGEST = Duration.ofSeconds(2);

    /** How many times longer something may take whose thread waits. */
    private static final int PATIENCE = 3;

    /** Characters one text may have. */
    public static final int LONGEST_TEXT = 1_000_000;

    /** Steps of what is worked out for a filter, before any record is looked at. */
    public static final int BUDGET_OF_FILTERS = 200_000;

    /** Characters that are made in the time of a step, and held in the memory of one. */
    private static final int CHARACTERS_A_STEP = 8;

    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();

    private static final int STEPS_BETWEEN_LOOKS = 10_000;
    private static final int DEEPEST = 100;
    private static final int MOST_NOTES = 20;

    private final Instant now;
    private final ZoneId zone;
    private final RecordSource records;
    private final List<String> notes = new ArrayList<>();
    private final int budget;
    private long left;
    private int depth;
    private long deadline = Long.MAX_VALUE;
    private long processorAtStart;
    private Duration longest = LONGEST;
    private int sinceLook;
    private Rates rates =
            (from, to, _) -> {
                note("There is no rate of %s in %s.".formatted(from, to));
                return Nothing.NULL;
            };

    public Evaluation(Instant now, ZoneId zone, RecordSource records) {
        this(now, zone, records, USUAL_BUDGET);
    }

    /**
     * The same with a budget of its own.
     *
     * @param budget steps it may take
     */
    public Evaluation(Instant now, ZoneId zone, RecordSource records, int budget) {
        this.budget = budget;
        this.left = budget;
        this.now = now;
        this.zone = zone;
        this.records = records;
    }

    @Override
    public Instant now() {
        return now;
    }

    @Override
    public ZoneId zone() {
        return zone;
    }

    RecordSource records() {
        return records;
    }

    /** Where exchange rates come from. */
    @FunctionalInterface
    public interface Rates {
        /** See {@link CallContext#rate}. */
        Object rate(String from, String to, LocalDate day);
    }

    /** Says where exchange rates come from; from nowhere before that. */
    public void rates(Rates source) {
        rates = source;
    }

    @Override
    public Object rate(String from, String to, LocalDate day) {
        return rates.rate(from, to, day);
    }

    @Override
    public void note(String message) {
        if (notes.size() < MOST_NOTES && !notes.contains(message)) {
            notes.add(message);
        }
    }

    /** Why something came to null, in the order in which it did; at most twenty. */
    public List<String> notes() {
        return notes;
    }

    @Override
    public void spend(int steps) {
        left -= steps;
        if (left < 0) {
            throw new BudgetException(
                    "This takes more than %,d steps and was stopped.".formatted(budget));
        }
        sinceLook += steps;
        if (deadline != Long.MAX_VALUE && sinceLook >= STEPS_BETWEEN_LOOKS) {
            lookAtClock();
        }
    }

    @Override
    public void spendText(long length) {
        if (length > LONGEST_TEXT) {
            throw new BudgetException(
                    "This makes a text of more than %,d characters and was stopped."
                            .formatted(LONGEST_TEXT));
        }
        spend((int) length / CHARACTERS_A_STEP);
    }

    /** Looks whether the time is over, after something that may take long without many steps. */
    public void lookAtClock() {
        sinceLook = 0;
        if (deadline != Long.MAX_VALUE && System.nanoTime() - deadline > 0 && isOver()) {
            throw new BudgetException(
                    "This takes longer than %,d milliseconds and was stopped."
                            .formatted(longest.toMillis()));
        }
    }

    /** Whether it has had its time, or waited for too long. */
    private boolean isOver() {
        long allowed = longest.toNanos();
        long waited = System.nanoTime() - deadline + allowed;
        return waited >= PATIENCE * allowed || processorTime() - processorAtStart >= allowed;
    }

    /** Nanoseconds of a processor that this thread has had; the time, where that is not known. */
    private static long processorTime() {
        return THREADS.isCurrentThreadCpuTimeSupported() && !Thread.currentThread().isVirtual()
                ? THREADS.getCurrentThreadCpuTime()
                : System.nanoTime();
    }

    /** Begins to bound the time of everything that runs from now on, unless that was begun. */
    public void startClock() {
        startClock(LONGEST);
    }

    /** The same with another bound. */
    public void startClock(Duration most) {
        if (deadline == Long.MAX_VALUE) {
            longest = most;
            deadline = System.nanoTime() + most.toNanos();
            processorAtStart = processorTime();
        }
    }

    /** Bounds the length of a list that is being made. */
    void checkItems(long count) {
        if (count > MOST_ITEMS) {
            throw new BudgetException(
                    "This makes a list of more than %,d items and was stopped."
                            .formatted(MOST_ITEMS));
        }
    }

    void enter() {
        if (++depth > DEEPEST) {
            throw new BudgetException(
                    "Functions call each other more than %d deep; this was stopped."
                            .formatted(DEEPEST));
        }
    }

    void leave() {
        depth--;
    }
}
