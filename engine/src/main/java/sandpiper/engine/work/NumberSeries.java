package sandpiper.engine.work;

import java.time.Instant;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Transaction;

/** Gives new records the next number of their series. */
public final class NumberSeries {
    /** Numbers of a series that may be in use one after the other. */
    private static final int MOST_TRIES = 10_000;

    private final RecordStorage records;
    private final Transaction transaction;
    private final Instant now;
    private final Map<RecordState, String> given = new HashMap<>();

    public NumberSeries(RecordStorage records, Transaction transaction, Instant now) {
        this.records = records;
        this.transaction = transaction;
        this.now = now;
    }

    /**
     * Gives a record its number, when its object has a series and nobody gave it one.
     *
     * @throws IllegalStateException when the next ten thousand numbers are in use
     */
    public void number(RecordState record) {
        var object = record.object();
        var numbering = object.numbering();
        if (numbering == null) {
            return;
        }
        var field = object.fields().get(numbering.field());
        if (record.slots().get(field) != null) {
            return;
        }
        var day = LocalDate.ofInstant(now, object.zone());
        // Records that came with numbers of their own may have used some of the series already.
        for (int i = 0; i < MOST_TRIES; i++) {
            var number =
                    numbering.number(
                            day, records.nextInSeries(transaction, object, numbering.series(day)));
            if (!records.isTaken(transaction, object, field, number)) {
                record.slots().set(field, number);
                given.put(record, number);
                return;
            }
        }
        throw new IllegalStateException("No free number in " + numbering.written());
    }

    /** Whether the key of a record is a number that was found to be free in this work. */
    public boolean isKeyFree(RecordState record) {
        var numbering = record.object().numbering();
        if (numbering == null || !record.object().key().equals(List.of(numbering.field()))) {
            return false;
        }
        // A rule may have put something else there since.
        var number = given.get(record);
        var field = record.object().fields().get(numbering.field());
        return number != null && number.equals(record.slots().get(field));
    }
}
