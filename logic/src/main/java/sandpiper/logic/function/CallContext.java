package sandpiper.logic.function;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;

/** What an expression may ask of its surroundings while it runs. */
public interface CallContext {
    /** The moment of the request; the same however long it takes. */
    Instant now();

    /** The zone in which days are meant. */
    ZoneId zone();

    /**
     * The exchange rate of a day: how much of one currency an amount of 1 in another is.
     *
     * @return a number, or FEEL's null when there is none
     */
    Object rate(String from, String to, LocalDate day);

    /** Takes a sentence that says why something came to null. */
    void note(String message);

    /**
     * Counts work done, so that nothing runs without end.
     *
     * @throws sandpiper.logic.run.BudgetException when there was too much
     */
    void spend(int steps);

    /**
     * Spends what a text costs that is made.
     *
     * @param length its characters
     */
    void spendText(long length);
}
