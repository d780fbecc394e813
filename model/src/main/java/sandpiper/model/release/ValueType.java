package sandpiper.model.release;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.logic.type.LogicType;

/** What a value is that a function takes or gives back, or that an event tells. Immutable. */
public sealed interface ValueType {
    /** A value such as a field holds; a reference is a record. */
    record Single(Field field) implements ValueType {}

    /** A list of values. */
    record Many(ValueType item) implements ValueType {}

    /** Values under names. */
    record Group(List<Parameter> entries) implements ValueType {
        public Group {
            entries = List.copyOf(entries);
        }

        /** The entry of a name, or nothing. */
        public Optional<Parameter> entry(String name) {
            return entries.stream().filter(one -> one.name().equals(name)).findFirst();
        }

        /** The names, in their order. */
        public List<String> names() {
            return entries.stream().map(Parameter::name).toList();
        }
    }

    /** What the language takes it for; {@code release} has the objects it may name. */
    default LogicType logicType(Release release) {
        return switch (this) {
            case Single(var field) -> ModelMember.typeOf(release, field);
            case Many(var item) -> new LogicType.ListOf(item.logicType(release));
            case Group group -> {
                Map<String, LogicType> entries = new LinkedHashMap<>();
                group.entries()
                        .forEach(one -> entries.put(one.name(), one.type().logicType(release)));
                yield new LogicType.ContextOf(entries);
            }
        };
    }
}
