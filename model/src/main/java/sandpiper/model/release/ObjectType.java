package sandpiper.model.release;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.definition.Numbering;
import sandpiper.model.definition.Removal;
import sandpiper.model.definition.Rounding;
import sandpiper.model.definition.RuleDefinition;
import sandpiper.model.definition.WhenUsed;
import sandpiper.model.layout.Layout;

/**
 * A business object.
 *
 * @param describe what a record is, or {@code null}
 * @param was its name in an earlier release, or {@code null}
 * @param key names of the fields that identify a record; empty when it has no natural key
 * @param numbering how its number is made, or {@code null}
 * @param whenUsed what happens when a record shall be retired that others use
 * @param zone in which its dates are meant
 * @param rounding of what is worked out
 * @param lifecycle its states and transitions, or {@code null}
 * @param layout how people enter and list its records
 */
public record ObjectType(
        String name,
        String packageName,
        String label,
        String plural,
        @Nullable String describe,
        @Nullable String was,
        List<String> key,
        @Nullable Numbering numbering,
        Removal removal,
        WhenUsed whenUsed,
        Fields fields,
        List<Part> parts,
        ZoneId zone,
        Rounding rounding,
        @Nullable Lifecycle lifecycle,
        List<CheckDefinition> checks,
        List<RuleDefinition> rules,
        List<FunctionDefinition> functions,
        List<HandlerDefinition> handlers,
        List<ScheduleDefinition> schedules,
        Layout layout) {
    public ObjectType {
        handlers = List.copyOf(handlers);
        schedules = List.copyOf(schedules);
        functions = List.copyOf(functions);
        key = List.copyOf(key);
        parts = List.copyOf(parts);
        checks = List.copyOf(checks);
        rules = List.copyOf(rules);
    }

    /** Whether a field holds the state, which only transitions change. */
    public boolean isState(Field field) {
        return lifecycle != null && lifecycle.field().equals(field.name());
    }

    /** The same object with other fields and parts. */
    public ObjectType with(Fields otherFields, List<Part> otherParts) {
        return new ObjectType(
                name,
                packageName,
                label,
                plural,
                describe,
                was,
                key,
                numbering,
                removal,
                whenUsed,
                otherFields,
                otherParts,
                zone,
                rounding,
                lifecycle,
                checks,
                rules,
                functions,
                handlers,
                schedules,
                layout);
    }

    /** The same object laid out. */
    public ObjectType with(Layout otherLayout) {
        return new ObjectType(
                name,
                packageName,
                label,
                plural,
                describe,
                was,
                key,
                numbering,
                removal,
                whenUsed,
                fields,
                parts,
                zone,
                rounding,
                lifecycle,
                checks,
                rules,
                functions,
                handlers,
                schedules,
                otherLayout);
    }

    /** The function of a name, or nothing. */
    public Optional<FunctionDefinition> function(String functionName) {
        return functions.stream().filter(one -> one.name().equals(functionName)).findFirst();
    }

    /**
     * What another package adds to an object.
     *
     * @param fields whose indexes go on behind those of the object
     */
    public record Addition(
            List<Field> fields,
            List<CheckDefinition> checks,
            List<RuleDefinition> rules,
            List<FunctionDefinition> functions,
            List<HandlerDefinition> handlers,
            List<ScheduleDefinition> schedules) {}

    /** The same object with what another package adds. */
    public ObjectType with(Addition more) {
        return new ObjectType(
                name,
                packageName,
                label,
                plural,
                describe,
                was,
                key,
                numbering,
                removal,
                whenUsed,
                new Fields(both(fields.stream().toList(), more.fields())),
                parts,
                zone,
                rounding,
                lifecycle,
                both(checks, more.checks()),
                both(rules, more.rules()),
                both(functions, more.functions()),
                both(handlers, more.handlers()),
                both(schedules, more.schedules()),
                layout);
    }

    private static <T> List<T> both(List<T> first, List<T> second) {
        var all = new ArrayList<>(first);
        all.addAll(second);
        return all;
    }

    /** The fields of the natural key, in its order. */
    public List<Field> keyFields() {
        var found = new ArrayList<Field>(key.size());
        for (var fieldName : key) {
            found.add(fields.get(fieldName));
        }
        return found;
    }

    /** Quick, for the same reason as that of {@link Field}. */
    @Override
    public int hashCode() {
        return name.hashCode();
    }

    /** The part of a name, or nothing. */
    public Optional<Part> part(String partName) {
        return parts.stream().filter(part -> part.name().equals(partName)).findFirst();
    }

    /** Whether a field is numbered by the service. */
    public boolean isNumbered(Field field) {
        return numbering != null && numbering.field().equals(field.name());
    }

    /**
     * A field to show beside the key so that people recognise a record: the first text that is not
     * the key, if any.
     */
    public Optional<Field> titleField() {
        return fields.stream()
                .filter(field -> !key.contains(field.name()))
                .filter(field -> field.name().equals("name") || field.name().equals("title"))
                .findFirst()
                .or(() ->
                        fields.stream()
                                .filter(field -> !key.contains(field.name()))
                                .filter(field -> field.name().startsWith("desc"))
                                .findFirst());
    }
}
