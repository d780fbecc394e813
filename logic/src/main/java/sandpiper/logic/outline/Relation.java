package sandpiper.logic.outline;

/** How a value stands to others. */
public enum Relation {
    EQUAL(1),
    UNEQUAL(1),
    LESS(1),
    AT_MOST(1),
    GREATER(1),
    AT_LEAST(1),
    BETWEEN(2),
    /** Takes one value or more, as does {@link #NONE_OF}. */
    ONE_OF(1),
    NONE_OF(1),
    EMPTY(0),
    FILLED(0),
    CONTAINS(1),
    BEGINS(1),
    ENDS(1),
    MATCHES(1),
    HOLDS(0),
    HOLDS_NOT(0);

    private final int count;

    Relation(int count) {
        this.count = count;
    }

    /** How many values it needs; at least so many for those that take a list. */
    public int count() {
        return count;
    }

    /** Whether it takes more values than it needs. */
    public boolean takesMore() {
        return this == ONE_OF || this == NONE_OF;
    }
}
