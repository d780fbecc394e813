package sandpiper.logic.value;

/**
 * A range, DMN 1.5 §10.3.2.7. An end that is {@link Nothing#NULL} is open: {@code (< 5)} has no
 * start.
 */
public record Range(Object start, boolean startIncluded, Object end, boolean endIncluded) {
    @Override
    public String toString() {
        return ValueText.of(this);
    }
}
