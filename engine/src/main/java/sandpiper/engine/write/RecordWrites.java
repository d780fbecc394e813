package sandpiper.engine.write;

import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.StoredRecord;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.KeyText;
import sandpiper.logic.Quoted;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Removal;

/** Carries out one command in the writer's transaction. */
public final class RecordWrites {
    private final AnswerStorage answers;
    private final Clock clock;

    public RecordWrites(AnswerStorage answers, Clock clock) {
        this.answers = answers;
        this.clock = clock;
    }

    /** Carries out a command, or gives the answer of the same one done before. */
    public Outcome run(LiveRelease live, Transaction transaction, Request request) {
        var once = request.once();
        if (once == null) {
            return carryOut(live, transaction, request);
        }
        var actor = request.actor().name();
        var earlier = answers.find(transaction, actor, once.key());
        if (earlier.isPresent()) {
            return earlier.get().fingerprint().equals(once.fingerprint())
                    ? new Outcome.Repeated(earlier.get().text())
                    : Outcome.Refused.because(
                            Reason.CONFLICT,
                            RecordCode.REPEATED_DIFFERENTLY,
                            "This idempotency key was used for another request; use a new key for"
                                    + " each request.");
        }
        var outcome = carryOut(live, transaction, request);
        if (outcome instanceof Outcome.Done done) {
            var text = once.answer().make(transaction, done);
            answers.put(
                    transaction,
                    actor,
                    once.key(),
                    new AnswerStorage.StoredAnswer(once.fingerprint(), text),
                    clock.instant());
        }
        return outcome;
    }

    private Outcome carryOut(LiveRelease live, Transaction transaction, Request request) {
        var work = new Work(live, transaction, request, clock.instant());
        return switch (request.command()) {
            case RecordCommand.Create create ->
                    work.create(create.object(), create.writable(), create.values());
            case RecordCommand.Change change -> work.change(change);
            case RecordCommand.Save save -> work.save(save);
            case RecordCommand.Remove remove -> work.remove(remove);
            case RecordCommand.Restore restore -> work.restore(restore);
        };
    }

    /** One command at work. */
    private static final class Work {
        private final LiveRelease live;
        private final Transaction transaction;
        private final Request request;
        private final Instant now;
        private final UnitOfWork unit;

        Work(LiveRelease live, Transaction transaction, Request request, Instant now) {
            this.live = live;
            this.transaction = transaction;
            this.request = request;
            this.now = now;
            this.unit = new UnitOfWork(live, transaction, request, now);
        }

        Outcome create(
                ObjectType object, FieldTree writable, Map<String, @Nullable Object> values) {
            var input =
                    InputReader.read(live.release(), object, writable, values, request.textual());
            var record = unit.create(object);
            unit.apply(record, input);
            unit.fillDefaults(record, input);
            unit.check(record);
            return unit.finish(record);
        }

        Outcome change(RecordCommand.Change change) {
            var object = change.object();
            var found = unit.find(object, change.key());
            return found.isEmpty()
                    ? missing(object, change.key())
                    : change(
                            object,
                            change.writable(),
                            found.get().number(),
                            change.values(),
                            change.expectedVersion());
        }

        private Outcome change(
                ObjectType object,
                FieldTree writable,
                long number,
                Map<String, @Nullable Object> values,
                @Nullable Long expectedVersion) {
            var record = unit.load(object, number);
            var stale = stale(record, expectedVersion);
            if (stale != null) {
                return stale;
            }
            if (record.isRetired()) {
                return Outcome.Refused.because(
                        Reason.CONFLICT,
                        RecordCode.RETIRED_RECORD,
                        "This %s is retired; restore it before changing it."
                                .formatted(object.label()));
            }
            var input =
                    InputReader.read(live.release(), object, writable, values, request.textual());
            unit.apply(record, input);
            unit.fillDefaults(record, input);
            unit.check(record);
            return unit.finish(record);
        }

