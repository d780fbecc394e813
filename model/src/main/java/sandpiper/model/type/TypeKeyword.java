package sandpiper.model.type;

import java.util.Arrays;
import java.util.List;
import java.util.Set;

/** The words for field types in definition files, each with the further keys it allows. */
public enum TypeKeyword {
    TEXT("text", "length", "pattern", "multiline", "localised"),
    WEB_ADDRESS("web-address", "length"),
    EMAIL("email", "length"),
    PHONE("phone", "length"),
    INTEGER("integer"),
    DECIMAL("decimal", "scale"),
    PERCENT("percent", "scale"),
    AMOUNT("amount", "scale", "currency"),
    BOOLEAN("boolean"),
    DATE("date"),
    TIME("time"),
    DATE_TIME("date-time"),
    DURATION("duration"),
    CHOICE("choice", "choices", "from"),
    REFERENCE("reference", "to", "inverse"),
    UUID("uuid"),
    FILE("file", "accepts", "largest");

    /** Every key that belongs to some types only. */
    public static final Set<String> SPECIAL_KEYS =
            Set.of(
                    "length",
                    "pattern",
                    "multiline",
                    "localised",
                    "scale",
                    "currency",
                    "choices",
                    "from",
                    "to",
                    "inverse",
                    "accepts",
                    "largest");

    private final String word;
    private final Set<String> keys;

    TypeKeyword(String word, String... keys) {
        this.word = word;
        this.keys = Set.of(keys);
    }

    /** As it is written in a file. */
    public String word() {
        return word;
    }

    /** Whether the type allows one of the {@link #SPECIAL_KEYS}. */
    public boolean allows(String key) {
        return keys.contains(key);
    }

    /** All words, in the order people are shown them. */
    public static List<String> words() {
        return Arrays.stream(values()).map(TypeKeyword::word).toList();
    }

    /** The keyword for a word that is known to be one. */
    public static TypeKeyword of(String word) {
        return Arrays.stream(values())
                .filter(keyword -> keyword.word.equals(word))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("No field type is called " + word));
    }
}
