package sandpiper.logic.term;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.Member;

/** A member of a record whose value may be worked out each time somebody asks. */
public interface FormulaMember extends Member {
    /** How it is worked out, or {@code null} when its value is stored. */
    @Nullable Formula formula();

    /**
     * A formula as the checker left it.
     *
     * @param record the place of the record it is of
     * @param slots how many places its frame needs
     */
    record Formula(Term term, Term.Local record, int slots) {}
}
