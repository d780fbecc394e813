package sandpiper.engine.write;

import com.fasterxml.uuid.Generators;
import com.fasterxml.uuid.NoArgGenerator;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.value.Nothing;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Standard;
import sandpiper.model.release.WhenUsed;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.TemporalType;

/**
 * All that one request changes, kept back until it is known to be right.
 *
 * <p>The order is that of a write: what was asked is applied ({@link InputApplier}), empty fields
 * get their defaults, numbers and what chosen records give ({@link Fills}); formulas are worked
 * out, here and wherever else something depends on what changed ({@link Derivation}); rules react
 * until nothing changes any more ({@link RuleRunner}); then everything that must hold is looked at,
 * all of it ({@link Structure}, {@link Guards}); and only then is anything stored for good ({@link
 * Flush}).
 */
final class UnitOfWork implements Workspace.Settler {
    /** Version 7 of RFC 9562: in the order of creation, so that their index grows at its end. */
    private static final NoArgGenerator IDS = Generators.timeBasedEpochGenerator();

    private static final int NUMBERING_TRIES = 10_000;

    private final LiveRelease live;
    private final Transaction transaction;
    private final Instant now;
    private final Tracer tracer;
    private final Workspace workspace;
    private final Flush flush;
    private final Derivation derivation;
    private final RuleRunner rules;
    private final Guards guards;
    private final Fills fills;
    private final Lifecycles lifecycles;
    private final FunctionRun functions;
    private final Raised raised;
    private final HandlerRun handlers;
    private final WithinHandlers within;
    private final EventWriter eventWriter;
    private final Origin origin;
    private final Structure structure;
    private final Reach reach;
    private final InputApplier applier;
    private final Set<RecordState> primaries = new LinkedHashSet<>();
    private final Map<RecordState, String> numbered = new HashMap<>();
    private final List<Said> faults = new ArrayList<>();
    private final List<Fault> warnings = new ArrayList<>();

    /** A fault with the record it is about, {@code null} for the request as a whole. */
    private record Said(@Nullable RecordState record, Fault fault) {}

    UnitOfWork(
            LiveRelease live,
            Transaction transaction,
            Origin origin,
            Outbox outbox,
            Instant now,
            Tracer tracer) {
        this.live = live;
        this.transaction = transaction;
        this.now = now;
        this.tracer = tracer;
        this.workspace =
                new Workspace(live, transaction, now, origin.actor().name(), origin.zone(), this);
        this.flush = new Flush(live, transaction, origin, now);
        this.eventWriter =
                new EventWriter(
                        live, outbox.events(), outbox.listeners(), transaction, origin, now);
        this.derivation = new Derivation(workspace, tracer);
        this.rules = new RuleRunner(this, workspace, tracer, outbox.pulse());
        this.guards = new Guards(this, workspace, tracer);
        this.fills = new Fills(workspace);
        this.lifecycles = new Lifecycles(this, tracer);
        this.functions = new FunctionRun(this, workspace, tracer);
        this.structure = new Structure(this, workspace);
        this.reach = new Reach(this, live.release(), origin.actor());
        this.applier = new InputApplier(this, workspace, origin);
        this.raised = new Raised(this, workspace, tracer);
        this.handlers = new HandlerRun(this, workspace);
        this.within = new WithinHandlers(this, workspace, tracer);
        this.origin = origin;
    }

    Workspace workspace() {
        return workspace;
    }

    Derivation derivation() {
        return derivation;
    }

    Guards guards() {
        return guards;
    }

    Fills fills() {
        return fills;
    }

    Lifecycles lifecycles() {
        return lifecycles;
    }

    FunctionRun functions() {
        return functions;
    }

    Raised raised() {
        return raised;
    }

    HandlerRun handlers() {
        return handlers;
    }

    EventWriter eventWriter() {
        return eventWriter;
    }

    /** Who wants it. */
    Actor actor() {
        return origin.actor();
    }

    /** A public id for something new. */
    static UUID newId() {
        return IDS.generate();
    }

