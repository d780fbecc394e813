package sandpiper.logic.syntax;

import java.util.List;

/**
 * FEEL's function names of more than one word (DMN 1.5 §10.3.4), which the grammar must know to
 * read them as one.
 */
final class FunctionNames {
    static final List<List<String>> OF_SEVERAL_WORDS =
            List.of(
                    List.of("starts", "with"),
                    List.of("ends", "with"),
                    List.of("date", "and", "time"),
                    List.of("string", "length"),
                    List.of("upper", "case"),
                    List.of("lower", "case"),
                    List.of("substring", "before"),
                    List.of("substring", "after"),
                    List.of("years", "and", "months", "duration"),
                    List.of("list", "contains"),
                    List.of("day", "of", "week"),
                    List.of("day", "of", "year"),
                    List.of("month", "of", "year"),
                    List.of("week", "of", "year"));

    private FunctionNames() {}
}
