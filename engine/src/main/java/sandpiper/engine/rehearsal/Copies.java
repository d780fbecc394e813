package sandpiper.engine.rehearsal;

import sandpiper.engine.port.Storage;

/**
 * Makes the copies of the live data that a rehearsal works on, and takes them away. Used by one
 * thread at a time.
 */
public interface Copies {
    /** Which of the two. */
    enum Which {
        /** The one on which the draft is released. */
        REHEARSED,
        /** The same data without the draft. */
        BEFORE
    }

    /**
     * Looks whether there is room.
     *
     * @param both whether both copies will be made
     * @throws RehearsalException when there is not
     */
    void requireRoom(boolean both);

    /**
     * Copies the live data as it is at one moment, while the service goes on.
     *
     * @return how large it is, in bytes
     * @throws InterruptedException when it was ended meanwhile
     */
    long make() throws InterruptedException;

    /** Copies the copy, nobody having changed it yet. */
    void makeBefore() throws InterruptedException;

    /** Opens the copy on which the draft is released; to be closed. */
    Storage open();

    /** Where a copy is, as the setting {@code sandpiper.data} says it. */
    String place(Which which);

    /** Takes one away, if it is there. */
    void remove(Which which);

    /** Takes away whatever there is, also what a service that was killed has left. */
    default void removeAll() {
        for (var which : Which.values()) {
            remove(which);
        }
    }
}