        Outcome save(RecordCommand.Save save) {
            var object = save.object();
            if (object.key().isEmpty()) {
                return Outcome.Refused.because(
                        Reason.INVALID,
                        RecordCode.KEY_MISSING,
                        "%s has no key, so its records cannot be saved by key."
                                .formatted(object.label()));
            }
            var among = InputReader.keyAmong(object, save.values());
            var key = save.key() == null ? among : save.key();
            if (key == null) {
                // Without the key it can only be a new record, whose faults then say what is
                // missing.
                return create(object, save.creatable(), save.values());
            }
            var found = unit.find(object, key);
            if (found.isPresent()) {
                var values = new HashMap<>(save.values());
                if (among != null && among.equals(key)) {
                    object.key().forEach(values::remove);
                }
                return change(
                        object,
                        save.changeable(),
                        found.get().number(),
                        values,
                        save.expectedVersion());
            }
            if (save.expectedVersion() != null) {
                return missing(object, key);
            }
            if (among != null && !among.equals(key)) {
                return new Outcome.Refused(
                        Reason.INVALID,
                        List.of(
                                new Fault(
                                        List.of(object.key().getFirst()),
                                        RecordCode.KEY_DIFFERS,
                                        "The key in the address is %s, but in the values %s; make them the same."
                                                .formatted(Quoted.of(key), Quoted.of(among)))));
            }
            return createWithKey(save, key);
        }

        private Outcome createWithKey(RecordCommand.Save save, String key) {
            var object = save.object();
            var parsed = KeyText.read(object, key);
            if (parsed.isEmpty()) {
                return Outcome.Refused.because(
                        Reason.INVALID,
                        RecordCode.BAD_KEY,
                        "%s is not a key of %s (%s)."
                                .formatted(
                                        Quoted.of(key),
                                        object.label(),
                                        String.join(", ", object.key())));
            }
            var values = new HashMap<>(save.values());
            var fields = object.keyFields();
            for (int i = 0; i < fields.size(); i++) {
                values.putIfAbsent(
                        fields.get(i).name(), fields.get(i).type().write(parsed.get().get(i)));
            }
            return create(object, save.creatable(), values);
        }

        Outcome remove(RecordCommand.Remove remove) {
            var object = remove.object();
            var found = unit.find(object, remove.key());
            if (found.isEmpty()) {
                return missing(object, remove.key());
            }
            if (object.removal() == Removal.NONE) {
                return Outcome.Refused.because(
                        Reason.CONFLICT,
                        RecordCode.NOT_REMOVABLE,
                        "%s are neither retired nor deleted.".formatted(object.plural()));
            }
            var record = unit.load(object, found.get().number());
            var stale = stale(record, remove.expectedVersion());
            if (stale != null) {
                return stale;
            }
            if (object.removal() == Removal.RETIRE) {
                record.retire(true);
                return unit.finish(record);
            }
            return delete(record, java.util.Objects.requireNonNull(record.stored()));
        }

        private Outcome delete(RecordState record, StoredRecord stored) {
            var referrer = live.records().referrer(transaction, record.object(), stored.number());
            if (referrer.isPresent()) {
                var by = referrer.get();
                return Outcome.Refused.because(
                        Reason.CONFLICT,
                        RecordCode.IN_USE,
                        "This %s is used by %,d %s and cannot be deleted."
                                .formatted(
                                        record.object().label(),
                                        by.count(),
                                        by.count() == 1
                                                ? by.object().label()
                                                : by.object().plural()));
            }
            return new Flush(live, transaction, request, now).delete(record, stored);
        }

        Outcome restore(RecordCommand.Restore restore) {
            var found = unit.find(restore.object(), restore.key());
            if (found.isEmpty()) {
                return missing(restore.object(), restore.key());
            }
            var record = unit.load(restore.object(), found.get().number());
            record.retire(false);
            return unit.finish(record);
        }

        private static Outcome missing(ObjectType object, String key) {
            return Outcome.Refused.because(
                    Reason.MISSING,
                    RecordCode.NO_SUCH_RECORD,
                    "There is no %s %s.".formatted(object.label(), Quoted.of(key)));
        }

        private static Outcome.@Nullable Refused stale(
                RecordState record, @Nullable Long expected) {
            var stored = java.util.Objects.requireNonNull(record.stored());
            if (expected == null || expected == stored.version()) {
                return null;
            }
            return Outcome.Refused.because(
                    Reason.STALE,
                    RecordCode.STALE,
                    "This %s was changed by %s in the meantime (version %d, not %d); read it again and repeat your change."
                            .formatted(
                                    record.object().label(),
                                    stored.changedBy(),
                                    stored.version(),
                                    expected));
        }
    }
}