    /** Whether a record meets all conditions of a scope. */
    boolean isWithin(RecordScope scope, RecordState state) {
        return scope.conditions().stream()
                .map(text -> workspace.logic().condition(state.object(), text).code())
                .allMatch(code -> workspace.run(code, state) == Boolean.TRUE);
    }

    /** A new record that is part of the work. */
    RecordState create(ObjectType object) {
        var record = new RecordState(object, IDS.generate());
        workspace.count();
        workspace.touch(record);
        return record;
    }

    /** The number of a record by its natural key or public id, in use or retired. */
    Optional<RecordStorage.Found> find(ObjectType object, String key) {
        return RecordFinder.find(live.records(), transaction, object, key);
    }

    /** Whether the one who asks can choose a record in a reference. */
    boolean isChoosable(ObjectType object, long number) {
        return reach.includes(object, number);
    }

    /** The record a key stands for in a reference, as logic sees it; null when there is none. */
    Object referenced(Field field, String key) {
        var object = live.release().target((FieldType.Reference) field.type());
        return find(object, key)
                .<Object>map(found -> workspace.record(object, found.number()).logic(workspace))
                .orElse(Nothing.NULL);
    }

    RecordState load(ObjectType object, long number) {
        return workspace.record(object, number);
    }

    /** Makes a record one that was asked for: faults about it need not say which it is. */
    void primary(RecordState record) {
        primaries.add(record);
        workspace.touch(record);
    }

    boolean isPrimary(RecordState record) {
        return primaries.contains(record);
    }

    void touch(RecordState record) {
        workspace.touch(record);
    }

    /** Puts what a request says into a record, with everything that follows from it at once. */
    void apply(RecordState record, RecordInput input) {
        applier.apply(record, input);
        fillDefaults(record, input);
        fills.fill(record.object(), record.slots(), names(input.values()));
        input.parts()
                .forEach((part, items) -> {
                    var states = record.items(part);
                    for (int i = 0; i < states.size() && i < items.size(); i++) {
                        fills.fill(
                                record.object(),
                                states.get(i).slots(),
                                names(items.get(i).values()));
                    }
                });
        if (record.isNew() && faults.isEmpty()) {
            number(record);
        }
        if (tracer.isOn()) {
            for (var field : record.slots().changed()) {
                tracer.step(
                        TraceStep.Kind.INPUT,
                        field.name(),
                        "",
                        String.valueOf(record.logic(workspace).read(field.name())));
            }
        }
    }

    /** Fields that were given a value; one that was left empty may still be filled. */
    private static List<String> names(Map<Field, Given> values) {
        return values.entrySet().stream()
                .filter(given -> !(given.getValue() instanceof Given.Empty))
                .map(given -> given.getKey().name())
                .toList();
    }

