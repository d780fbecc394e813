package sandpiper.model;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** How things may be called, and what they are called when nobody says. */
public final class Names {
    /** Objects and choice lists begin with a capital letter. */
    public static final Pattern OBJECT = Pattern.compile("[A-Z][A-Za-z0-9]{0,59}");

    /** Fields and parts begin with a small letter. */
    public static final Pattern FIELD = Pattern.compile("[a-z][A-Za-z0-9]{0,59}");

    /** Packages, services and resources are written as they appear in addresses. */
    public static final Pattern ADDRESS = Pattern.compile("[a-z][a-z0-9]*(-[a-z0-9]+)*");

    /** Every record has these without saying so. */
    public static final Set<String> OF_EVERY_RECORD =
            Set.of("id", "version", "createdAt", "createdBy", "changedAt", "changedBy", "retired");

    private static final Set<String> OF_THE_LANGUAGE =
            Set.of(
                    "and",
                    "between",
                    "changed",
                    "else",
                    "every",
                    "external",
                    "false",
                    "for",
                    "function",
                    "if",
                    "in",
                    "instance",
                    "is",
                    "item",
                    "line",
                    "not",
                    "null",
                    "of",
                    "old",
                    "or",
                    "partial",
                    "return",
                    "satisfies",
                    "some",
                    "then",
                    "this",
                    "true");

    private static final Pattern WORD_BORDER =
            Pattern.compile("(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])");

    private Names() {}

    /** Whether a field or part may not be called so, because the name has a meaning already. */
    public static boolean isReserved(String name) {
        return OF_EVERY_RECORD.contains(name) || OF_THE_LANGUAGE.contains(name);
    }

    /**
     * A label made from a name: {@code nightlyRate} becomes "Nightly rate", {@code CraftInspection}
     * "Craft inspection".
     */
    public static String label(String name) {
        var words = String.join(" ", WORD_BORDER.split(name.replace('-', ' ').replace('_', ' ')));
        if (words.isEmpty()) {
            return words;
        }
        boolean abbreviation = words.length() > 1 && words.equals(words.toUpperCase(Locale.ROOT));
        var rest = abbreviation ? words.substring(1) : words.substring(1).toLowerCase(Locale.ROOT);
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + rest;
    }

    /** A name as it is written in addresses: {@code checkIn} becomes {@code check-in}. */
    public static String address(String name) {
        return String.join("-", WORD_BORDER.split(name)).toLowerCase(Locale.ROOT);
    }

    /** The plural of an English label: "Berth" becomes "Berths", "Enquiry" "Enquiries". */
    public static String plural(String label) {
        var lower = label.toLowerCase(Locale.ROOT);
        if (lower.endsWith("y")
                && lower.length() > 1
                && "aeiou".indexOf(lower.charAt(lower.length() - 2)) < 0) {
            return label.substring(0, label.length() - 1) + "ies";
        }
        if (lower.endsWith("s")
                || lower.endsWith("x")
                || lower.endsWith("ch")
                || lower.endsWith("sh")) {
            return label + "es";
        }
        return label + "s";
    }

    /** A label with its article: "Berth" becomes "a Berth", "Owner" becomes "an Owner". */
    public static String withArticle(String label) {
        boolean vowel = !label.isEmpty() && "AEIOUaeiou".indexOf(label.charAt(0)) >= 0;
        return (vowel ? "an " : "a ") + label;
    }
}
