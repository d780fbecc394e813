package sandpiper.engine.writer;

/** Keeps to the live release, which another process may have made. */
public interface Follower {
    /** The number of the release that is gone by. */
    int number();

    /** Goes by a newer release; returns when it does. For one thread at a time. */
    void follow(int number);
}
