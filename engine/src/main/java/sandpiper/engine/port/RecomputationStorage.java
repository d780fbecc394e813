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

    /**
     * The revision of the service that formulas were last worked out by; 0 when it is not known.
     */
    int revision(Session session);

    /** Notes that all formulas are, or will be, worked out by a revision of the service. */
    void revised(Transaction transaction, int revision);

    /** Takes one out. */
    void remove(Transaction transaction, String formula);
}
