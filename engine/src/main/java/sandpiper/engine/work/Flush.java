package sandpiper.engine.work;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.record.StoredRecord;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.Field;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.type.FieldType;

/**
 * Puts what a unit of work has changed into the tables, and nothing else. {@link #push} does so
 * while the work goes on, so that the store can be asked; {@link #finish} ends it, with history.
 */
public final class Flush {
    private final LiveRelease live;
    private final RecordStorage records;
    private final HistoryStorage history;
    private final Transaction transaction;
    private final Origin origin;
    private final Instant now;

    public Flush(LiveRelease live, Transaction transaction, Origin origin, Instant now) {
        this.live = live;
        this.records = live.records();
        this.history = live.history();
        this.transaction = transaction;
        this.origin = origin;
        this.now = now;
    }

    /** Makes the tables agree with a record. */
    public void push(RecordState record) {
        write(record, version(record));
    }

    private static long version(RecordState record) {
        var stored = record.stored();
        return stored == null ? 1 : stored.version();
    }

    private void write(RecordState record, long version) {
        var written = record.written();
        if (written == null) {
            insert(record);
            return;
        }
        var changed = record.slots().differing(written);
        boolean headChanges =
                version != version(record)
                        || record.writtenRetired() != record.isRetired()
                        || !changed.isEmpty();
        if (headChanges) {
            records.update(transaction, record.object(), head(record, version), changed);
        }
        record.object().parts().forEach(part -> writeItems(record, part));
        record.wrote(record.number());
    }

    private StoredRecord head(RecordState record, long version) {
        var stored = record.stored();
        var by = origin.actor().name();
        boolean byHand = version != version(record) || stored == null;
        return new StoredRecord(
                record.number(),
                record.id(),
                version,
                record.isRetired(),
                stored == null ? now : stored.createdAt(),
                stored == null ? by : stored.createdBy(),
                byHand || stored == null ? now : stored.changedAt(),
                byHand || stored == null ? by : stored.changedBy(),
                record.slots().values(),
                List.of());
    }

    private void insert(RecordState record) {
        var items = new ArrayList<List<StoredRecord.StoredItem>>();
        for (var part : record.object().parts()) {
            var ofPart = new ArrayList<StoredRecord.StoredItem>();
            var lines = lines(record.items(part));
            for (int i = 0; i < lines.length; i++) {
                ofPart.add(
                        new StoredRecord.StoredItem(
                                lines[i], record.items(part).get(i).slots().values()));
            }
            items.add(ofPart);
        }
        var head = head(record, 1);
        long number =
                records.insert(
                        transaction,
                        record.object(),
                        new StoredRecord(
                                -1,
                                record.id(),
                                1,
                                record.isRetired(),
                                now,
                                head.createdBy(),
                                now,
                                head.createdBy(),
                                record.slots().values(),
                                items));
        for (var part : record.object().parts()) {
            var ofPart = record.items(part);
            var lines = lines(ofPart);
            for (int i = 0; i < lines.length; i++) {
                ofPart.get(i).wrote(lines[i], i);
            }
        }
        record.wrote(number);
    }

    /** The numbers of new lines: those they came with, and further ones for the rest. */
    private static long[] lines(List<ItemState> items) {
        long last = items.stream().mapToLong(ItemState::line).max().orElse(0);
        var lines = new long[items.size()];
        for (int i = 0; i < lines.length; i++) {
            lines[i] = items.get(i).line() > 0 ? items.get(i).line() : ++last;
        }
        return lines;
    }

