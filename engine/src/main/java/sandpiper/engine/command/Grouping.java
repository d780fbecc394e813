package sandpiper.engine.command;

/** How several requests that come at once belong together. */
public enum Grouping {
    /** Each is a piece of work of its own; what one is refused for keeps no other back. */
    EACH,
    /**
     * All are one piece of work: what follows from all of them is worked out and reacted to once.
     * Those that are refused are left out and told; they keep no other back.
     */
    TOGETHER,
    /**
     * One after the other, later ones finding what earlier ones have made; when one is refused,
     * nothing of all is kept.
     */
    ALL_OR_NONE
}
