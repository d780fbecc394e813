package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ObjIntConsumer;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.ListOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.FunctionValue;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Values;

/** DMN 1.5 §10.3.4.4 and §10.3.4.9. Places count from 1, below 0 from the end. */
final class ListFunctions {
    private static final String CHAPTER = "Lists";

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of("list contains", CHAPTER, "Whether a value is in a list.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments ->
                                            indexOf(arguments.list(0), arguments.any(1), arguments)
                                                    >= 0,
                                    taking("list", ParameterKind.LIST),
                                    taking("element", ParameterKind.ANY))
                            .example("list contains([1, 2, 3], 2)", "true"),
                    Builtin.of("sublist", CHAPTER, "The part of a list from a place on.")
                            .form(
                                    ListFunctions::sameList,
                                    ListFunctions::sublist,
                                    taking("list", ParameterKind.LIST),
                                    taking("start position", ParameterKind.NUMBER),
                                    taking("length", ParameterKind.NUMBER).orAbsent())
                            .example("sublist([4, 5, 6], 1, 2)", "[4, 5]"),
                    Builtin.of("append", CHAPTER, "The list with values behind it.")
                            .form(
                                    ListFunctions::anyList,
                                    arguments -> {
                                        var all = new ArrayList<>(arguments.list(0));
                                        all.addAll(arguments.list(1));
                                        return all;
                                    },
                                    taking("list", ParameterKind.LIST).orNull(),
                                    taking("item", ParameterKind.ANY).andMore())
                            .example("append([1], 2, 3)", "[1, 2, 3]"),
                    Builtin.of("concatenate", CHAPTER, "Lists one behind the other.")
                            .form(
                                    ListFunctions::common,
                                    ListFunctions::concatenate,
                                    taking("list", ParameterKind.LIST).andMore())
                            .example("concatenate([1, 2], [3])", "[1, 2, 3]"),
                    Builtin.of(
                                    "insert before",
                                    CHAPTER,
                                    "The list with a value put in before a place.")
                            .form(
                                    ListFunctions::anyList,
                                    ListFunctions::insert,
                                    taking("list", ParameterKind.LIST),
                                    taking("position", ParameterKind.NUMBER),
                                    taking("newItem", ParameterKind.ANY))
                            .example("insert before([1, 3], 1, 2)", "[2, 1, 3]"),
                    Builtin.of("remove", CHAPTER, "The list without the item at a place.")
                            .form(
                                    ListFunctions::sameList,
                                    ListFunctions::remove,
                                    taking("list", ParameterKind.LIST),
                                    taking("position", ParameterKind.NUMBER))
                            .example("remove([1, 2, 3], 2)", "[1, 3]"),
                    Builtin.of(
                                    "list replace",
                                    CHAPTER,
                                    "The list with another item at a place, or wherever a function"
                                            + " says so.")
                            .form(
                                    ListFunctions::anyList,
                                    ListFunctions::replaceAt,
                                    taking("list", ParameterKind.LIST),
                                    taking("position", ParameterKind.NUMBER),
                                    taking("newItem", ParameterKind.ANY))
                            .form(
                                    ListFunctions::anyList,
                                    ListFunctions::replaceMatching,
                                    taking("list", ParameterKind.LIST),
                                    taking("match", ParameterKind.FUNCTION),
                                    taking("newItem", ParameterKind.ANY))
                            .example("list replace([2, 4, 7, 8], 3, 6)", "[2, 4, 6, 8]")
                            .example(
                                    "list replace([2, 4, 7, 8], function(item, newItem) item <"
                                            + " newItem, 5)",
                                    "[5, 5, 7, 8]"),
                    Builtin.of("reverse", CHAPTER, "The list from its end to its beginning.")
                            .form(
                                    ListFunctions::sameList,
                                    arguments -> new ArrayList<>(arguments.list(0).reversed()),
                                    taking("list", ParameterKind.LIST))
                            .example("reverse([1, 2, 3])", "[3, 2, 1]"),
                    Builtin.of("index of", CHAPTER, "All places at which a value stands.")
                            .form(
                                    new ListOf(Simple.NUMBER),
                                    ListFunctions::indexes,
                                    taking("list", ParameterKind.LIST),
                                    taking("match", ParameterKind.ANY))
                            .example("index of([1, 2, 3, 2], 2)", "[2, 4]"),
                    Builtin.of("union", CHAPTER, "Lists one behind the other, each value once.")
                            .form(
                                    ListFunctions::common,
                                    arguments -> distinct(concatenate(arguments), arguments),
                                    taking("list", ParameterKind.LIST).andMore())
                            .example("union([1, 2], [2, 3])", "[1, 2, 3]"),
                    Builtin.of("distinct values", CHAPTER, "The list with each value once.")
                            .form(
                                    ListFunctions::sameList,
                                    arguments -> distinct(arguments.list(0), arguments),
                                    taking("list", ParameterKind.LIST))
                            .example("distinct values([1, 2, 1])", "[1, 2]"),
                    Builtin.of("flatten", CHAPTER, "The items of lists in lists, in one list.")
                            .form(
                                    new ListOf(Simple.ANY),
                                    ListFunctions::flatten,
                                    taking("list", ParameterKind.LIST))
                            .example("flatten([[1, 2], [[3]], 4])", "[1, 2, 3, 4]"),
                    Builtin.of(
                                    "sort",
                                    CHAPTER,
                                    "The list in an order; the function says whether its first"
                                            + " argument comes before its second.")
                            .form(
                                    ListFunctions::sameList,
                                    ListFunctions::sort,
                                    taking("list", ParameterKind.LIST),
                                    taking("precedes", ParameterKind.FUNCTION).orAbsent().orNull())
                            .example("sort([3, 1, 2], function(x, y) x < y)", "[1, 2, 3]"));

    private ListFunctions() {}

    private static LogicType sameList(List<LogicType> arguments) {
        return new ListOf(arguments.isEmpty() ? Simple.ANY : arguments.getFirst().itemType());
    }

    private static LogicType anyList(List<LogicType> arguments) {
        LogicType item = arguments.isEmpty() ? Simple.ANY : arguments.getFirst().itemType();
        return new ListOf(
                arguments.size() > 1 ? LogicType.common(item, arguments.getLast()) : item);
    }

    private static LogicType common(List<LogicType> arguments) {
        return new ListOf(
                arguments.stream()
                        .map(LogicType::itemType)
                        .reduce(LogicType::common)
                        .orElse(Simple.ANY));
    }

    private static int indexOf(List<Object> list, Object value, CallArguments arguments) {
        arguments.run().spend(list.size());
        for (int i = 0; i < list.size(); i++) {
            if (Values.same(list.get(i), value)) {
                return i;
            }
        }
        return -1;
    }

    /** The place from 0, or -1 when there is none. */
    private static int place(CallArguments arguments, int size) {
        int position = arguments.number(1).asInt().orElse(0);
        int place = position > 0 ? position - 1 : size + position;
        if (position == 0 || place < 0 || place >= size) {
            arguments.run().note("The list has no place %s.".formatted(arguments.number(1)));
            return -1;
        }
        return place;
    }

    private static Object sublist(CallArguments arguments) {
        var list = arguments.list(0);
        int from = place(arguments, list.size());
        if (from < 0) {
            return Nothing.NULL;
        }
        int length = arguments.has(2) ? arguments.number(2).asInt().orElse(0) : list.size() - from;
        if (length < 1 || from + (long) length > list.size()) {
            return arguments.fail("sublist: there are not that many items.");
        }
        return new ArrayList<>(list.subList(from, from + length));
    }

    private static List<Object> concatenate(CallArguments arguments) {
        var all = new ArrayList<>();
        for (var one : arguments.list(0)) {
            if (one instanceof List<?> list) {
                all.addAll(list);
            } else {
                all.add(one);
            }
        }
        arguments.run().spend(all.size());
        return all;
    }

    private static Object insert(CallArguments arguments) {
        return changedAt(arguments, (copy, place) -> copy.add(place, arguments.any(2)));
    }

    private static Object remove(CallArguments arguments) {
        return changedAt(arguments, (copy, place) -> copy.remove(place));
    }

    private static Object replaceAt(CallArguments arguments) {
        return changedAt(arguments, (copy, place) -> copy.set(place, arguments.any(2)));
    }

    /** A copy of the list, changed at the given position; null when it has no such position. */
    private static Object changedAt(
            CallArguments arguments, ObjIntConsumer<? super List<Object>> change) {
        int place = place(arguments, arguments.list(0).size());
        if (place < 0) {
            return Nothing.NULL;
        }
        var copy = new ArrayList<>(arguments.list(0));
        change.accept(copy, place);
        return copy;
    }

    private static Object replaceMatching(CallArguments arguments) {
        var copy = new ArrayList<Object>();
        for (var item : arguments.list(0)) {
            var matches = arguments.function(1).call(List.of(item, arguments.any(2)));
            if (!(matches instanceof Boolean yes)) {
                return arguments.fail("list replace: the function must come to true or false.");
            }
            copy.add(yes ? arguments.any(2) : item);
        }
        return copy;
    }

    private static Object indexes(CallArguments arguments) {
        var places = new ArrayList<Object>();
        var list = arguments.list(0);
        arguments.run().spend(list.size());
        for (int i = 0; i < list.size(); i++) {
            if (Values.same(list.get(i), arguments.any(1))) {
                places.add(Decimal.of(i + 1L));
            }
        }
        return places;
    }

    private static List<Object> distinct(List<Object> all, CallArguments arguments) {
        var seen = new ArrayList<Object>();
        for (var item : all) {
            if (indexOf(seen, item, arguments) < 0) {
                seen.add(item);
            }
        }
        return seen;
    }

    private static Object flatten(CallArguments arguments) {
        var flat = new ArrayList<Object>();
        flatten(arguments.list(0), flat, arguments);
        return flat;
    }

    private static void flatten(List<?> list, List<Object> into, CallArguments arguments) {
        arguments.run().spend(list.size());
        for (var item : list) {
            if (item instanceof List<?> inner) {
                flatten(inner, into, arguments);
            } else {
                into.add(item);
            }
        }
    }

    private static Object sort(CallArguments arguments) {
        var precedes = arguments.has(1) ? arguments.function(1) : null;
        var sorted = mergeSort(new ArrayList<>(arguments.list(0)), precedes, arguments);
        return sorted == null
                ? arguments.fail("sort: these values have no order between them.")
                : sorted;
    }

    /**
     * Sorts by halves, stable. A library's sort may throw when a function somebody wrote
     * contradicts itself; this one ends in some order.
     */
    private static @Nullable List<Object> mergeSort(
            List<Object> list, @Nullable FunctionValue precedes, CallArguments arguments) {
        if (list.size() < 2) {
            return list;
        }
        arguments.run().spend(list.size());
        int middle = list.size() / 2;
        var left = mergeSort(list.subList(0, middle), precedes, arguments);
        var right = mergeSort(list.subList(middle, list.size()), precedes, arguments);
        if (left == null || right == null) {
            return null;
        }
        var merged = new ArrayList<Object>(list.size());
        int i = 0;
        int j = 0;
        while (i < left.size() && j < right.size()) {
            var rightFirst = isBefore(right.get(j), left.get(i), precedes);
            if (rightFirst == null) {
                return null;
            }
            merged.add(rightFirst ? right.get(j++) : left.get(i++));
        }
        merged.addAll(left.subList(i, left.size()));
        merged.addAll(right.subList(j, right.size()));
        return merged;
    }

    private static @Nullable Boolean isBefore(
            Object a, Object b, @Nullable FunctionValue precedes) {
        if (precedes != null) {
            return precedes.call(List.of(a, b)) instanceof Boolean before ? before : null;
        }
        var order = Values.order(a, b);
        return order == null ? null : order < 0;
    }
}
