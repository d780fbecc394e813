package sandpiper.engine.write;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.KeyText;
import sandpiper.engine.read.RecordFinder;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Standard;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.TemporalType;

/**
 * All that one command changes, kept back until it is known to be right.
 *
 * <p>The order is that of a write: what was asked is applied; empty fields get their defaults and
 * numbers; formulas and rules have their place here, between applying and checking; then everything
 * that must hold is checked, all of it; and only then is anything stored.
 */
final class UnitOfWork {
    /** Version 7 of RFC 9562: in the order of creation, so that their index grows at its end. */
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    private static final int NUMBERING_TRIES = 10_000;

    private final LiveRelease live;
    private final RecordStorage records;
    private final Transaction transaction;
    private final Request request;
    private final Instant now;
    private final List<Fault> faults = new ArrayList<>();
    private final Map<String, Long> linked = new HashMap<>();

    UnitOfWork(LiveRelease live, Transaction transaction, Request request, Instant now) {
        this.live = live;
        this.records = live.records();
        this.transaction = transaction;
        this.request = request;
        this.now = now;
    }

    RecordState create(ObjectType object) {
        return new RecordState(object, IDS.generate());
    }

    /** The number of a record by its natural key or public id, in use or retired. */
    Optional<RecordStorage.Found> find(ObjectType object, String key) {
        return RecordFinder.find(records, transaction, object, key);
    }

    RecordState load(ObjectType object, long number) {
        return new RecordState(object, records.load(transaction, object, number).orElseThrow());
    }

    /** Puts what a request says into a record; what cannot be done becomes a fault. */
    void apply(RecordState record, RecordInput input) {
        faults.addAll(input.faults());
        apply(record.slots(), input.values(), List.of());
        input.parts().forEach((part, items) -> applyItems(record, part, items));
    }

    private void apply(Slots slots, Map<Field, Given> values, List<Object> at) {
        values.forEach((field, given) -> {
            switch (given) {
                case Given.Value(var stored) -> slots.set(field, stored);
                case Given.Empty _ -> slots.set(field, null);
                case Given.Target(var key) -> link(slots, field, key, at);
            }
        });
    }

    private void link(Slots slots, Field field, String key, List<Object> at) {
        var target = live.release().target((FieldType.Reference) field.type());
        var known = linked.get(target.name() + '\0' + key);
        if (known != null) {
            slots.set(field, known);
            return;
        }
        var found = find(target, key);
        if (found.isEmpty()) {
            fault(
                    at,
                    field,
                    RecordCode.UNKNOWN_RECORD,
                    "%s: there is no %s %s."
                            .formatted(field.label(), target.label(), Quoted.of(key)));
        } else if (found.get().retired()
                && !Long.valueOf(found.get().number()).equals(slots.before(field))) {
            fault(
                    at,
                    field,
                    RecordCode.RETIRED_RECORD,
                    "%s: %s %s is retired and cannot be chosen."
                            .formatted(field.label(), target.label(), Quoted.of(key)));
        } else {
            linked.put(target.name() + '\0' + key, found.get().number());
            slots.set(field, found.get().number());
        }
    }

    /**
     * Items that name their line change it; when none does, they change those in the same place.
     * Others are new.
     */
    private void applyItems(RecordState record, Part part, List<RecordInput.Item> items) {
        var there = record.items(part);
        boolean byPlace = items.stream().allMatch(item -> item.line() == null);
        var result = new ArrayList<RecordState.ItemState>();
        for (int i = 0; i < items.size(); i++) {
            var item = items.get(i);
            var state =
                    byPlace
                            ? (i < there.size() ? there.get(i) : null)
                            : there.stream()
                                    .filter(one -> item.line() != null && one.line() == item.line())
                                    .findFirst()
                                    .orElse(null);
            var path = List.<Object>of(part.name(), i);
            if (state == null && item.line() != null) {
                var lines = there.stream().map(one -> String.valueOf(one.line())).toList();
                faults.add(
                        new Fault(
                                List.of(part.name(), i, "line"),
                                RecordCode.UNKNOWN_LINE,
                                "%s has no line %d; there is %s."
                                        .formatted(
                                                part.label(),
                                                item.line(),
                                                lines.isEmpty()
                                                        ? "none yet"
                                                        : String.join(", ", lines))));
                continue;
            }
            if (state != null && result.contains(state)) {
                faults.add(
                        new Fault(
                                List.of(part.name(), i, "line"),
                                RecordCode.UNKNOWN_LINE,
                                "Line %d stands here twice.".formatted(state.line())));
                continue;
            }
            if (state == null) {
                state = new RecordState.ItemState(0, new Slots(part.fields()));
            }
            apply(state.slots(), item.values(), path);
            result.add(state);
        }
        record.replaceItems(part, result);
    }

    /**
     * Fills what is empty in a new record or item and has a default. Fields that were emptied on
     * purpose stay empty.
     */
    void fillDefaults(RecordState record, RecordInput input) {
        if (record.stored() == null) {
            fillDefaults(record.object(), record.slots(), input.values());
            number(record);
        }
        input.parts()
                .forEach((part, items) -> {
                    var states = record.items(part);
                    for (int i = 0; i < states.size() && i < items.size(); i++) {
                        if (states.get(i).slots().isNew()) {
                            fillDefaults(
                                    record.object(), states.get(i).slots(), items.get(i).values());
                        }
                    }
                });
    }

