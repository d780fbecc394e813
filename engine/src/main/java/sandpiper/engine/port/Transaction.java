package sandpiper.engine.port;

/** The write transaction. Closing it without {@link #commit} undoes everything. */
public interface Transaction extends Session {
    /** Marks a point to go back to; the last one marked is the one meant below. */
    void mark();

    /** How many marks there are. */
    int marks();

    /** Undoes what was done since the mark, and forgets the mark. */
    void undoToMark();

    /** Keeps what was done since the mark, and forgets the mark. */
    void keepSinceMark();

    /** Makes everything durable. When this returns, a power cut loses none of it. */
    void commit();
}
