package sandpiper.engine.write;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.StoredRecord;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.KeyText;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.type.FieldType;

/** Stores what a unit of work has changed, and nothing else, with its history. */
final class Flush {
    private final LiveRelease live;
    private final RecordStorage records;
    private final HistoryStorage history;
    private final Transaction transaction;
    private final Request request;
    private final Instant now;

    Flush(LiveRelease live, Transaction transaction, Request request, Instant now) {
        this.live = live;
        this.records = live.records();
        this.history = live.history();
        this.transaction = transaction;
        this.request = request;
        this.now = now;
    }

    Outcome.Done store(RecordState record) {
        var stored = record.stored();
        if (stored == null) {
            return insert(record);
        }
        if (!record.isChanged()) {
            return new Outcome.Done(
                    record.object(), stored.number(), stored.id(), stored.version(), false);
        }
        return update(record, stored);
    }

    private Outcome.Done insert(RecordState record) {
        var items = new ArrayList<List<StoredRecord.StoredItem>>();
        for (var part : record.object().parts()) {
            var ofPart = new ArrayList<StoredRecord.StoredItem>();
            for (var item : record.items(part)) {
                ofPart.add(new StoredRecord.StoredItem(ofPart.size() + 1L, item.slots().values()));
            }
            items.add(ofPart);
        }
        var by = request.actor().name();
        long number =
                records.insert(
                        transaction,
                        record.object(),
                        new StoredRecord(
                                -1,
                                record.id(),
                                1,
                                false,
                                now,
                                by,
                                now,
                                by,
                                record.slots().values(),
                                items));
        var changes = changes("", record.slots());
        for (var part : record.object().parts()) {
            for (int i = 0; i < record.items(part).size(); i++) {
                changes.addAll(changes(prefix(part, i + 1L), record.items(part).get(i).slots()));
            }
        }
        remember(record, 1, "created", changes);
        return new Outcome.Done(record.object(), number, record.id(), 1, true);
    }

    private Outcome.Done update(RecordState record, StoredRecord stored) {
        long version = stored.version() + 1;
        var head =
                new StoredRecord(
                        stored.number(),
                        stored.id(),
                        version,
                        record.isRetired(),
                        stored.createdAt(),
                        stored.createdBy(),
                        now,
                        request.actor().name(),
                        record.slots().values(),
                        List.of());
        records.update(transaction, record.object(), head, record.slots().changed());
        var changes = changes("", record.slots());
        record.object().parts().forEach(part -> changes.addAll(updateItems(record, stored, part)));
        var operation =
                stored.retired() == record.isRetired()
                        ? "changed"
                        : record.isRetired() ? "retired" : "restored";
        remember(record, version, operation, changes);
        return new Outcome.Done(record.object(), stored.number(), stored.id(), version, false);
    }

    private List<HistoryStorage.ValueChange> updateItems(
            RecordState record, StoredRecord stored, Part part) {
        var object = record.object();
        var changes = new ArrayList<HistoryStorage.ValueChange>();
        for (var gone : record.removed(part)) {
            records.deleteItem(transaction, object, part, stored.number(), gone.line());
            for (var field : part.fields()) {
                var before = text(field, gone.slots().before(field));
                if (before != null) {
                    changes.add(
                            new HistoryStorage.ValueChange(
                                    prefix(part, gone.line()) + field.name(), before, null));
                }
            }
        }
        long last = -1;
        var then = stored.items().get(part.index());
        var now = record.items(part);
        for (int i = 0; i < now.size(); i++) {
            var item = now.get(i);
            boolean moved = i >= then.size() || then.get(i).line() != item.line();
            if (item.slots().isNew()) {
                last =
                        last < 0
                                ? records.lastLine(transaction, object, part, stored.number())
                                : last;
                last++;
                records.insertItem(
                        transaction,
                        object,
                        part,
                        stored.number(),
                        new StoredRecord.StoredItem(last, item.slots().values()),
                        i);
                changes.addAll(changes(prefix(part, last), item.slots()));
            } else if (moved || !item.slots().changed().isEmpty()) {
                records.updateItem(
                        transaction,
                        object,
                        part,
                        stored.number(),
                        new StoredRecord.StoredItem(item.line(), item.slots().values()),
                        i,
                        item.slots().changed());
                changes.addAll(changes(prefix(part, item.line()), item.slots()));
            }
        }
        return changes;
    }

    private static String prefix(Part part, long line) {
        return "%s[%d].".formatted(part.name(), line);
    }

    private List<HistoryStorage.ValueChange> changes(String prefix, Slots slots) {
        var changes = new ArrayList<HistoryStorage.ValueChange>();
        for (var field : slots.changed()) {
            changes.add(
                    new HistoryStorage.ValueChange(
                            prefix + field.name(),
                            text(field, slots.before(field)),
                            text(field, slots.get(field))));
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
    Outcome.Done delete(RecordState record, StoredRecord stored) {
        records.delete(transaction, record.object(), stored.number());
        remember(record, stored.version() + 1, "deleted", List.of());
        return new Outcome.Done(
                record.object(), stored.number(), stored.id(), stored.version() + 1, false);
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
                        request.actor().name(),
                        request.via(),
                        operation,
                        changes));
    }
}