    private void fillDefaults(ObjectType object, Slots slots, Map<Field, Given> given) {
        for (var field : slots.fields()) {
            var standard = field.standard();
            if (standard != null
                    && slots.get(field) == null
                    && !(given.get(field) instanceof Given.Empty)) {
                slots.set(
                        field,
                        switch (standard) {
                            case Standard.Fixed(var value, _) -> value;
                            case Standard.Today _ -> today(object).toEpochDay();
                            case Standard.Now _ -> TemporalType.micros(now);
                        });
            }
        }
    }

    private LocalDate today(ObjectType object) {
        return LocalDate.ofInstant(now, object.zone());
    }

    private void number(RecordState record) {
        var object = record.object();
        var numbering = object.numbering();
        if (numbering == null || !faults.isEmpty()) {
            return;
        }
        var field = object.fields().get(numbering.field());
        if (record.slots().get(field) != null) {
            return;
        }
        var day = today(object);
        // Records that came with numbers of their own may have used some of the series already.
        for (int i = 0; i < NUMBERING_TRIES; i++) {
            var number =
                    numbering.number(
                            day, records.nextInSeries(transaction, object, numbering.series(day)));
            if (records.another(transaction, object, List.of(field), List.of(number), -1)
                    .isEmpty()) {
                record.slots().set(field, number);
                return;
            }
        }
        throw new IllegalStateException("No free number in " + numbering.written());
    }

    /** Checks everything that must hold before a record is stored. */
    void check(RecordState record) {
        var object = record.object();
        for (var field : object.fields()) {
            boolean keyField = object.key().contains(field.name());
            boolean numberedLater = object.isNumbered(field) && record.stored() == null;
            if ((field.required() || keyField) && !numberedLater) {
                checkRequired(record.slots(), field, List.of());
            }
            if (field.unique() && !(keyField && object.key().size() == 1)) {
                checkUnique(record, field);
            }
        }
        checkKey(record);
        for (var part : object.parts()) {
            for (int i = 0; i < record.items(part).size(); i++) {
                for (var field : part.fields()) {
                    if (field.required()) {
                        checkRequired(
                                record.items(part).get(i).slots(), field, List.of(part.name(), i));
                    }
                }
            }
        }
    }

    private void checkRequired(Slots slots, Field field, List<Object> at) {
        var path = new ArrayList<>(at);
        path.add(field.name());
        boolean reported = faults.stream().anyMatch(fault -> fault.path().equals(path));
        if (slots.get(field) == null && !reported) {
            fault(at, field, RecordCode.REQUIRED, "%s is required.".formatted(field.label()));
        }
    }

    private void checkUnique(RecordState record, Field field) {
        var value = record.slots().get(field);
        if (value != null
                && record.slots().isChanged(field)
                && records.another(
                                transaction,
                                record.object(),
                                List.of(field),
                                List.of(value),
                                numberOf(record))
                        .isPresent()) {
            fault(
                    List.of(),
                    field,
                    RecordCode.NOT_UNIQUE,
                    "%s %s is taken by another %s."
                            .formatted(
                                    field.label(),
                                    Quoted.of(field.type().writeText(value)),
                                    record.object().label()));
        }
    }

    private void checkKey(RecordState record) {
        var key = record.object().keyFields();
        var values = new ArrayList<>();
        boolean changed = false;
        for (var field : key) {
            var value = record.slots().get(field);
            if (value == null) {
                return;
            }
            changed |= record.slots().isChanged(field);
            values.add(value);
        }
        if (changed
                && records.another(transaction, record.object(), key, values, numberOf(record))
                        .isPresent()) {
            fault(
                    List.of(),
                    key.getFirst(),
                    RecordCode.DUPLICATE_KEY,
                    "There is %s %s already."
                            .formatted(
                                    Names.withArticle(record.object().label()),
                                    Quoted.of(KeyText.write(record.object(), values))));
        }
    }

    private static long numberOf(RecordState record) {
        var stored = record.stored();
        return stored == null ? -1 : stored.number();
    }

    private void fault(List<Object> at, Field field, RecordCode code, String message) {
        var path = new ArrayList<>(at);
        path.add(field.name());
        faults.add(new Fault(path, code, message));
    }

    /** Stores a record when nothing is wrong with it; tells what is, otherwise. */
    Outcome finish(RecordState record) {
        if (!faults.isEmpty()) {
            boolean taken =
                    faults.stream()
                            .allMatch(fault ->
                                    fault.code() == RecordCode.DUPLICATE_KEY
                                            || fault.code() == RecordCode.NOT_UNIQUE);
            return new Outcome.Refused(
                    taken ? Outcome.Reason.CONFLICT : Outcome.Reason.INVALID, faults);
        }
        return new Flush(live, transaction, request, now).store(record);
    }
}
