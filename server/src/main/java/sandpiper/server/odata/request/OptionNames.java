package sandpiper.server.odata.request;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import sandpiper.logic.Quoted;
import sandpiper.server.service.RevisionParameter;

/**
 * The names of query options as the library knows them: OData 4.01 takes system options without
 * their dollar sign and in any case (URL Conventions 5.1), also inside of {@code $expand}. What is
 * no option here is refused, so that nothing that is sent is left aside.
 */
final class OptionNames {
    private static final Set<String> OFFERED =
            Set.of(
                    "$filter",
                    "$format",
                    "$expand",
                    "$id",
                    "$count",
                    "$orderby",
                    "$search",
                    "$select",
                    "$skip",
                    "$skiptoken",
                    "$top",
                    "$levels",
                    "$apply");
    private static final Set<String> NOT_OFFERED =
            Set.of("$compute", "$index", "$schemaversion", "$deltatoken");

    private OptionNames() {}

    /** A query as it came, with the names of its options made one. */
    static String read(String query) {
        var options = new ArrayList<String>();
        var seen = new HashSet<String>();
        for (var option : query.split("&", -1)) {
            if (option.isEmpty()) {
                continue;
            }
            int equals = option.indexOf('=');
            var given = decoded(equals < 0 ? option : option.substring(0, equals));
            var name = name(given);
            if (!seen.add(name)) {
                throw Refusals.bad("%s stands in the address twice.".formatted(Quoted.of(given)));
            }
            var value = equals < 0 ? "" : option.substring(equals + 1);
            options.add(
                    name
                            + "="
                            + switch (name) {
                                case "$expand" -> nested(value);
                                case "$format" -> encoded(Negotiation.unified(decoded(value)));
                                default -> value;
                            });
        }
        return String.join("&", options);
    }

    private static String name(String given) {
        if (given.startsWith("@") || given.equals(RevisionParameter.NAME)) {
            return given;
        }
        var system = system(given);
        if (OFFERED.contains(system)) {
            return system;
        }
        if (NOT_OFFERED.contains(system)) {
            throw Refusals.notOffered("%s is not offered.".formatted(system));
        }
        throw Refusals.bad(
                "There is no query option %s. Options are %s; a value for a name in the address is written @name=."
                        .formatted(
                                Quoted.of(given),
                                String.join(", ", OFFERED.stream().sorted().toList())));
    }

    private static String system(String given) {
        var name = given.toLowerCase(Locale.ROOT);
        return name.startsWith("$") ? name : "$" + name;
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    /** Options in brackets behind what is expanded. */
    private static String nested(String value) {
        var text = decoded(value.replace("+", "%2B"));
        if (text.indexOf('(') < 0) {
            return value;
        }
        var result = new StringBuilder();
        boolean inText = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            result.append(c);
            inText ^= c == '\'';
            if (!inText && (c == '(' || c == ';')) {
                int end = i + 1;
                while (end < text.length() && isOfName(text.charAt(end))) {
                    end++;
                }
                if (end < text.length() && text.charAt(end) == '=') {
                    var system = system(text.substring(i + 1, end));
                    if (OFFERED.contains(system)) {
                        result.append(system);
                        i = end - 1;
                    } else if (NOT_OFFERED.contains(system)) {
                        throw Refusals.notOffered("%s is not offered.".formatted(system));
                    }
                }
            }
        }
        return encoded(result.toString());
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static boolean isOfName(char c) {
        return c == '$' || Character.isLetter(c);
    }
}
