package sandpiper.logic.assist;

/** What a logic text is. */
public enum TextKind {
    /** An expression of any type. */
    EXPRESSION,
    /** An expression that must be true or false. */
    CONDITION,
    /** Steps of a rule. */
    STEPS,
    /** A message with expressions in braces. */
    MESSAGE
}
