package sandpiper.logic.condition;

import java.util.List;
import sandpiper.logic.Span;
import sandpiper.logic.type.LogicType;

/** One side of a comparison. */
public sealed interface Operand {
    LogicType type();

    /**
     * A field of the record, or of one it refers to: {@code [vessel, owner, name]}. Never empty.
     */
    record Field(List<String> path, LogicType type, Span span) implements Operand {
        public Field {
            path = List.copyOf(path);
        }

        /** As it is written: {@code vessel.owner.name}. */
        public String written() {
            return String.join(".", path);
        }
    }

    /**
     * A fixed value: {@link String}, {@link java.math.BigDecimal}, {@link Boolean}, {@link
     * java.time.LocalDate}, {@link java.time.LocalTime}, {@link java.time.Instant}, {@link
     * java.time.Duration}, or a {@link sandpiper.logic.value.RecordValue} for a reference.
     */
    record Value(Object value, LogicType type) implements Operand {}
}
