package sandpiper.engine.input;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.read.PlainRecords;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Fields;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.Localised;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.type.ValueCode;

/**
 * Reads values in plain form against the fields that may be written. All faults are found, each
 * with its place.
 */
public final class InputReader {
    /** Line items of one record in one request. */
    private static final int MOST_ITEMS = 1_000;

    private static final String LINE = "line";

    private final Release release;
    private final boolean textual;
    private final List<Fault> faults = new ArrayList<>();

    private InputReader(Release release, boolean textual) {
        this.release = release;
        this.textual = textual;
    }

    /**
     * Reads what a request says of a record.
     *
     * @param textual whether values may come as text whatever their type
     */
    public static RecordInput read(
            Release release,
            ObjectType object,
            FieldTree writable,
            Map<String, @Nullable Object> values,
            boolean textual) {
        var reader = new InputReader(release, textual);
        var parts = new LinkedHashMap<Part, List<RecordInput.Item>>();
        var heads = new LinkedHashMap<String, @Nullable Object>();
        for (var entry : values.entrySet()) {
            var tree = writable.part(entry.getKey());
            if (tree.isPresent()) {
                var part = tree.get();
                parts.put(part.part(), reader.items(part, entry.getValue()));
            } else {
                heads.put(entry.getKey(), entry.getValue());
            }
        }
        var partNames = writable.parts().stream().map(part -> part.part().name()).toList();
        var read =
                reader.fields(
                        object.name(),
                        object.fields(),
                        writable.paths(),
                        partNames,
                        heads,
                        FaultPath.WHOLE);
        return new RecordInput(read, parts, reader.faults, writable);
    }

    /**
     * Reads one value as a field takes it.
     *
     * @param faults take what is wrong with it
     * @return {@code null} when it could not be read
     */
    static @Nullable InputValue value(
            Release release,
            Field field,
            @Nullable Object plain,
            boolean textual,
            FaultPath path,
            List<Fault> faults) {
        var reader = new InputReader(release, textual);
        var given = reader.field(field, plain, path);
        faults.addAll(reader.faults);
        return given;
    }

    private Map<Field, InputValue> fields(
            String owner,
            Fields all,
            List<FieldPath> writable,
            List<String> partNames,
            Map<String, @Nullable Object> values,
            FaultPath at) {
        var read = new LinkedHashMap<Field, InputValue>();
        for (var entry : values.entrySet()) {
            var name = entry.getKey();
            var path = at.then(name);
            var field = all.find(name).orElse(null);
            boolean allowed =
                    field != null
                            && writable.stream()
                                    .anyMatch(one -> one.last().index() == field.index());
            if (field != null && allowed) {
                var given = field(field, entry.getValue(), path);
                if (given != null) {
                    read.put(field, given);
                }
            } else if (field != null) {
                fault(
                        path,
                        RecordCode.NOT_WRITABLE,
                        "%s cannot be written here.".formatted(field.label()));
            } else if (!Names.OF_EVERY_RECORD.contains(name)) {
                unknown(owner, name, writable, partNames, path);
            }
        }
        return read;
    }

    private void unknown(
            String owner,
            String name,
            List<FieldPath> writable,
            List<String> partNames,
            FaultPath path) {
        var names = new ArrayList<>(writable.stream().map(one -> one.last().name()).toList());
        names.addAll(partNames);
        var nearest =
                Nearest.to(name, names)
                        .map(near -> " Did you mean " + near + "?")
                        .orElse(" There can be " + String.join(", ", names) + ".");
        fault(
                path,
                RecordCode.UNKNOWN_FIELD,
                "%s has no field %s here.%s".formatted(owner, Quoted.of(name), nearest));
    }

    private @Nullable InputValue field(Field field, @Nullable Object plain, FaultPath path) {
        if (plain == null || isBlank(field.type(), plain, textual)) {
            return new InputValue.Empty();
        }
        if (field.type() instanceof FieldType.Reference reference) {
            return target(field, release.target(reference), plain, path);
        }
        var parsed = field.type().read(plain);
        if (textual
                && parsed instanceof ParsedValue.Refused(var code, _)
                && code == ValueCode.WRONG_TYPE
                && plain instanceof String text) {
            parsed = field.type().readText(text);
        }
        return switch (parsed) {
            case ParsedValue.Taken(var value) ->
                    value instanceof Localised texts && texts.isEmpty()
                            ? new InputValue.Empty()
                            : new InputValue.Value(value);
            case ParsedValue.Refused(var code, var message) -> {
                fault(path, code, "%s %s.".formatted(field.label(), message));
                yield null;
            }
        };
    }

