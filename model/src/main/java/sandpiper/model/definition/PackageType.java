package sandpiper.model.definition;

import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A package.
 *
 * @param describe what it is for, or {@code null}
 * @param languages languages of localised texts, the main one first; never empty
 * @param currency ISO 4217 code of amounts that name none
 * @param zone in which its dates are meant
 * @param rounding of what is worked out
 * @param rates the call that exchange rates of its currency come from, as in {@code
 *     tide-table.rate}, or {@code null}
 */
public record PackageType(
        String name,
        String version,
        String label,
        @Nullable String describe,
        List<String> depends,
        boolean sealed,
        List<String> languages,
        String currency,
        ZoneId zone,
        Rounding rounding,
        @Nullable String rates) {
    public PackageType {
        depends = List.copyOf(depends);
        languages = List.copyOf(languages);
    }

    /** Whether the same formulas over the same values come to the same in another version of it. */
    public boolean worksOutAs(PackageType other) {
        return languages.equals(other.languages)
                && zone.equals(other.zone)
                && rounding == other.rounding;
    }
}
