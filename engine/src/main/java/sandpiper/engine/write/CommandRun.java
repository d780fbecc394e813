package sandpiper.engine.write;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Expected;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Outcome.Reason;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.input.InputReader;
import sandpiper.engine.input.MergedValues;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.record.StoredRecord;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.work.RecordState;
import sandpiper.logic.Quoted;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.Removal;
import sandpiper.model.logic.CompiledFunction;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;

/** One command at work: finds its record and puts into the unit of work what is asked of it. */
public final class CommandRun {
    private final LiveRelease live;
    private final Request request;
    private final UnitOfWork unit;
    private final VersionCheck versions;
    private @Nullable RecordState record;
    private Outcome.@Nullable Result result;

    private final @Nullable CompiledFunction function;

    public CommandRun(LiveRelease live, Request request, UnitOfWork unit) {
        this(live, request, unit, null);
    }

    /** {@code function} is called in the place of the released one, unless it is {@code null}. */
    public CommandRun(
            LiveRelease live,
            Request request,
            UnitOfWork unit,
            @Nullable CompiledFunction function) {
        this.function = function;
        this.live = live;
        this.request = request;
        this.unit = unit;
        versions = new VersionCheck(request.versioned());
    }

    /** Does what can be done at once; {@code null} when the unit has to work on it. */
    public @Nullable Outcome prepared() {
        try {
            return prepare();
        } catch (BudgetException e) {
            unit.refuseTooMuch(e);
            return unit.faults().refusal();
        }
    }

    private @Nullable Outcome prepare() {
        return switch (request.command()) {
            case RecordCommand.Create create ->
                    create(
                            create.object(),
                            create.writable(),
                            create.values(),
                            create.presets(),
                            create.id());
            case RecordCommand.Change change -> change(change);
            case RecordCommand.Save save -> save(save);
            case RecordCommand.Transit transit -> transit(transit);
            case RecordCommand.Call call -> call(call);
            case RecordCommand.Remove remove -> remove(remove);
            case RecordCommand.Restore restore -> restore(restore);
        };
    }

    /** A record by its key, when the request can reach it. */
    private Optional<RecordStorage.Found> find(ObjectType object, String key) {
        return unit.workspace()
                .find(object, key)
                .filter(found -> isReached(object, found.number()));
    }

    private RecordState load(ObjectType object, long number) {
        return unit.workspace().record(object, number);
    }

    private boolean isReached(ObjectType object, long number) {
        return request.scope().conditions().isEmpty()
                || unit.workspace().isWithin(request.scope(), load(object, number));
    }

    /**
     * Why what has become of the record is not granted, or {@code null}, when all is worked out.
     */
    Outcome.@Nullable Refused beyond() {
        var made = record;
        return made == null ? null : new GrantedAfter(request.after()).beyond(unit, made);
    }

    /** A refusal as the one who asked may hear it. */
    Outcome.Refused told(Outcome.Refused refused) {
        var made = record;
        return made == null ? refused : new GrantedAfter(request.after()).told(refused, made);
    }

    private @Nullable Outcome create(
            ObjectType object,
            FieldTree writable,
            Map<String, @Nullable Object> values,
            Map<Field, DefaultValue> presets,
            @Nullable UUID id) {
        var input = InputReader.read(live.release(), object, writable, values, request.textual());
        var made =
                id == null ? unit.workspace().create(object) : unit.workspace().create(object, id);
        unit.input().preset(made, presets);
        begin(made);
        unit.input().apply(made, input);
        if (request.leave().whole() && isRetired(values)) {
            made.retire(true);
        }
        return null;
    }

    /** Whether exported values say that their record was out of use. */
    private static boolean isRetired(Map<String, @Nullable Object> values) {
        return Boolean.parseBoolean(String.valueOf(values.get("retired")));
    }

    private void begin(RecordState made) {
        record = made;
        unit.primary(made);
    }

    private @Nullable Outcome change(RecordCommand.Change change) {
        var object = change.object();
        var found = find(object, change.key());
        return found.isEmpty()
                ? missing(object, change.key())
                : change(
                        object,
                        change.writable(),
                        change.writable(),
                        found.get().number(),
                        change.values(),
                        true,
                        change.expected());
    }

    private @Nullable Outcome change(
            ObjectType object,
            FieldTree named,
            FieldTree changeable,
            long number,
            Map<String, @Nullable Object> values,
            boolean merges,
            @Nullable Expected expected) {
        var there = load(object, number);
        // Data from elsewhere that comes once more finds retired what it says is retired.
        boolean staysRetired = request.leave().whole() && there.isRetired() && isRetired(values);
        var refusal =
                staysRetired ? versions.stale(there, expected) : versions.refusal(there, expected);
        if (refusal != null) {
            return refusal;
        }
        var input =
                InputReader.read(
                        live.release(),
                        object,
                        named,
                        merges ? MergedValues.of(there, values) : values,
                        request.textual());
        begin(there);
        unit.input().apply(there, input.changing(changeable));
        return null;
    }

