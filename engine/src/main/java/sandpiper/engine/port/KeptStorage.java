package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Values that a release took out of use. They are kept aside for a while, so that they are there
 * again when what they belong to comes back.
 */
public interface KeptStorage {
    /**
     * The records of an object, the line items of a part, or the values of one field, perhaps in
     * one language.
     *
     * @param number tells it from others; later ones have higher numbers
     * @param release the last release that had it
     * @param place what it was called in that release
     * @param now what the object and the part are called now, or were when they went
     * @param rows how many records or line items have values in it
     */
    record Kept(long number, Instant at, int release, Place place, Place now, long rows) {}

    /**
     * An object, a part or a field by its name.
     *
     * @param part {@code null} for what belongs to the object itself
     * @param field {@code null} for all of the object or part; {@code title.de} for the texts of a
     *     field in one language
     */
    record Place(String object, @Nullable String part, @Nullable String field) {
        /** How the texts of a field in one language are called. */
        public static String inLanguage(String field, String language) {
            return field + "." + language;
        }

        /** As people write it: {@code Stay.charges.amount}. */
        public String written() {
            return object + (part == null ? "" : "." + part) + (field == null ? "" : "." + field);
        }
    }

    /** All that is kept aside, newest first. */
    List<Kept> all(Session session);

    /** Drops values for good; tells whether they were there. */
    boolean forget(Transaction transaction, long number);
}
