package sandpiper.engine.port;

import java.util.List;

/** Formulas that still have to be worked out again for records that were there at a release. */
public interface RecomputationStorage {
    /**
     * How far one has come.
     *
     * @param formula {@code Stay.vatTotal}
     * @param reached records up to this number are done
     */
    record Open(String formula, long reached) {}

    /** All that are not done. */
    List<Open> all(Session session);

    /** Notes how far one has come; one that was not there begins. */
    void put(Transaction transaction, Open open);

    /** Takes one out. */
    void remove(Transaction transaction, String formula);
}