    /**
     * Fills what is empty in a new record or item and has a default. Fields that were emptied on
     * purpose stay empty.
     */
    private void fillDefaults(RecordState record, RecordInput input) {
        if (record.isNew()) {
            fillDefaults(record.object(), record.slots(), input.values());
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

    /** Gives a new record or item of a rule its defaults. */
    void defaults(ObjectType object, Slots slots) {
        fillDefaults(object, slots, Map.of());
    }

    private void fillDefaults(ObjectType object, Slots slots, Map<Field, Given> given) {
        for (var field : slots.fields()) {
            var standard = field.standard();
            if (standard != null
                    && slots.get(field) == null
                    && !(given.get(field) instanceof Given.Empty)) {
                slots.set(field, value(object, standard));
            }
        }
    }

    private Object value(ObjectType object, Standard standard) {
        return switch (standard) {
            case Standard.Fixed(var value, _) -> value;
            case Standard.Today _ -> today(object).toEpochDay();
            case Standard.Now _ -> TemporalType.micros(now);
        };
    }

    /** Gives a new record what the way it comes in says it has. */
    void preset(RecordState record, Map<Field, Standard> presets) {
        presets.forEach(
                (field, standard) -> record.slots().set(field, value(record.object(), standard)));
    }

    private LocalDate today(ObjectType object) {
        return LocalDate.ofInstant(now, object.zone());
    }

    private void number(RecordState record) {
        var object = record.object();
        var numbering = object.numbering();
        if (numbering == null) {
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
                            day,
                            live.records()
                                    .nextInSeries(transaction, object, numbering.series(day)));
            if (live.records()
                    .another(transaction, object, List.of(field), List.of(number), -1)
                    .isEmpty()) {
                record.slots().set(field, number);
                numbered.put(record, number);
                return;
            }
        }
        throw new IllegalStateException("No free number in " + numbering.written());
    }

    /** Makes a record that a rule created whole, and gives it its number in the tables. */
    void completeNew(RecordState record) {
        defaults(record.object(), record.slots());
        fills.fill(record.object(), record.slots(), filled(record));
        number(record);
        numberOf(record);
    }

    /**
     * Why a record that others use cannot be retired, or {@code null}.
     *
     * @param agreed whether whoever asks has said that it is meant
     */
    Outcome.@Nullable Refused used(RecordState record, boolean agreed) {
        var object = record.object();
        if (object.whenUsed() == WhenUsed.FREE || (object.whenUsed() == WhenUsed.ASK && agreed)) {
            return null;
        }
        return live.records()
                .referrer(transaction, object, record.number(), true)
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
                                                object.whenUsed() == WhenUsed.ASK
                                                        ? "; it is retired when you say that this"
                                                                + " is meant (Sandpiper-Confirm:"
                                                                + " in-use)."
                                                        : " and cannot be retired.")))
                .orElse(null);
    }

    /** Whether the key of a record is a number that was found to be free in this work. */
    boolean isKeyFree(RecordState record) {
        var numbering = record.object().numbering();
        if (numbering == null || !record.object().key().equals(List.of(numbering.field()))) {
            return false;
        }
        // A rule may have put something else there since.
        var given = numbered.get(record);
        var field = record.object().fields().get(numbering.field());
        return given != null && given.equals(record.slots().get(field));
    }

    private static List<String> filled(RecordState record) {
        return record.slots().changed().stream().map(Field::name).toList();
    }

    /**
     * Works out formulas and lets rules react until nothing changes, then looks at what must hold.
     */
    void work() {
        try {
            applier.tie();
            derivation.run();
            primaries.forEach(guards::checkOffers);
            // Rules are not asked about what could not even be read.
            while (faults.isEmpty() && react()) {
                derivation.run();
            }
            if (tracer.isOn()) {
                rules.tellIdle();
            }
            derivation.faults().forEach(this::refuse);
            check();
        } catch (BudgetException e) {
            refuse(new Fault(List.of(), RecordCode.TOO_MUCH, e.said()));
        } catch (WorkStoppedException _) {
            tracer.step(TraceStep.Kind.REFUSED, "The work was stopped", "", "");
        }
    }

    /** Lets rules and handlers that are part of the work react; tells whether any did. */
    private boolean react() {
        boolean ruled = rules.run();
        boolean handled = within.run();
        return ruled || handled;
    }

    private void check() {
        structure.gathered(() -> {
            for (var record : List.copyOf(workspace.touched())) {
                if (record.isChangedByHand() || isPrimary(record)) {
                    structure.check(record);
                }
            }
        });
        for (var record : List.copyOf(workspace.touched())) {
            workspace.evaluation().lookAtClock();
            if (record.isChanged() || !lifecycles.taken(record).isEmpty()) {
                guards.check(record);
            }
        }
    }

    /** Puts everything that was changed into the tables, so that they can be asked. */
    @Override
    public void settle() {
        structure.gathered(() -> List.copyOf(workspace.touched()).forEach(this::push));
    }

    private void push(RecordState record) {
        workspace.evaluation().lookAtClock();
        structure.checkDistinct(record);
        if (!faults.isEmpty()) {
            throw new WorkStoppedException();
        }
        boolean fresh = record.number() < 0;
        flush.push(record);
        if (fresh) {
            workspace.add(record);
        }
    }

    @Override
    public long numberOf(RecordState record) {
        if (record.number() < 0) {
            push(record);
        }
        return record.number();
    }

    boolean isStopped() {
        return !faults.isEmpty();
    }

    /** Takes a fault that is about the request as a whole. */
    void refuse(Fault fault) {
        faults.add(new Said(primaries.isEmpty() ? null : primaries.iterator().next(), fault));
    }

    void add(RecordState record, Fault fault) {
        faults.add(new Said(record, placed(record, fault)));
    }

    void warn(Fault warning) {
        if (!warnings.contains(warning)) {
            warnings.add(warning);
        }
    }

    /** A fault about a field of some record. */
    Fault about(RecordState record, List<String> at, RecordCode code, String message) {
        return placed(record, new Fault(new ArrayList<Object>(at), code, message));
    }

    /** A fault about another record than the one asked for says which it is. */
    Fault placed(RecordState record, Fault fault) {
        if (isPrimary(record)) {
            return fault;
        }
        return new Fault(
                List.of(),
                fault.code(),
                "%s %s: %s"
                        .formatted(
                                record.object().label(),
                                workspace.written(record),
                                fault.message()));
    }

    boolean isFaulty(RecordState record, String field) {
        return isFaulty(record, List.of(field));
    }

    boolean isFaulty(RecordState record, List<?> path) {
        return faults.stream()
                .anyMatch(said -> said.record() == record && said.fault().path().equals(path));
    }

    List<Fault> faults() {
        return faults.stream().map(Said::fault).distinct().toList();
    }

    /** Faults about one of the records that were asked for. */
    List<Fault> faultsOf(RecordState record) {
        return faults.stream()
                .filter(said -> said.record() == record)
                .map(Said::fault)
                .distinct()
                .toList();
    }

    List<Fault> warnings() {
        return warnings;
    }

    /** The refusal that the faults make, or {@code null} when there are none. */
    Outcome.@Nullable Refused refusal() {
        return faults.isEmpty() ? null : refusal(faults());
    }

    static Outcome.Refused refusal(List<Fault> faults) {
        boolean taken =
                faults.stream()
                        .allMatch(fault ->
                                fault.code() == RecordCode.DUPLICATE_KEY
                                        || fault.code() == RecordCode.NOT_UNIQUE
                                        || fault.code() == RecordCode.WRONG_STATE);
        return new Outcome.Refused(
                taken ? Outcome.Reason.CONFLICT : Outcome.Reason.INVALID, faults);
    }

    /** Stores everything for good; only when there are no faults. */
    void store() {
        eventWriter.emitted(raised.all(), workspace);
        for (var record : workspace.touched()) {
            workspace.evaluation().lookAtClock();
            if (record.isChanged() || record.number() < 0) {
                var done = flush.finish(record);
                if (record.isChangedByHand() || record.isNew()) {
                    eventWriter.changed(
                            record,
                            done.version(),
                            workspace.written(record),
                            lifecycles.taken(record));
                }
            } else if (record.isWrittenOnTheWay()) {
                // It is again what it was, but the tables have what it was in between.
                flush.push(record);
            }
        }
    }

    /**
     * Stores everything for good; a refusal when that takes more than it may, else {@code null}.
     */
    Outcome.@Nullable Refused stored() {
        try {
            store();
            return null;
        } catch (BudgetException e) {
            refuse(new Fault(List.of(), RecordCode.TOO_MUCH, e.said()));
            return refusal(faults());
        }
    }

    /** The answer about one of the records that were asked for, after {@link #store}. */
    Outcome.Done done(RecordState record) {
        var stored = record.stored();
        long version =
                stored == null
                        ? 1
                        : record.isChangedByHand() ? stored.version() + 1 : stored.version();
        return new Outcome.Done(
                record.object(),
                record.number(),
                record.id(),
                version,
                stored == null,
                warnings,
                null,
                null);
    }

    Flush flush() {
        return flush;
    }
}
