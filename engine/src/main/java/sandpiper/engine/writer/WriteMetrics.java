package sandpiper.engine.writer;

/** Who wants to know how writing goes. Called on the writer's thread, so it must be quick. */
public interface WriteMetrics {
    /** Nobody does. */
    WriteMetrics NONE =
            new WriteMetrics() {
                @Override
                public void committed(int jobs, long nanos) {
                    // nobody to tell
                }

                @Override
                public void conflicted(boolean lost) {
                    // nobody to tell
                }

                @Override
                public void ruleRan(String rule, long nanos) {
                    // nobody to tell
                }
            };

    /**
     * A transaction was committed.
     *
     * @param jobs that shared it
     * @param nanos from its beginning until it was durable
     */
    void committed(int jobs, long nanos);

    /**
     * A transaction is done again from its beginning.
     *
     * @param lost whether a connection was lost; otherwise others changed the same
     */
    void conflicted(boolean lost);

    /**
     * A rule was asked about a record, and did what it says if its condition held.
     *
     * @param rule {@code Stay.longStay}
     */
    void ruleRan(String rule, long nanos);
}
