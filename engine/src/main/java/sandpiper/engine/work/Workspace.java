package sandpiper.engine.work;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Span;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.condition.Selection;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.Frame;
import sandpiper.logic.run.RecordSource;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Nothing;
import sandpiper.model.logic.Formula;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.AskedLanguages;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;

/**
 * The records one request has looked at, each once: whoever asks for a record gets the same one, so
 * that nothing is overwritten by a stale copy. Reads what is not at hand from the store; what was
 * changed meanwhile is put there first, so that both agree.
 */
public final class Workspace implements RecordSource {
    /** Records one request may look at. */
    private static final int MOST_RECORDS = 50_000;

    private final LiveRelease live;
    private final Session session;
    private final Stage stage;
    private final Instant now;
    private final String by;
    private final Map<String, Map<Long, RecordState>> records = new HashMap<>();
    private final TouchedRecords touched;
    private final Evaluation evaluation;
    private int loaded;

    public Workspace(
            LiveRelease live,
            Session session,
            Instant now,
            String by,
            ZoneId zone,
            TouchedRecords touched,
            Stage stage) {
        this.live = live;
        this.session = session;
        this.now = now;
        this.by = by;
        this.touched = touched;
        this.stage = stage;
        this.evaluation = new Evaluation(now, zone, this);
    }

    /** One in which nothing is changed. */
    public static Workspace forReading(
            LiveRelease live, Session session, Instant now, ZoneId zone) {
        return new Workspace(live, session, now, "", zone, new TouchedRecords(), Stage.NONE);
    }

    public Release release() {
        return live.release();
    }

    public ReleaseLogic logic() {
        return live.logic();
    }

    public Instant now() {
        return now;
    }

    public String by() {
        return by;
    }

    public Evaluation evaluation() {
        return evaluation;
    }

    /** Runs what is about a record or line item and nothing else. */
    public Object run(Code code, Row row) {
        return switch (row) {
            case RecordState record -> code.run(record.logic(this), evaluation);
            case ItemState item -> code.run(frame(code, item));
        };
    }

    /** A frame about a record or line item. */
    public Frame frame(Code code, Row row) {
        var frame = code.frame(evaluation);
        frame.set(NameContext.THIS, row.logic(this));
        if (row instanceof ItemState item) {
            frame.set(NameContext.OWNER, item.record().logic(this));
        }
        return frame;
    }

    /** A frame about a change: the record as it was stands beside it. */
    public void addChange(Frame frame, RecordState state) {
        frame.set(NameContext.OLD, old(state));
        frame.set(NameContext.IS_NEW, state.isNew());
    }

    LogicRecord old(RecordState state) {
        var before = state.slots().before();
        return new LogicRecord(
                this,
                state,
                before == null ? new @Nullable Object[state.object().fields().size()] : before);
    }

    /** The record with a number. */
    public RecordState record(ObjectType object, long number) {
        var ofObject = records.computeIfAbsent(object.name(), _ -> new HashMap<>());
        var there = ofObject.get(number);
        if (there == null) {
            count();
            there =
                    new RecordState(
                            object, live.records().load(session, object, number).orElseThrow());
            ofObject.put(number, there);
        }
        return there;
    }

    /** A new record that is part of the work. */
    public RecordState create(ObjectType object) {
        return create(object, WorkIds.next());
    }

    /** The same with an id that was given out before, see {@link WorkIds}. */
    public RecordState create(ObjectType object, UUID id) {
        var record = new RecordState(object, id);
        count();
        touched.add(record);
        return record;
    }

    /** A record by its natural key or public id, in use or retired. */
    public Optional<RecordStorage.Found> find(ObjectType object, String key) {
        return RecordFinder.find(live.records(), session, object, key);
    }

    /** Says which records will be looked for by their keys; what is found is the same without. */
    public void expect(Map<ObjectType, ? extends Collection<String>> keys) {
        var read = new LinkedHashMap<ObjectType, List<List<Object>>>();
        keys.forEach((object, texts) ->
                read.put(
                        object,
                        texts.stream()
                                .map(text -> KeyText.read(object, text))
                                .flatMap(Optional::stream)
                                .toList()));
        live.records().expect(session, read);
    }

    /** The record a key stands for in a reference, as logic sees it; null when there is none. */
    public Object referenced(Field field, String key) {
        var object = release().target(field);
        return find(object, key)
                .<Object>map(found -> record(object, found.number()).logic(this))
                .orElse(Nothing.NULL);
    }

    /** Whether a record meets all conditions of a scope. */
    public boolean isWithin(RecordScope scope, RecordState record) {
        return scope.conditions().stream()
                .map(text -> logic().condition(record.object(), text).code())
                .allMatch(code -> run(code, record) == Boolean.TRUE);
    }

