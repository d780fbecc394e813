package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import sandpiper.model.Diagnostic;

/**
 * Right texts made wrong in every way of some kinds: a name misspelt, a field of another type or
 * unit in its place, a code that is none, an argument too many, too few or of the wrong kind. The
 * checker must say something to nearly all of them.
 */
class WrongTextsTest {
    private static final double WANTED = 0.95;

    /** Fields of a stay by what they are; one of another kind is wrong in the place of one. */
    private static final Map<String, List<String>> KINDS =
            Map.of(
                    "number", List.of("nights", "draught"),
                    "amount", List.of("rate", "deposit"),
                    "percent", List.of("discount"),
                    "text", List.of("remark"),
                    "date", List.of("arrival", "departure"),
                    "flag", List.of("insured"),
                    "duration", List.of("grace"),
                    "record", List.of("berth"),
                    "list", List.of("charges"));

    private static final List<String> FORMULAS =
            List.of(
                    "decimal nights * 2 + draught",
                    "decimal (departure - arrival) / duration(\"P1D\")",
                    "decimal if insured then nights else draught",
                    "decimal sum(charges.quantity) + nights",
                    "decimal string length(remark) + count(charges)",
                    "decimal count(charges[quantity > 2])",
                    "decimal round half up(draught / 3, 1)",
                    "decimal max(nights, draught)",
                    "decimal modulo(nights, 7)",
                    "amount rate * (1 - discount)",
                    "amount rate * nights + deposit",
                    "amount sum(charges.price) + deposit",
                    "amount if kind = \"guest\" then rate else deposit",
                    "boolean arrival < departure and nights > 2",
                    "boolean berth.length > draught",
                    "boolean kind = \"guest\" or remark = \"x\"",
                    "boolean departure >= today()",
                    "boolean starts with(remark, \"N\")",
                    "boolean arrival.month = 5",
                    "boolean nights in [1..10] and insured",
                    "boolean discount > 5",
                    "boolean grace < duration(\"P2D\")",
                    "boolean not(insured)",
                    "text upper case(substring(remark, 1, 3))",
                    "text remark + \"/\" + string(nights)",
                    "date arrival + duration(\"P1D\")",
                    "date max(charges.on)");

    private static final List<String> STEPS =
            List.of(
                    "set remark = \"late\"",
                    "set deposit = rate * nights",
                    "set kind = \"guest\"",
                    "set discount = 5",
                    "set departure = arrival + duration(\"P3D\")",
                    "create charges { quantity: nights, price: rate }",
                    "create Stay { arrival: arrival, departure: departure, kind: \"guest\" }",
                    "require nights > 2 else reject \"Only {nights} nights.\" at departure",
                    "let total = rate * nights\nset deposit = total",
                    "for each line in charges\n  set line.quantity = line.quantity + nights\nend",
                    "if kind = \"guest\" then\n  set insured = true\nend",
                    "update berth { length: draught }");

    private static final Pattern WORD = Pattern.compile("\"[^\"]*\"|[A-Za-z_]\\w*");

    private static final List<String> NAMES =
            Stream.concat(
                            KINDS.values().stream().flatMap(List::stream),
                            Stream.of("kind", "quantity", "price", "on", "length", "Stay"))
                    .toList();

    /** One text made wrong. */
    private record Wrong(String kind, String right, String text) {}

    private static Map<String, String> files(String field, String rule) {
        var files = new LinkedHashMap<String, String>();
        files.put("marina/package.yaml", "package: marina\nversion: 1.0\n");
        files.put(
                "marina/objects/berth.yaml",
                """
                object: Berth
                fields:
                  length: { type: decimal }
                """);
        files.put(
                "marina/objects/stay.yaml",
                """
                object: Stay
                fields:
                  nights:    { type: integer }
                  draught:   { type: decimal }
                  rate:      { type: amount }
                  deposit:   { type: amount }
                  discount:  { type: percent }
                  remark:    { type: text }
                  arrival:   { type: date }
                  departure: { type: date }
                  insured:   { type: boolean }
                  grace:     { type: duration }
                  kind:      { type: choice, choices: [guest, resident] }
                  berth:     { type: reference, to: Berth }
                %s
                parts:
                  charges:
                    fields:
                      quantity: { type: decimal }
                      price:    { type: amount }
                      on:       { type: date }
                %s
                """
                        .formatted(field, rule));
        return files;
    }

    private static List<Diagnostic> diagnostics(String text) {
        if (STEPS.stream().anyMatch(text::startsWith) || isSteps(text)) {
            var rule = "rules:\n  test:\n    on: create\n    then: |\n" + text.indent(6);
            return Definitions.check(files("", rule)).diagnostics();
        }
        int space = text.indexOf(' ');
        var formula = text.substring(space + 1).replace("'", "''");
        return Definitions.check(
                        files(
                                "  test: { type: %s, formula: '%s' }"
                                        .formatted(text.substring(0, space), formula),
                                ""))
                .diagnostics();
    }

    private static boolean isSteps(String text) {
        return Stream.of("set ", "create ", "require ", "let ", "for each ", "if ", "update ")
                .anyMatch(text::startsWith);
    }

    @TestFactory
    Stream<DynamicTest> rightTextsAreRight() {
        return Stream.concat(FORMULAS.stream(), STEPS.stream())
                .map(text ->
                        DynamicTest.dynamicTest(
                                text, () -> assertThat(diagnostics(text)).isEmpty()));
    }

