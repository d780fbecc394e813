package sandpiper.logic.condition;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.Operator;

/** A condition whose names and types are known to be right. Immutable. */
public sealed interface Condition {
    /** The condition that both hold; {@code null} stands for one that always does. */
    static @Nullable Condition both(@Nullable Condition one, @Nullable Condition other) {
        return one == null ? other : other == null ? one : new All(List.of(one, other));
    }

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
     * Two values compared. Equality also tells an empty one from a filled one and so is always true
     * or false.
     */
    record Compare(Operand left, Operator operator, Operand right) implements Condition {}

    /** Something that is true or false by itself, and neither when it is empty. */
    record Holds(Operand flag) implements Condition {}

    /**
     * Whether a condition holds for some, or for every, line item of the record; neither true nor
     * false where that hangs on one of which it is unknown.
     *
     * @param part what the line items are called
     * @param condition about a line item; its paths begin there
     */
    record OverItems(boolean isEvery, String part, Condition condition) implements Condition {}

    /** Neither true nor false, whatever the record: something was compared with nothing. */
    record Unknown() implements Condition {}

    /** Whether there is no value. */
    record Empty(Operand operand) implements Condition {}

    /** Whether a text contains, starts or ends with another, case and all. */
    record TextMatch(Operand within, Place place, String text) implements Condition {
        /** Where in the text the other is looked for. */
        public enum Place {
            ANYWHERE,
            START,
            END
        }
    }
}
