package sandpiper.server.service;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;

/**
 * Reads the parameters of a query; whatever is wrong with them becomes a problem that says what can
 * be.
 */
public final class QueryParameters {
    private static final Pattern WHOLE_NUMBER = Pattern.compile("\\d{1,6}");

    private final Map<String, String[]> parameters;

    /** Whatever parameters there are; who asks for some leaves the others to somebody else. */
    QueryParameters(Map<String, String[]> parameters) {
        this.parameters = parameters;
    }

    /** {@code known} are the parameters there can be; any other is a mistake worth telling. */
    public QueryParameters(Map<String, String[]> parameters, List<String> known) {
        this.parameters = parameters;
        requireKnown(parameters, known);
    }

    /**
     * Lets no parameter pass that nobody would look at.
     *
     * @throws ProblemException for one that is not known
     */
    public static void requireKnown(Map<String, String[]> parameters, List<String> known) {
        for (var name : parameters.keySet()) {
            if (!known.contains(name)) {
                var nearest = Nearest.to(name, known).map(near -> " Did you mean " + near + "?");
                throw wrong(
                        "There is no parameter %s; there %s %s.%s"
                                .formatted(
                                        Quoted.of(name),
                                        known.size() == 1 ? "is" : "are",
                                        String.join(", ", known),
                                        nearest.orElse("")));
            }
        }
    }

    /** A parameter's text, or {@code null} when it is absent or empty. */
    public @Nullable String text(String name) {
        var values = parameters.get(name);
        if (values != null && values.length > 1) {
            throw wrong(
                    "%s stands in the address %d times; give it once."
                            .formatted(name, values.length));
        }
        return values == null || values[0].isBlank() ? null : values[0];
    }

    /** A parameter that is {@code true} or {@code false}; false when it is absent. */
    public boolean flag(String name) {
        var text = text(name);
        if (text != null && !text.equals("true") && !text.equals("false")) {
            throw wrong("%s must be true or false, but is %s.".formatted(name, Quoted.of(text)));
        }
        return "true".equals(text);
    }

    /**
     * How many records a page may have.
     *
     * @param usual when nobody says
     */
    public int limit(int usual, int most) {
        return limit(text("limit"), usual, most);
    }

    /** The same of a text; nothing, or only space, is nobody's word. */
    public static int limit(@Nullable String text, int usual, int most) {
        if (text == null || text.isBlank()) {
            return usual;
        }
        if (WHOLE_NUMBER.matcher(text).matches()) {
            int limit = Integer.parseInt(text);
            if (limit >= 1 && limit <= most) {
                return limit;
            }
        }
        throw wrong(
                "limit must be a whole number from 1 to %d, but is %s."
                        .formatted(most, Quoted.of(text)));
    }

    /**
     * The request of the parameters {@code filter}, {@code sort}, {@code limit} and {@code count}.
     *
     * @param usual how many records when nobody says
     */
    public QueryRequest request(int usual, int most) {
        return new QueryRequest(
                text("filter"), true, sorts(text("sort")), limit(usual, most), flag("count"), null);
    }

    /** Names with commas between them, a minus before those that run down. */
    private static List<QueryRequest.Sort> sorts(@Nullable String text) {
        if (text == null) {
            return List.of();
        }
        var sorts = new ArrayList<QueryRequest.Sort>();
        for (var item : text.split(",", -1)) {
            var name = item.strip();
            boolean descending = name.startsWith("-");
            sorts.add(
                    new QueryRequest.Sort(
                            descending || name.startsWith("+") ? name.substring(1) : name,
                            descending));
        }
        return sorts;
    }

    /** The names of the parameter {@code fields}, or {@code null} for all. */
    public @Nullable List<String> fields(List<String> known) {
        var text = text("fields");
        if (text == null) {
            return null;
        }
        var names = Arrays.stream(text.split(",", -1)).map(String::strip).toList();
        for (var name : names) {
            if (!known.contains(name)) {
                throw wrong(notAmong("choose", name, known));
            }
        }
        return names;
    }

    static String notAmong(String what, String name, List<String> known) {
        if (known.isEmpty()) {
            return "There is nothing to %s here.".formatted(what);
        }
        var nearest = Nearest.to(name, known).map(near -> " Did you mean " + near + "?");
        return "You cannot %s %s; there are %s.%s"
                .formatted(
                        what,
                        Quoted.of(name),
                        String.join(", ", new TreeSet<>(known)),
                        nearest.orElse(""));
    }

    private static ProblemException wrong(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }
}
