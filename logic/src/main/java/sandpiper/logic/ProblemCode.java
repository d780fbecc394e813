package sandpiper.logic;

/**
 * Identifies a kind of problem. Stable and never reused: programs and tests look at this, not at
 * the wording.
 */
public interface ProblemCode {
    /**
     * {@code SP} and four digits: 1xxx text and syntax, 2xxx names and types, 3xxx definitions,
     * 4xxx records, 5xxx releases.
     */
    String id();
}
