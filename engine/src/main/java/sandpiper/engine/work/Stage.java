package sandpiper.engine.work;

/** Puts records into the tables while the work goes on, so that the store can be asked. */
public interface Stage {
    /** Where nothing is changed. */
    Stage NONE =
            new Stage() {
                @Override
                public void together(Runnable pushes) {
                    // nothing to put anywhere
                }

                @Override
                public void push(RecordState record) {
                    // nothing to put anywhere
                }
            };

    /** Pushes many records, whose values do not change meanwhile. */
    void together(Runnable pushes);

    /**
     * Makes the tables agree with a record.
     *
     * @throws WorkStoppedException when the tables would not take it, which is told
     */
    void push(RecordState record);
}
