package sandpiper.model.openapi;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What an operation takes. */
public record ApiParameter(String name, Place place, boolean required, JsonShape shape) {
    /** Where its value is sent. */
    public enum Place {
        PATH,
        QUERY,
        HEADER,
        BODY;

        /** The place a document names, when values can be sent there. */
        static Optional<Place> of(String in) {
            return Arrays.stream(values())
                    .filter(place -> place != BODY)
                    .filter(place -> place.word().equals(in))
                    .findFirst();
        }

        /** In small letters. */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }
}
