package sandpiper.model.definition;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** What happens when a record shall be retired that others in use still refer to. */
public enum WhenUsed {
    /** It is refused. */
    REFUSE,
    /** It is done when whoever asks says that it is meant; the usual one. */
    ASK,
    /** It is done. */
    FREE;

    /** As it stands in a definition. */
    public String written() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** All as they are written. */
    public static List<String> allWritten() {
        return Arrays.stream(values()).map(WhenUsed::written).toList();
    }
}
