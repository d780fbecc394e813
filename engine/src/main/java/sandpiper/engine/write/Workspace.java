package sandpiper.engine.write;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.logic.Span;
import sandpiper.logic.check.Setting;
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
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.AskedLanguages;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.Intake;

/**
 * The records one request has looked at, each once: whoever asks for a record gets the same one, so
 * that nothing is overwritten by a stale copy. Reads what is not at hand from the store; what was
 * changed meanwhile is put there first, so that both agree.
 */
final class Workspace implements RecordSource {
    /** Records one request may look at. */
    private static final int MOST_RECORDS = 50_000;

    private final LiveRelease live;
    private final Session session;
    private final Settler settler;
    private final Instant now;
    private final String by;
    private final Map<String, Map<Long, RecordState>> records = new HashMap<>();
    private final Set<RecordState> touched = new LinkedHashSet<>();
    private final Map<String, Set<RecordState>> touchedByObject = new HashMap<>();
    private final Evaluation evaluation;
    private int loaded;

    /** Puts changes into the tables before they are asked. */
    interface Settler {
        void settle();

        /** The number of a record that may be new. */
        long numberOf(RecordState state);
    }

    Workspace(
            LiveRelease live,
            Session session,
            Instant now,
            String by,
            ZoneId zone,
            @Nullable Settler settler) {
        this.live = live;
        this.session = session;
        this.now = now;
        this.by = by;
        this.settler = settler == null ? new Nobody() : settler;
        this.evaluation = new Evaluation(now, zone, this);
    }

    /** Where nothing is changed. */
    private static final class Nobody implements Settler {
        @Override
        public void settle() {
            // nothing to put anywhere
        }

        @Override
        public long numberOf(RecordState state) {
            return state.number();
        }
    }

    Release release() {
        return live.release();
    }

    ReleaseLogic logic() {
        return live.logic();
    }

    Instant now() {
        return now;
    }

    String by() {
        return by;
    }

    Evaluation evaluation() {
        return evaluation;
    }

    /** Runs what is about a record and nothing else. */
    Object run(Code code, RecordState state) {
        return code.run(state.logic(this), evaluation);
    }

    /** A frame about a record. */
    Frame frame(Code code, RecordState state) {
        var frame = code.frame(evaluation);
        frame.set(Setting.THIS, state.logic(this));
        return frame;
    }

    /** A frame about a line item. */
    Frame frame(Code code, ItemState item) {
        var frame = code.frame(evaluation);
        frame.set(Setting.THIS, item.logic(this));
        frame.set(Setting.OWNER, item.record().logic(this));
        return frame;
    }

    /** A frame about a change: the record as it was stands beside it. */
    void addChange(Frame frame, RecordState state) {
        frame.set(Setting.OLD, old(state));
        frame.set(Setting.IS_NEW, state.isNew());
    }

    LogicRecord old(RecordState state) {
        var before = state.slots().before();
        return new LogicRecord(
                this,
                state,
                before == null ? new @Nullable Object[state.object().fields().size()] : before);
    }

    /** The record with a number. */
    RecordState record(ObjectType object, long number) {
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

    /** Counts a record that is looked at or made. */
    void count() {
        if (++loaded > MOST_RECORDS) {
            throw new BudgetException(
                    "This looks at more than %,d records and was stopped.".formatted(MOST_RECORDS));
        }
        evaluation.lookAtClock();
    }

    /** Takes in a record that got its number just now. */
    void add(RecordState state) {
        records.computeIfAbsent(state.object().name(), _ -> new HashMap<>())
                .put(state.number(), state);
    }

    /** Records that were changed, or may have been, in the order in which they were. */
    Set<RecordState> touched() {
        return touched;
    }

    /** Those of one object. */
    Collection<RecordState> touched(String object) {
        return touchedByObject.getOrDefault(object, Set.of());
    }

    void touch(RecordState state) {
        if (touched.add(state)) {
            touchedByObject
                    .computeIfAbsent(state.object().name(), _ -> new LinkedHashSet<>())
                    .add(state);
        }
    }

    /** Leaves a record out that is deleted, so that it is not stored. */
    void untouch(RecordState state) {
        touched.remove(state);
        touchedByObject.getOrDefault(state.object().name(), new LinkedHashSet<>()).remove(state);
    }

    /** The value of a field as logic sees it. */
    Object value(ObjectType object, Field field, @Nullable Object stored) {
        if (stored != null && field.type() instanceof FieldType.Reference reference) {
            return record(release().target(reference), (Long) stored).logic(this);
        }
        return Codec.toLogic(field.type(), stored, object.zone());
    }

    /**
     * The value of a field that is worked out on read, as it would be stored: rounded, and {@code
     * null} when the field cannot hold it.
     */
    @Nullable Object workedOut(RecordState state, @Nullable ItemState item, Field field) {
        var code = formulaOf(state.object(), item, field).code();
        // A derived value is the same whoever asks.
        var value =
                AskedLanguages.MAIN.in(
                        () -> code.run(item == null ? frame(code, state) : frame(code, item)));
        return value != Nothing.NULL
                        && Codec.toStored(
                                        field.type(),
                                        value,
                                        state.object().zone(),
                                        state.object().rounding())
                                instanceof Intake.Taken(var stored)
                ? stored
                : null;
    }

    private Formula formulaOf(ObjectType object, @Nullable ItemState item, Field field) {
        var part = item == null ? null : item.part();
        return logic().of(object).formulas().stream()
                .filter(one -> one.field().name().equals(field.name()))
                .filter(one -> Objects.equals(name(one.part()), name(part)))
                .findFirst()
                .orElseThrow();
    }

    private static @Nullable String name(sandpiper.model.release.@Nullable Part part) {
        return part == null ? null : part.name();
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
        settler.settle();
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
        settler.settle();
        var stored =
                live.records().total(session, object, condition, total.function(), total.value());
        if (total.function().equals("count")) {
            return sandpiper.logic.value.Decimal.of((Long) Objects.requireNonNull(stored));
        }
        var last = field(object, total.value());
        return Codec.toLogic(last.type(), stored, object.zone());
    }

    private Field field(ObjectType from, List<String> path) {
        var at = from;
        Field field = null;
        for (var name : path) {
            field = at.fields().get(name);
            if (field.type() instanceof FieldType.Reference reference) {
                at = release().target(reference);
            }
        }
        return Objects.requireNonNull(field);
    }

    /** The key of a record as text. */
    String written(RecordState state) {
        var key = new ArrayList<@Nullable Object>();
        for (var field : state.object().keyFields()) {
            key.add(state.slots().get(field));
        }
        return key.isEmpty() || key.stream().anyMatch(Objects::isNull)
                ? state.id().toString()
                : KeyText.write(state.object(), key);
    }

    /** Puts what was changed into the tables. */
    void settle() {
        settler.settle();
    }

    long numberOf(RecordState state) {
        return settler.numberOf(state);
    }

    RecordStorage storage() {
        return live.records();
    }

    Session session() {
        return session;
    }
}