    private @Nullable Outcome save(RecordCommand.Save save) {
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
            // Without the key it can only be a new record, whose faults then say what is missing.
            return create(object, save.creatable(), save.values(), save.presets(), null);
        }
        var found = find(object, key);
        if (found.isPresent()) {
            var values = new HashMap<>(save.values());
            if (among != null && among.equals(key)) {
                object.key().forEach(values::remove);
            }
            return change(
                    object,
                    // What it was made with may be said again, so that a repeated request is right.
                    save.changeable().and(save.creatable()),
                    save.changeable(),
                    found.get().number(),
                    values,
                    // A row of a file has the columns it has.
                    save.merges() || request.textual(),
                    save.expected());
        }
        if (save.expected() instanceof Expected.There
                || save.expected() instanceof Expected.Versions) {
            return Outcome.Refused.because(
                    Reason.STALE,
                    RecordCode.NO_SUCH_RECORD,
                    "There is no %s %s yet; nothing was done."
                            .formatted(object.label(), Quoted.of(key)));
        }
        if (among != null && !among.equals(key)) {
            return new Outcome.Refused(
                    Reason.INVALID,
                    List.of(
                            new Fault(
                                    FaultPath.of(object.key().getFirst()),
                                    RecordCode.KEY_DIFFERS,
                                    "The key in the address is %s, but in the values %s; make them the same."
                                            .formatted(Quoted.of(key), Quoted.of(among)))));
        }
        return createWithKey(save, key);
    }

    private @Nullable Outcome createWithKey(RecordCommand.Save save, String key) {
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
        return create(object, save.creatable(), values, save.presets(), null);
    }

    private @Nullable Outcome transit(RecordCommand.Transit transit) {
        var object = transit.object();
        var found = find(object, transit.key());
        if (found.isEmpty()) {
            return missing(object, transit.key());
        }
        var there = load(object, found.get().number());
        var refusal = versions.refusal(there, transit.expected());
        if (refusal != null) {
            return refusal;
        }
        begin(there);
        unit.lifecycles().take(there, transit.transition());
        return null;
    }

    private @Nullable Outcome call(RecordCommand.Call call) {
        var object = call.object();
        var key = call.key();
        RecordState on = null;
        if (key != null) {
            var found = find(object, key);
            if (found.isEmpty()) {
                return missing(object, key);
            }
            on = load(object, found.get().number());
            var refusal = versions.refusal(on, call.expected());
            if (refusal != null) {
                return refusal;
            }
            begin(on);
        }
        var tried = function;
        result =
                new CallRun(live, request, unit)
                        .run(
                                call,
                                on,
                                tried == null
                                        ? live.logic().of(object).function(call.function())
                                        : tried);
        return null;
    }

    /** What a function gave back, or {@code null} when it gives nothing back. */
    public Outcome.@Nullable Result result() {
        return result;
    }

    /** The record it is about; {@code null} when it is about none, or is not prepared yet. */
    public @Nullable RecordState about() {
        return record;
    }

    /** The answer to what was done, after it is stored. */
    Outcome.Success done() {
        var about = record;
        return about == null
                ? new Outcome.Returned(
                        request.command().object(), unit.faults().warnings(), null, result)
                : unit.done(about).giving(result);
    }

    private @Nullable Outcome remove(RecordCommand.Remove remove) {
        var object = remove.object();
        var found = find(object, remove.key());
        if (found.isEmpty()) {
            return missing(object, remove.key());
        }
        if (object.removal() == Removal.NONE) {
            return Outcome.Refused.because(
                    Reason.CONFLICT,
                    RecordCode.NOT_REMOVABLE,
                    "%s are neither retired nor deleted.".formatted(object.plural()));
        }
        var there = load(object, found.get().number());
        var stale = versions.stale(there, remove.expected());
        if (stale != null) {
            return stale;
        }
        if (object.removal() == Removal.RETIRE && !there.isRetired()) {
            var used = unit.removal().whyNotRetired(there, request.leave().used());
            if (used != null) {
                return used;
            }
        }
        begin(there);
        there.retire(true);
        return object.removal() == Removal.RETIRE
                ? null
                : delete(there, Objects.requireNonNull(there.stored()));
    }

    /** Totals take leave of a record as if it were retired, and then it goes for good. */
    private Outcome delete(RecordState there, StoredRecord stored) {
        var used = unit.removal().whyNotDeleted(there);
        if (used != null) {
            return used;
        }
        unit.work();
        var refused = unit.faults().refusal();
        return refused != null ? refused : unit.delete(there, stored);
    }

    private @Nullable Outcome restore(RecordCommand.Restore restore) {
        var found = find(restore.object(), restore.key());
        if (found.isEmpty()) {
            return missing(restore.object(), restore.key());
        }
        var there = load(restore.object(), found.get().number());
        begin(there);
        there.retire(false);
        return null;
    }

    private static Outcome missing(ObjectType object, String key) {
        return Outcome.Refused.because(
                Reason.MISSING,
                RecordCode.NO_SUCH_RECORD,
                "There is no %s %s.".formatted(object.label(), Quoted.of(key)));
    }
}
