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
     * A rule was asked about a record, and did what it says if its condition held.
     *
     * @param rule {@code Stay.longStay}
     */
    void ruleRan(String rule, long nanos);
}
