package sandpiper.server.service;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.record.Query;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.logic.type.RecordType;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;

/**
 * Reads the parameters of a query; whatever is wrong with them becomes a problem that says what can
 * be.
 */
public final class QueryReader {
    private static final Pattern WHOLE_NUMBER = Pattern.compile("\\d{1,6}");

    private final Map<String, String[]> parameters;

    /** {@code known} are the parameters there can be; any other is a mistake worth telling. */
    public QueryReader(Map<String, String[]> parameters, List<String> known) {
        this.parameters = parameters;
        for (var name : parameters.keySet()) {
            if (!known.contains(name)) {
                var nearest = Nearest.to(name, known).map(near -> " Did you mean " + near + "?");
                throw wrong(
                        "There is no parameter %s; there are %s.%s"
                                .formatted(
                                        Quoted.of(name),
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
        var text = text("limit");
        if (text == null) {
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

    /** The condition of the parameter {@code filter}, or {@code null} when there is none. */
    public @Nullable Condition filter(RecordType type, Clock clock) {
        return filter(text -> ConditionChecker.check(text, type, clock));
    }

    /** The same, checked in a way of the caller's. */
    public @Nullable Condition filter(Function<String, Checked> check) {
        var text = text("filter");
        if (text == null) {
            return null;
        }
        return switch (check.apply(text)) {
            case Checked.Accepted(var condition) -> condition;
            case Checked.Rejected(var problems) ->
                    throw new ProblemException(
                            HttpStatus.BAD_REQUEST,
                            "The filter is not right: %s".formatted(problems.getFirst().sentence()),
                            problems.stream().map(QueryReader::error).toList());
        };
    }

    private static Wrong error(LogicProblem problem) {
        return new Wrong(
                "",
                problem.code().id(),
                "filter, column %d: %s".formatted(problem.span().start() + 1, problem.sentence()));
    }

    /**
     * The order of the parameter {@code sort}: names with commas between them, a minus before those
     * that run down.
     *
     * @param type the record as logic sees it, whole, for fields that are worked out on read
     */
    public List<Query.Sort> sort(
            List<String> sortable,
            Function<String, FieldPath> paths,
            RecordType type,
            Clock clock) {
        var text = text("sort");
        if (text == null) {
            return List.of();
        }
        var sorts = new ArrayList<Query.Sort>();
        for (var item : text.split(",", -1)) {
            var name = item.strip();
            boolean descending = name.startsWith("-");
            var field = descending || name.startsWith("+") ? name.substring(1) : name;
            if (!sortable.contains(field)) {
                throw wrong(notAmong("sort by", field, sortable));
            }
            sorts.add(sort(paths.apply(field), descending, type, clock));
        }
        return sorts;
    }

    private static Query.Sort sort(
            FieldPath path, boolean descending, RecordType type, Clock clock) {
        if (!path.last().onRead()) {
            return new Query.Sort(path, descending);
        }
        var names = path.steps().stream().map(Field::name).toList();
        return ConditionChecker.sortKey(type, names, clock)
                .map(key -> new Query.Sort(path, key, descending))
                .orElseThrow(() ->
                        wrong(
                                "You cannot sort by %s: it is worked out each time it is read, in a way the database cannot."
                                        .formatted(Quoted.of(path.written()))));
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

    private static String notAmong(String what, String name, List<String> known) {
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
