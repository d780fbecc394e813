package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import com.google.re2j.Matcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;

/** DMN 1.5 §10.3.4.3. Places count from 1, in code points. */
final class TextFunctions {
    private static final String CHAPTER = "Text";

    /** Text an expression may build: a message, not a library. */
    private static final int LONGEST = 1_000_000;

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of(
                                    "substring",
                                    CHAPTER,
                                    "The part of a text from a place on; places below 0 count from"
                                            + " the end.")
                            .form(
                                    Simple.TEXT,
                                    TextFunctions::substring,
                                    taking("string", ParameterKind.TEXT),
                                    taking("start position", ParameterKind.NUMBER),
                                    taking("length", ParameterKind.NUMBER).orAbsent())
                            .example("substring(\"Gullhaven\", 5)", "\"haven\"")
                            .example("substring(\"Gullhaven\", -5, 2)", "\"ha\""),
                    Builtin.of("string length", CHAPTER, "How many characters a text has.")
                            .form(
                                    Simple.NUMBER,
                                    arguments ->
                                            Decimal.of(
                                                    arguments
                                                            .text(0)
                                                            .codePointCount(
                                                                    0, arguments.text(0).length())),
                                    taking("string", ParameterKind.TEXT))
                            .example("string length(\"berth\")", "5"),
                    Builtin.of("upper case", CHAPTER, "The text in capital letters.")
                            .form(
                                    Simple.TEXT,
                                    arguments -> arguments.text(0).toUpperCase(Locale.ROOT),
                                    taking("string", ParameterKind.TEXT))
                            .example("upper case(\"n-07\")", "\"N-07\""),
                    Builtin.of("lower case", CHAPTER, "The text in small letters.")
                            .form(
                                    Simple.TEXT,
                                    arguments -> arguments.text(0).toLowerCase(Locale.ROOT),
                                    taking("string", ParameterKind.TEXT))
                            .example("lower case(\"N-07\")", "\"n-07\""),
                    Builtin.of(
                                    "substring before",
                                    CHAPTER,
                                    "What stands before the first match; empty text when there is"
                                            + " none.")
                            .form(
                                    Simple.TEXT,
                                    arguments -> {
                                        int at = arguments.text(0).indexOf(arguments.text(1));
                                        return at < 0 ? "" : arguments.text(0).substring(0, at);
                                    },
                                    taking("string", ParameterKind.TEXT),
                                    taking("match", ParameterKind.TEXT))
                            .example("substring before(\"N-07\", \"-\")", "\"N\""),
                    Builtin.of(
                                    "substring after",
                                    CHAPTER,
                                    "What stands behind the first match; empty text when there is"
                                            + " none.")
                            .form(
                                    Simple.TEXT,
                                    arguments -> {
                                        int at = arguments.text(0).indexOf(arguments.text(1));
                                        return at < 0
                                                ? ""
                                                : arguments
                                                        .text(0)
                                                        .substring(at + arguments.text(1).length());
                                    },
                                    taking("string", ParameterKind.TEXT),
                                    taking("match", ParameterKind.TEXT))
                            .example("substring after(\"N-07\", \"-\")", "\"07\""),
                    Builtin.of(
                                    "replace",
                                    CHAPTER,
                                    "The text with every match of a regular expression replaced; $1"
                                            + " is the first group.")
                            .form(
                                    Simple.TEXT,
                                    TextFunctions::replace,
                                    taking("input", ParameterKind.TEXT),
                                    taking("pattern", ParameterKind.TEXT),
                                    taking("replacement", ParameterKind.TEXT),
                                    taking("flags", ParameterKind.TEXT).orAbsent().orNull())
                            .example(
                                    "replace(\"N-07\", \"([A-Z])-([0-9]+)\", \"$2$1\")", "\"07N\""),
                    Builtin.of("contains", CHAPTER, "Whether a text stands in another.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> arguments.text(0).contains(arguments.text(1)),
                                    taking("string", ParameterKind.TEXT),
                                    taking("match", ParameterKind.TEXT))
                            .example("contains(\"Gullhaven\", \"haven\")", "true"),
                    Builtin.of("starts with", CHAPTER, "Whether a text begins with another.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> arguments.text(0).startsWith(arguments.text(1)),
                                    taking("string", ParameterKind.TEXT),
                                    taking("match", ParameterKind.TEXT))
                            .example("starts with(\"N-07\", \"N\")", "true"),
                    Builtin.of("ends with", CHAPTER, "Whether a text ends with another.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> arguments.text(0).endsWith(arguments.text(1)),
                                    taking("string", ParameterKind.TEXT),
                                    taking("match", ParameterKind.TEXT))
                            .example("ends with(\"N-07\", \"7\")", "true"),
                    Builtin.of(
                                    "matches",
                                    CHAPTER,
                                    "Whether a regular expression is found in a text.")
                            .form(
                                    Simple.BOOLEAN,
                                    TextFunctions::matches,
                                    taking("input", ParameterKind.TEXT),
                                    taking("pattern", ParameterKind.TEXT),
                                    taking("flags", ParameterKind.TEXT).orAbsent().orNull())
                            .example("matches(\"N-07\", \"^[A-Z]-[0-9]{2}$\")", "true"),
                    Builtin.of(
                                    "split",
                                    CHAPTER,
                                    "The pieces of a text between the matches of a regular"
                                            + " expression.")
                            .form(
                                    new LogicType.ListOf(Simple.TEXT),
                                    TextFunctions::split,
                                    taking("string", ParameterKind.TEXT),
                                    taking("delimiter", ParameterKind.TEXT))
                            .example("split(\"a;b;;c\", \";\")", "[\"a\", \"b\", \"\", \"c\"]"),
                    Builtin.of(
                                    "string join",
                                    CHAPTER,
                                    "The texts of a list in one, with something between them; null"
                                            + " items are left out.")
                            .form(
                                    Simple.TEXT,
                                    TextFunctions::join,
                                    taking("list", ParameterKind.LIST),
                                    taking("delimiter", ParameterKind.TEXT).orAbsent().orNull())
                            .example(
                                    "string join([\"N-07\", \"N-08\"], \", \")", "\"N-07, N-08\""));

    private TextFunctions() {}

    private static Object substring(CallArguments arguments) {
        var text = arguments.text(0);
        int length = text.codePointCount(0, text.length());
        int start = arguments.number(1).asInt().orElse(0);
        if (start == 0 || Math.abs((long) start) > length) {
            return arguments.fail(
                    "substring: the start position must be 1 to %d, or -1 to -%d."
                            .formatted(length, length));
        }
        int from = start > 0 ? start - 1 : length + start;
        int count = length - from;
        if (arguments.has(2)) {
            var wanted = arguments.number(2);
            if (wanted.compareTo(Decimal.ONE) < 0) {
                return arguments.fail("substring: the length must be at least 1.");
            }
            count =
                    Math.min(
                            count,
                            wanted.big().min(java.math.BigDecimal.valueOf(length)).intValue());
        }
        int begin = text.offsetByCodePoints(0, from);
        return text.substring(begin, text.offsetByCodePoints(begin, count));
    }

    private static String flags(CallArguments arguments, int index) {
        return arguments.has(index) ? arguments.text(index) : "";
    }

    private static Object matches(CallArguments arguments) {
        var pattern = Patterns.compiled(arguments.text(1), flags(arguments, 2));
        return pattern.isEmpty()
                ? badPattern(arguments, 1)
                : pattern.get().matcher(arguments.text(0)).find();
    }

    private static Object badPattern(CallArguments arguments, int index) {
        return arguments.fail(
                "%s is not a regular expression that can be used here."
                        .formatted(Quoted.of(arguments.text(index))));
    }

    private static Object replace(CallArguments arguments) {
        var pattern = Patterns.compiled(arguments.text(1), flags(arguments, 3));
        if (pattern.isEmpty()) {
            return badPattern(arguments, 1);
        }
        if (pattern.get().matcher("").find()) {
            return arguments.fail(
                    "replace: %s matches empty text, so there is no end of matches."
                            .formatted(Quoted.of(arguments.text(1))));
        }
        var input = arguments.text(0);
        var result = new StringBuilder();
        var matcher = pattern.get().matcher(input);
        int from = 0;
        boolean literal = flags(arguments, 3).indexOf('q') >= 0;
        while (matcher.find()) {
            result.append(input, from, matcher.start());
            boolean done = true;
            if (literal) {
                result.append(arguments.text(2));
            } else {
                done = expand(arguments.text(2), matcher, result);
            }
            if (!done || result.length() > LONGEST) {
                return arguments.fail(
                        done
                                ? "replace: the result is too long."
                                : "replace: behind $ a number is expected, as in $1.");
            }
            from = matcher.end();
        }
        return result.append(input.substring(from)).toString();
    }

    /** Appends a replacement with its groups, as XPath's {@code fn:replace} does. */
    private static boolean expand(String replacement, Matcher matcher, StringBuilder into) {
        for (int i = 0; i < replacement.length(); i++) {
            char c = replacement.charAt(i);
            if (c == '\\' && i + 1 < replacement.length()) {
                into.append(replacement.charAt(++i));
            } else if (c == '$') {
                int group = -1;
                int next = i + 1;
                while (next < replacement.length() && Character.isDigit(replacement.charAt(next))) {
                    int longer = Math.max(group, 0) * 10 + replacement.charAt(next) - '0';
                    if (group >= 0 && longer > matcher.groupCount()) {
                        break;
                    }
                    group = longer;
                    next++;
                }
                if (group < 0) {
                    return false;
                }
                if (group <= matcher.groupCount()) {
                    into.append(Objects.requireNonNullElse(matcher.group(group), ""));
                }
                i = next - 1;
            } else {
                into.append(c);
            }
        }
        return true;
    }

    private static Object split(CallArguments arguments) {
        var pattern = Patterns.compiled(arguments.text(1), "");
        if (pattern.isEmpty()) {
            return badPattern(arguments, 1);
        }
        if (pattern.get().matcher("").find()) {
            return arguments.fail("split: the delimiter matches empty text.");
        }
        var text = arguments.text(0);
        var pieces = new ArrayList<Object>();
        var matcher = pattern.get().matcher(text);
        int from = 0;
        while (matcher.find()) {
            pieces.add(text.substring(from, matcher.start()));
            from = matcher.end();
        }
        pieces.add(text.substring(from));
        return pieces;
    }

    private static Object join(CallArguments arguments) {
        var delimiter = arguments.has(1) ? arguments.text(1) : "";
        var result = new StringBuilder();
        boolean first = true;
        for (var item : arguments.list(0)) {
            if (item == Nothing.NULL) {
                continue;
            }
            if (!(item instanceof String text)) {
                return arguments.fail("string join: every item must be text.");
            }
            result.append(first ? "" : delimiter).append(text);
            first = false;
            if (result.length() > LONGEST) {
                return arguments.fail("string join: the result is too long.");
            }
        }
        return result.toString();
    }
}
