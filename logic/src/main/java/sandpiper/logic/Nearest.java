package sandpiper.logic;

import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;

/** Finds what a misspelt name probably meant. */
public final class Nearest {
    private static final JaroWinklerSimilarity SIMILARITY = new JaroWinklerSimilarity();

    /**
     * Below this two names are no longer alike: "amuont" and "amount" come to 0.97, "vessel" and
     * "berth" to 0.46.
     */
    private static final double ALIKE = 0.84;

    private Nearest() {}

    /**
     * The name among {@code known} most like {@code written}, whatever its case, or nothing when
     * none is near.
     */
    public static Optional<String> to(String written, Collection<String> known) {
        var lower = written.toLowerCase(Locale.ROOT);
        String best = null;
        double bestScore = ALIKE;
        for (var name : known) {
            double score = SIMILARITY.apply(lower, name.toLowerCase(Locale.ROOT));
            if (score > bestScore || (score == bestScore && best == null)) {
                best = name;
                bestScore = score;
            }
        }
        return Optional.ofNullable(best);
    }
}