    @Test
    void nearlyAllThatIsWrongIsFound() {
        var wrong = new ArrayList<Wrong>();
        FORMULAS.forEach(text -> mutate(text, text.indexOf(' ') + 1, wrong));
        STEPS.forEach(text -> mutate(text, 0, wrong));
        var missed = new ArrayList<Wrong>();
        var counts = new TreeMap<String, int[]>();
        for (var one : wrong) {
            var count = counts.computeIfAbsent(one.kind(), _ -> new int[2]);
            count[0]++;
            if (diagnostics(one.text()).isEmpty()) {
                missed.add(one);
            } else {
                count[1]++;
            }
        }

        counts.forEach((kind, count) ->
                System.out.printf("Wrong texts, %s: %d of %d found%n", kind, count[1], count[0]));
        missed.forEach(one -> System.out.printf("Not found, %s: %s%n", one.kind(), one.text()));
        assertThat(wrong).hasSizeGreaterThan(400);
        assertThat(1.0 * (wrong.size() - missed.size()) / wrong.size())
                .as("of %d wrong texts, not found: %s", wrong.size(), missed)
                .isGreaterThanOrEqualTo(WANTED);
    }

    private static void mutate(String text, int from, List<Wrong> into) {
        var words = WORD.matcher(text);
        for (boolean found = words.find(from); found; found = words.find()) {
            var word = words.group();
            if (word.startsWith("\"")) {
                codes(text, words.start(), words.end(), into);
            } else if (NAMES.contains(word)) {
                var misspelt = word.substring(0, 1) + word.substring(2);
                into.add(new Wrong("name", text, swap(text, words.start(), words.end(), misspelt)));
                others(text, word, words.start(), words.end(), into);
            }
        }
        arguments(text, from, into);
    }

    private static String swap(String text, int start, int end, String by) {
        return text.substring(0, start) + by + text.substring(end);
    }

    private static void codes(String text, int start, int end, List<Wrong> into) {
        var code = text.substring(start + 1, end - 1);
        if (code.equals("guest")) {
            for (var other : List.of("guset", "Guest", "")) {
                into.add(new Wrong("code", text, swap(text, start, end, '"' + other + '"')));
            }
        } else if (code.startsWith("P")) {
            into.add(new Wrong("type", text, swap(text, start, end, "\"1 day\"")));
        }
    }

    private static void others(String text, String word, int start, int end, List<Wrong> into) {
        var own =
                KINDS.entrySet().stream()
                        .filter(kind -> kind.getValue().contains(word))
                        .map(Map.Entry::getKey)
                        .findFirst();
        boolean isKey = text.startsWith(":", end);
        boolean isMember = start > 0 && text.charAt(start - 1) == '.';
        boolean isSpelled = text.substring(0, start).endsWith("string(");
        boolean isMessage = text.substring(0, start).endsWith("{");
        boolean isAnyField = text.substring(0, start).endsWith(" at ");
        if (own.isEmpty() || isKey || isMember || isSpelled || isMessage || isAnyField) {
            return;
        }
        KINDS.forEach((kind, fields) -> {
            if (isRightToo(own.get(), kind, text, start)) {
                return;
            }
            boolean unit = List.of(own.get(), kind).containsAll(List.of("amount", "percent"));
            if (!kind.equals(own.get())) {
                into.add(
                        new Wrong(
                                unit ? "unit" : "type",
                                text,
                                swap(text, start, end, fields.getFirst())));
            }
        });
    }

    /**
     * Numbers stand for plain amounts and shares as well, a record among texts for its key, and a
     * whole number may be given to any of them.
     */
    private static boolean isRightToo(String own, String other, String text, int start) {
        var pair = List.of(own, other);
        boolean numbers =
                pair.containsAll(List.of("number", "amount"))
                        || pair.containsAll(List.of("number", "percent"));
        boolean texts = pair.containsAll(List.of("text", "record"));
        boolean fixed =
                pair.containsAll(List.of("amount", "percent"))
                        && Pattern.compile("^\\w+ (>|=) 5").matcher(text.substring(start)).find();
        return numbers || texts || fixed;
    }

    private static void arguments(String text, int from, List<Wrong> into) {
        var calls =
                Pattern.compile(
                                "(string length|round half up|modulo|starts with|upper"
                                        + " case|substring|duration|not|today)\\(")
                        .matcher(text);
        for (boolean found = calls.find(from); found; found = calls.find()) {
            int open = calls.end();
            int close = close(text, open);
            var given = text.substring(open, close);
            into.add(
                    new Wrong(
                            "argument",
                            text,
                            swap(text, open, close, given.isEmpty() ? "5" : given + ", 5, 5, 5")));
            if (!given.isEmpty()) {
                into.add(new Wrong("argument", text, swap(text, open, close, "")));
                into.add(
                        new Wrong(
                                "argument", text, swap(text, open, close, "@\"2026-05-01\", [1]")));
                into.add(
                        new Wrong("argument", text, swap(text, open, close, "nonsense: " + given)));
            }
        }
    }

    private static int close(String text, int from) {
        int level = 0;
        for (int i = from; i < text.length(); i++) {
            level += text.charAt(i) == '(' ? 1 : text.charAt(i) == ')' ? -1 : 0;
            if (level < 0) {
                return i;
            }
        }
        return text.length();
    }
}
