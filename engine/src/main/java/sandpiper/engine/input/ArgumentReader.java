package sandpiper.engine.input;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.work.Reach;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Nothing;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.ValueCode;

/**
 * Reads what a caller gives for the parameters of a function, as values of the language. All faults
 * are found, each with its place.
 */
public final class ArgumentReader {
    /** Values of one list. */
    private static final int MOST_ITEMS = 10_000;

    private final Workspace workspace;
    private final Reach reach;
    private final ObjectType object;
    private final boolean textual;
    private final List<Fault> faults = new ArrayList<>();

    /** {@code object} has the function; in its zone dates are meant. */
    public ArgumentReader(Workspace workspace, Reach reach, ObjectType object, boolean textual) {
        this.workspace = workspace;
        this.reach = reach;
        this.object = object;
        this.textual = textual;
    }

    /** What is wrong with what was read so far. */
    public List<Fault> faults() {
        return faults;
    }

    /** One value for each parameter, in their order. */
    public List<Object> read(
            String function, ValueType.Group parameters, Map<String, @Nullable Object> given) {
        return new ArrayList<>(entries(function, parameters, given, FaultPath.WHOLE).values());
    }

    private Map<String, Object> entries(
            String owner,
            ValueType.Group group,
            Map<String, @Nullable Object> given,
            FaultPath at) {
        for (var name : given.keySet()) {
            if (group.entry(name).isEmpty()) {
                unknown(owner, name, group, at);
            }
        }
        var values = new LinkedHashMap<String, Object>();
        for (var parameter : group.entries()) {
            var path = at.then(parameter.name());
            var plain = given.get(parameter.name());
            boolean isEmpty =
                    plain == null
                            || (parameter.type() instanceof ValueType.Single(var field)
                                    && InputReader.isBlank(field.type(), plain, textual));
            var value = isEmpty ? Nothing.NULL : value(parameter, plain, path);
            if (isEmpty && parameter.required()) {
                faults.add(
                        new Fault(path, RecordCode.REQUIRED, parameter.label() + " is required."));
            }
            values.put(parameter.name(), value);
        }
        return values;
    }

    private void unknown(String owner, String name, ValueType.Group group, FaultPath at) {
        var names = group.names();
        var hint =
                Nearest.to(name, names)
                        .map(near -> " Did you mean " + near + "?")
                        .orElse(
                                names.isEmpty()
                                        ? " It takes nothing."
                                        : " It takes " + String.join(", ", names) + ".");
        faults.add(
                new Fault(
                        at.then(name),
                        RecordCode.UNKNOWN_FIELD,
                        "%s takes no %s.%s".formatted(owner, Quoted.of(name), hint)));
    }

    private Object value(Parameter parameter, @Nullable Object plain, FaultPath path) {
        return value(parameter.label(), parameter.type(), plain, path);
    }

    private Object value(String label, ValueType type, @Nullable Object plain, FaultPath path) {
        return switch (type) {
            case ValueType.Single(var field) -> single(field, plain, path);
            case ValueType.Many(var item) -> many(label, item, plain, path);
            case ValueType.Group group -> {
                if (plain instanceof Map<?, ?> map) {
                    var entries = new LinkedHashMap<String, @Nullable Object>();
                    map.forEach((key, one) -> entries.put(String.valueOf(key), one));
                    yield new Context(entries(label, group, entries, path));
                }
                yield wrong(
                        path,
                        "%s must be an object with %s."
                                .formatted(label, String.join(", ", group.names())));
            }
        };
    }

    private Object many(String label, ValueType item, @Nullable Object plain, FaultPath path) {
        if (!(plain instanceof List<?> list)) {
            return wrong(path, "%s must be a list.".formatted(label));
        }
        if (list.size() > MOST_ITEMS) {
            return wrong(
                    path,
                    "%s may have %,d values, but has %,d."
                            .formatted(label, MOST_ITEMS, list.size()));
        }
        var values = new ArrayList<Object>();
        for (int i = 0; i < list.size(); i++) {
            values.add(value(label, item, list.get(i), path.then(i)));
        }
        return values;
    }

    private Object single(Field field, @Nullable Object plain, FaultPath path) {
        var given = InputReader.value(workspace.release(), field, plain, textual, path, faults);
        return switch (given) {
            case null -> Nothing.NULL;
            case InputValue.Empty _ -> Nothing.NULL;
            case InputValue.Value(var stored) -> Codec.toLogic(field.type(), stored, object.zone());
            case InputValue.Target(var key) -> target(field, key, path);
        };
    }

    private Object target(Field field, String key, FaultPath path) {
        var of = workspace.release().target(field);
        var found = workspace.find(of, key);
        if (found.isEmpty() || !reach.includes(of, found.get().number())) {
            faults.add(
                    new Fault(
                            path,
                            RecordCode.UNKNOWN_RECORD,
                            "%s: there is no %s %s."
                                    .formatted(field.label(), of.label(), Quoted.of(key))));
            return Nothing.NULL;
        }
        return workspace.record(of, found.get().number()).logic(workspace);
    }

    private Object wrong(FaultPath path, String message) {
        faults.add(new Fault(path, ValueCode.WRONG_TYPE, message));
        return Nothing.NULL;
    }
}
