package sandpiper.logic.syntax;

import java.util.List;
import java.util.stream.Stream;

/**
 * FEEL's names of more than one word (DMN 1.5 §10.3.4), which the grammar must know to read them as
 * one.
 */
final class FunctionNames {
    static final List<List<String>> OF_SEVERAL_WORDS =
            words(
                    "starts with",
                    "ends with",
                    "date and time",
                    "string length",
                    "upper case",
                    "lower case",
                    "substring before",
                    "substring after",
                    "years and months duration",
                    "string join",
                    "list contains",
                    "list replace",
                    "insert before",
                    "index of",
                    "distinct values",
                    "round half up",
                    "round half down",
                    "round up",
                    "round down",
                    "get value",
                    "get entries",
                    "context put",
                    "context merge",
                    "met by",
                    "overlaps before",
                    "overlaps after",
                    "finished by",
                    "started by",
                    "day of week",
                    "day of year",
                    "month of year",
                    "week of year",
                    "is new");

    /** Properties of dates, times and ranges. */
    static final List<List<String>> PROPERTIES =
            words("time offset", "start included", "end included");

    /** Types behind {@code instance of}. */
    static final List<List<String>> TYPES =
            words("date and time", "days and time duration", "years and months duration");

    private FunctionNames() {}

    private static List<List<String>> words(String... names) {
        return Stream.of(names).map(name -> List.of(name.split(" "))).toList();
    }
}