    private void writeItems(RecordState record, Part part) {
        var object = record.object();
        for (var gone : record.removed(part)) {
            if (gone.writtenPosition() >= 0) {
                records.deleteItem(transaction, object, part, record.number(), gone.line());
                gone.foundAt(-1);
            }
        }
        long last = -1;
        var now = record.items(part);
        for (int i = 0; i < now.size(); i++) {
            var item = now.get(i);
            var written = item.written();
            if (written == null) {
                last =
                        last < 0
                                ? records.lastLine(transaction, object, part, record.number())
                                : last;
                long line = item.line() > 0 ? item.line() : ++last;
                last = Math.max(last, line);
                records.insertItem(
                        transaction,
                        object,
                        part,
                        record.number(),
                        new StoredRecord.StoredItem(line, item.slots().values()),
                        i);
                item.wrote(line, i);
                continue;
            }
            var changed = item.slots().differing(written);
            if (item.writtenPosition() != i || !changed.isEmpty()) {
                records.updateItem(
                        transaction,
                        object,
                        part,
                        record.number(),
                        new StoredRecord.StoredItem(item.line(), item.slots().values()),
                        i,
                        changed);
                item.wrote(item.line(), i);
            }
        }
    }

    /** Stores a record for good, with its history when somebody changed it. */
    public Outcome.Done finish(RecordState record) {
        var stored = record.stored();
        if (!record.isChangedByHand()) {
            write(record, version(record));
            return done(record, version(record), false);
        }
        long version = stored == null ? 1 : stored.version() + 1;
        write(record, version);
        remember(record, version, operation(record), changes(record));
        return done(record, version, stored == null);
    }

    private static Outcome.Done done(RecordState record, long version, boolean created) {
        return new Outcome.Done(
                record.object(),
                record.number(),
                record.id(),
                version,
                created,
                List.of(),
                null,
                null);
    }

    /** What happened to a record, in a word. */
    public static String operation(RecordState record) {
        if (record.isNew()) {
            return "created";
        }
        if (!record.isRetirementChanged()) {
            return "changed";
        }
        return record.isRetired() ? "retired" : "restored";
    }

    /** What of a record is another than when the work began. */
    public List<HistoryStorage.ValueChange> changes(RecordState record) {
        var changes = new ArrayList<>(changes("", record.slots()));
        for (var part : record.object().parts()) {
            for (var gone : record.removed(part)) {
                for (var field : part.fields()) {
                    var before = text(field, gone.slots().before(field));
                    if (before != null) {
                        changes.add(
                                new HistoryStorage.ValueChange(
                                        prefix(part, gone.line()) + field.name(), before, null));
                    }
                }
            }
            for (var item : record.items(part)) {
                changes.addAll(changes(prefix(part, item.line()), item.slots()));
            }
        }
        return changes;
    }

    private static String prefix(Part part, long line) {
        return "%s[%d].".formatted(part.name(), line);
    }

    /** What was changed; what formulas work out follows from it and is left out. */
    private List<HistoryStorage.ValueChange> changes(String prefix, Slots slots) {
        var changes = new ArrayList<HistoryStorage.ValueChange>();
        for (var field : slots.changed()) {
            if (!field.isDerived()) {
                changes.add(
                        new HistoryStorage.ValueChange(
                                prefix + field.name(),
                                text(field, slots.before(field)),
                                text(field, slots.get(field))));
            }
        }
        return changes;
    }

    private @Nullable String text(Field field, @Nullable Object value) {
        if (value == null) {
            return null;
        }
        if (field.type() instanceof FieldType.Reference reference) {
            var target = live.release().target(reference);
            return linkText(target, (Long) value);
        }
        return Objects.toString(field.type().writeText(value));
    }

    private String linkText(ObjectType target, long number) {
        return records.keyOf(transaction, target, number)
                .map(key -> KeyText.write(target, key))
                .orElse("");
    }

    /** Removes a record for good, with its line items. */
    public Outcome.Done delete(RecordState record, StoredRecord stored) {
        records.delete(transaction, record.object(), stored.number());
        remember(record, stored.version() + 1, "deleted", List.of());
        return done(record, stored.version() + 1, false);
    }

    private void remember(
            RecordState record,
            long version,
            String operation,
            List<HistoryStorage.ValueChange> changes) {
        history.add(
                transaction,
                new HistoryStorage.Entry(
                        record.object().name(),
                        record.id(),
                        version,
                        now,
                        origin.actor().name(),
                        origin.via(),
                        operation,
                        changes));
    }
}
