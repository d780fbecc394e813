package sandpiper.logic.type;

import java.util.Collection;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Something a record has by name: a field, its line items, or the records that refer to it. */
public interface Member {
    String name();

    LogicType type();

    /** Whether it can have no value. */
    boolean mayBeEmpty();

    /** What it means, for people; may be empty. */
    String describe();

    /**
     * For the records that refer to this one: the reference by which they do, so that they can be
     * looked up where they are stored. {@code null} for everything that is the record's own.
     */
    default @Nullable String reference() {
        return null;
    }

    /**
     * Whether a new record needs a value here that nothing else gives it: no default, no number of
     * its own, and none of the other fields that are given fills it.
     *
     * @param given the names of those
     */
    default boolean mustBeGiven(Collection<String> given) {
        return false;
    }

    /**
     * What it has in each of its languages, by the language's tag, the main one first; empty for
     * all but a localised text.
     */
    default Map<String, Member> languages() {
        return Map.of();
    }

    /** Whether it is one language of a member, and none of its own. */
    default boolean isLanguage() {
        return false;
    }

    /**
     * Why logic cannot set it, to follow its name: "is worked out by its formula"; {@code null}
     * when it can.
     */
    default @Nullable String fixed() {
        return null;
    }
}
