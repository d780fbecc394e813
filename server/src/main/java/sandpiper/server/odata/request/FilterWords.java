package sandpiper.server.odata.request;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;

/**
 * Functions and operators of the standard that are not offered and that the library does not know
 * either, which would take them for mistakes (Protocol 13.1.2, rule 7).
 */
final class FilterWords {
    private static final Pattern TEXTS = Pattern.compile("'(?:[^']|'')*'");
    private static final Pattern NOT_OFFERED =
            Pattern.compile(
                    "\\b(matchesPattern|hassubset|hassubsequence|case|geo\\.[a-z]+)\\s*\\(|\\s(divby|has)\\s",
                    Pattern.CASE_INSENSITIVE);

    private FilterWords() {}

    /** Lets options go on that hold none of them. */
    static void requireOffered(String options) {
        for (var option : options.split("&")) {
            if (!option.startsWith("$filter=") && !option.startsWith("$orderby=")) {
                continue;
            }
            var text = URLDecoder.decode(option, StandardCharsets.UTF_8);
            var found = NOT_OFFERED.matcher(TEXTS.matcher(text).replaceAll("''"));
            if (found.find()) {
                var word = found.group(1) == null ? found.group(2) : found.group(1);
                throw Refusals.notOffered("%s is not offered in a filter.".formatted(word));
            }
        }
    }
}
