package sandpiper.logic.outline;

import java.util.List;

/** A condition, or a part of one, taken apart. Immutable. */
public sealed interface Outline {
    /**
     * Several conditions.
     *
     * @param all whether all of them must hold, or one
     * @param negated whether the opposite of that is meant
     */
    record Group(boolean all, boolean negated, List<Outline> parts) implements Outline {
        public Group {
            parts = List.copyOf(parts);
        }
    }

    /** A value beside others: as many as its relation needs. */
    record Comparison(Side of, Relation relation, List<Side> values) implements Outline {
        public Comparison {
            values = List.copyOf(values);
        }
    }

    /**
     * What holds of the items of a list.
     *
     * @param list a path, such as {@code charges}
     * @param name what an item is called in the condition
     */
    record Items(Quantity quantity, String list, String name, Outline condition)
            implements Outline {}

    /** A condition as it is written. */
    record Text(String text) implements Outline {}

    /** Of how many items a condition must hold. */
    enum Quantity {
        EVERY,
        SOME,
        NONE
    }
}