    /** Counts a record that is looked at or made. */
    private void count() {
        if (++loaded > MOST_RECORDS) {
            throw new BudgetException(
                    "This looks at more than %,d records and was stopped.".formatted(MOST_RECORDS));
        }
        evaluation.lookAtClock();
    }

    /** Records that were changed, or may have been. */
    public TouchedRecords touched() {
        return touched;
    }

    public void touch(RecordState record) {
        touched.add(record);
    }

    /** The value of a field as logic sees it. */
    public Object value(ObjectType object, Field field, @Nullable Object stored) {
        if (stored != null && field.type() instanceof FieldType.Reference reference) {
            return record(release().target(reference), (Long) stored).logic(this);
        }
        return Codec.toLogic(field.type(), stored, object.zone());
    }

    /**
     * The value of a field that is worked out on read, as it would be stored: rounded, and {@code
     * null} when the field cannot hold it.
     */
    public @Nullable Object workedOut(Row row, Field field) {
        var code = formulaOf(row, field).code();
        // A derived value is the same whoever asks.
        var value = AskedLanguages.MAIN.in(() -> code.run(frame(code, row)));
        return value != Nothing.NULL
                        && Codec.toStored(
                                        field.type(),
                                        value,
                                        row.object().zone(),
                                        row.object().rounding())
                                instanceof ParsedValue.Taken(var stored)
                ? stored
                : null;
    }

    private Formula formulaOf(Row row, Field field) {
        return logic().of(row.object()).formulas().stream()
                .filter(one -> one.field().name().equals(field.name()) && row.isIn(one.part()))
                .findFirst()
                .orElseThrow();
    }

    /** The records that refer to one by a reference. */
    Object related(RecordState state, ModelMember.Related related) {
        return select(
                new Selection(
                        release().recordType(related.from()),
                        state.logic(this),
                        List.of(related.field().name()),
                        null));
    }

    @Override
    public List<Object> select(Selection selection) {
        var object = ((ObjectRecordType) selection.records()).object();
        var condition = condition(selection);
        if (condition == null && selection.owner() != null) {
            return List.of();
        }
        settle();
        evaluation.lookAtClock();
        int bound = MOST_RECORDS - loaded + 1;
        var numbers =
                live.records()
                        .numbers(
                                session,
                                object,
                                condition,
                                selection.order(),
                                selection.most() < 0 ? bound : Math.min(bound, selection.most()));
        var found = new ArrayList<Object>(numbers.size());
        numbers.forEach(number -> found.add(record(object, number).logic(this)));
        return found;
    }

    /** The condition with the way to the owner; {@code null} for all or when there is no owner. */
    private @Nullable Condition condition(Selection selection) {
        var owner = selection.owner();
        if (owner == null) {
            return selection.condition();
        }
        // Nothing can refer to a record that is in no table yet.
        if (owner instanceof LogicRecord record && record.state().number() < 0) {
            return null;
        }
        var link =
                new Condition.Compare(
                        new Operand.Field(
                                selection.path(),
                                new LogicType.RecordOf(selection.records()),
                                new Span(0, 0)),
                        Operator.EQUAL,
                        new Operand.Value(owner, new LogicType.RecordOf(selection.records())));
        var rest = selection.condition();
        return rest == null ? link : new Condition.All(List.of(link, rest));
    }

    @Override
    public Object total(Selection selection, Selection.Total total) {
        var object = ((ObjectRecordType) selection.records()).object();
        var condition = condition(selection);
        if (condition == null && selection.owner() != null) {
            return Nothing.NULL;
        }
        settle();
        var stored =
                live.records().total(session, object, condition, total.function(), total.value());
        if (total.function().equals("count")) {
            return sandpiper.logic.value.Decimal.of((Long) Objects.requireNonNull(stored));
        }
        var last = field(object, total.value());
        return Codec.toLogic(last.type(), stored, object.zone());
    }

    private Field field(ObjectType from, List<String> path) {
        return FieldPath.resolve(release(), from, path).orElseThrow().last();
    }

    /** Puts everything that was changed into the tables, so that they can be asked. */
    public void settle() {
        stage.together(() -> touched.now().forEach(this::push));
    }

    private void push(RecordState record) {
        evaluation.lookAtClock();
        boolean fresh = record.number() < 0;
        stage.push(record);
        if (fresh) {
            records.computeIfAbsent(record.object().name(), _ -> new HashMap<>())
                    .put(record.number(), record);
        }
    }

    /** The number of a record in the tables, which it gets now when it has none yet. */
    public long numberOf(RecordState record) {
        if (record.number() < 0) {
            push(record);
        }
        return record.number();
    }

    public RecordStorage storage() {
        return live.records();
    }

    public Session session() {
        return session;
    }
}