    /**
     * Whether what is given for a type is nothing. A blank text is where texts are expected, as in
     * a form that was left empty; where a number or a code is, it is a mistake.
     */
    static boolean isBlank(FieldType type, Object plain, boolean textual) {
        return plain instanceof String text
                && text.isBlank()
                && (textual
                        || type instanceof TextType
                        || type instanceof TemporalType
                        || type instanceof FieldType.Reference);
    }

    private @Nullable InputValue target(
            Field field, ObjectType target, Object plain, FaultPath path) {
        switch (plain) {
            case String key -> {
                return new InputValue.Target(key);
            }
            case Long number when keyIsInteger(target) -> {
                return new InputValue.Target(number.toString());
            }
            case Map<?, ?> map -> {
                var key =
                        map.get(PlainRecords.KEY) instanceof String text
                                ? text
                                : keyAmong(target, map);
                if (key != null) {
                    return new InputValue.Target(key);
                }
            }
            default -> {
                // falls through to the message
            }
        }
        fault(
                path,
                ValueCode.WRONG_TYPE,
                "%s must be the key of %s (%s) as text."
                        .formatted(
                                field.label(),
                                Names.withArticle(target.label()),
                                target.key().isEmpty()
                                        ? "its id"
                                        : String.join(", ", target.key())));
        return null;
    }

    private static boolean keyIsInteger(ObjectType target) {
        return target.key().size() == 1
                && target.keyFields().getFirst().type().keyword() == TypeKeyword.INTEGER;
    }

    /** The key among the members of a map, or {@code null} when it is not whole. */
    public static @Nullable String keyAmong(ObjectType target, Map<?, ?> map) {
        var values = new ArrayList<@Nullable Object>();
        for (var field : target.keyFields()) {
            var plain = map.get(field.name());
            if (plain == null) {
                return null;
            }
            var parsed =
                    plain instanceof String text
                            ? field.type().readText(text)
                            : field.type().read(plain);
            if (!(parsed instanceof ParsedValue.Taken(var value))) {
                return null;
            }
            values.add(value);
        }
        return values.isEmpty() ? null : KeyText.write(target, values);
    }

    private List<RecordInput.Item> items(FieldTree.PartTree tree, @Nullable Object plain) {
        var part = tree.part();
        if (plain == null) {
            return List.of();
        }
        if (!(plain instanceof List<?> list)) {
            fault(
                    FaultPath.of(part.name()),
                    RecordCode.NOT_A_LIST,
                    "%s must be a list.".formatted(part.label()));
            return List.of();
        }
        if (list.size() > MOST_ITEMS) {
            fault(
                    FaultPath.of(part.name()),
                    RecordCode.TOO_MANY_ITEMS,
                    "%s may have %,d items in one request, but has %,d."
                            .formatted(part.label(), MOST_ITEMS, list.size()));
            return List.of();
        }
        var items = new ArrayList<RecordInput.Item>();
        for (int i = 0; i < list.size(); i++) {
            items.add(item(tree, list.get(i), i));
        }
        return items;
    }

    private RecordInput.Item item(FieldTree.PartTree tree, @Nullable Object plain, int position) {
        var path = FaultPath.of(tree.part().name()).then(position);
        if (!(plain instanceof Map<?, ?> map)) {
            fault(
                    path,
                    ValueCode.WRONG_TYPE,
                    "An item of %s must be an object with fields.".formatted(tree.part().label()));
            return new RecordInput.Item(null, Map.of());
        }
        Long line = null;
        var values = new LinkedHashMap<String, @Nullable Object>();
        for (var entry : map.entrySet()) {
            if (!entry.getKey().equals(LINE)) {
                values.put(String.valueOf(entry.getKey()), entry.getValue());
            } else if (entry.getValue() instanceof Long number) {
                line = number;
            } else if (entry.getValue() != null) {
                fault(
                        path.then(LINE),
                        ValueCode.WRONG_TYPE,
                        "The line of an item must be its number.");
            }
        }
        return new RecordInput.Item(
                line,
                fields(
                        tree.part().name(),
                        tree.part().fields(),
                        tree.paths(),
                        List.of(),
                        values,
                        path));
    }

    private void fault(FaultPath path, ProblemCode code, String message) {
        faults.add(new Fault(path, code, message));
    }
}
