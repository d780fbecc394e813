package sandpiper.engine.check;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.work.RecordState;
import sandpiper.model.definition.WhenUsed;

/** Looks whether others use a record that shall go. */
public final class RemovalChecks {
    private final RecordStorage records;
    private final Transaction transaction;

    public RemovalChecks(RecordStorage records, Transaction transaction) {
        this.records = records;
        this.transaction = transaction;
    }

    /**
     * Why a record that others use cannot be retired, or {@code null}.
     *
     * @param agreed whether whoever asks has said that it is meant
     */
    public Outcome.@Nullable Refused whyNotRetired(RecordState record, boolean agreed) {
        var object = record.object();
        if (object.whenUsed() == WhenUsed.FREE || (object.whenUsed() == WhenUsed.ASK && agreed)) {
            return null;
        }
        return whyNot(
                record,
                true,
                object.whenUsed() == WhenUsed.ASK
                        ? "; it is retired when you say that this is meant (Sandpiper-Confirm:"
                                + " in-use)."
                        : " and cannot be retired.");
    }

    /** Why a record that others use cannot be deleted for good, or {@code null}. */
    public Outcome.@Nullable Refused whyNotDeleted(RecordState record) {
        return whyNot(record, false, " and cannot be deleted.");
    }

    private Outcome.@Nullable Refused whyNot(RecordState record, boolean inUse, String end) {
        var object = record.object();
        return records.referrer(transaction, object, record.number(), inUse)
                .map(by ->
                        Outcome.Refused.because(
                                Outcome.Reason.CONFLICT,
                                RecordCode.IN_USE,
                                "This %s is used by %,d %s%s"
                                        .formatted(
                                                object.label(),
                                                by.count(),
                                                by.count() == 1
                                                        ? by.object().label()
                                                        : by.object().plural(),
                                                end)))
                .orElse(null);
    }
}
