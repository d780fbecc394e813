package sandpiper.logic.condition;

import java.util.List;
import sandpiper.logic.syntax.Operator;

/** A condition whose names and types are known to be right. Immutable. */
public sealed interface Condition {
    /** True when all parts are. */
    record All(List<Condition> parts) implements Condition {
        public All {
            parts = List.copyOf(parts);
        }
    }

    /** True when one part is. */
    record Any(List<Condition> parts) implements Condition {
        public Any {
            parts = List.copyOf(parts);
        }
    }

    /** True when the inner one is false. */
    record Not(Condition inner) implements Condition {}

    /**
     * A field compared with another or with a value. Equality also tells an empty field from a
     * filled one.
     */
    record Compare(Operand.Field left, Operator operator, Operand right) implements Condition {}

    /** Neither true nor false, whatever the record: something was compared with nothing. */
    record Unknown() implements Condition {}

    /** Whether the field has no value. */
    record Empty(Operand.Field field) implements Condition {}

    /** Whether the field's text contains, starts or ends with another, case and all. */
    record TextMatch(Operand.Field field, Place place, String text) implements Condition {
        /** Where in the field's text the other is looked for. */
        public enum Place {
            ANYWHERE,
            START,
            END
        }
    }
}
