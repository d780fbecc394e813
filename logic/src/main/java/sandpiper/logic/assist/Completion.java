package sandpiper.logic.assist;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.check.Properties;
import sandpiper.logic.check.Scope;
import sandpiper.logic.function.Builtins;
import sandpiper.logic.syntax.StepParser;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.ChoiceOf;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.Member;

/**
 * Offers what can stand at a place. What is written before the place decides: behind a point the
 * members of what is before it, behind a comparison with a choice its codes first, at the beginning
 * of a line of steps their words.
 */
public final class Completion {
    private static final int MOST = 200;

    private final TextKind kind;
    private final NameContext setting;
    private final int[] text;
    private final int place;

    private Completion(TextKind kind, String text, int place, NameContext setting) {
        this.kind = kind;
        this.setting = setting;
        this.text = text.codePoints().toArray();
        this.place = Math.clamp(place, 0, this.text.length);
    }

    /**
     * Something to put in.
     *
     * @param insert the text to put in the place of what was begun
     * @param kind {@code field}, {@code function}, {@code object}, {@code name}, {@code code},
     *     {@code step} or {@code word}
     * @param detail its type or how it is called
     * @param describe a sentence about it, or empty
     */
    public record Item(String label, String insert, String kind, String detail, String describe) {}

    /**
     * What can be put in.
     *
     * @param from where the word that was begun starts; code points from 0
     * @param items best first
     */
    public record Offer(int from, List<Item> items) {}

    /** A call that has begun, perhaps with the name of an outside service. */
    private static final Pattern CALLED =
            Pattern.compile("(?:^|[\\s=])call\\s+(?:([a-z][a-z0-9]*(?:-[a-z0-9]+)*)\\.)?$");

    /** Offers for a place in a text, in code points from 0. */
    public static Offer at(TextKind kind, String text, int place, NameContext setting) {
        return new Completion(kind, text, place, setting).offer();
    }

    private Offer offer() {
        int from = place;
        while (from > 0 && isNamePart(text[from - 1])) {
            from--;
        }
        var begun = new String(text, from, place - from);
        if (kind == TextKind.MESSAGE && !insideBraces(from)) {
            return new Offer(place, List.of());
        }
        var items = new ArrayList<Item>();
        if (kind == TextKind.STEPS && outside(from, items)) {
            return new Offer(from, ranked(items, begun));
        }
        if (from > 0 && text[from - 1] == '.' && (from < 2 || text[from - 2] != '.')) {
            members(from, items);
        } else if (kind == TextKind.STEPS && startsLine(from)) {
            StepParser.WORDS.forEach(
                    word -> items.add(new Item(word, word + " ", "step", "", stepHelp(word))));
            items.add(new Item("end", "end", "step", "", "Ends if and for each."));
        } else {
            names(from, items);
        }
        return new Offer(from, ranked(items, begun));
    }

    /**
     * Offers outside services behind call, and what one gives behind its name; tells whether that
     * is all there is to offer.
     */
    private boolean outside(int from, List<Item> items) {
        var head = CALLED.matcher(new String(text, 0, from));
        if (!head.find()) {
            return false;
        }
        var world = setting.world();
        var named = head.group(1);
        if (named == null) {
            world.connectionNames()
                    .forEach(name -> items.add(new Item(name, name + ".", "name", "outside", "")));
            return false;
        }
        var service = world.connection(named);
        service.ifPresent(one ->
                one.functions()
                        .forEach(each ->
                                items.add(
                                        new Item(
                                                each.name(),
                                                each.name() + "(",
                                                "function",
                                                signature(each),
                                                each.isKept() ? "Its answers are kept." : ""))));
        return service.isPresent();
    }

    private static String signature(FunctionType function) {
        var parameters =
                function.parameters().stream()
                        .map(one -> one.name() + ": " + one.type().described())
                        .toList();
        return "(%s)".formatted(String.join(", ", parameters));
    }

    private static boolean isNamePart(int c) {
        return Character.isLetterOrDigit(c) || c == '_';
    }

    private boolean insideBraces(int at) {
        int level = 0;
        for (int i = 0; i < at; i++) {
            level += text[i] == '{' ? 1 : text[i] == '}' ? -1 : 0;
        }
        return level > 0;
    }

    private boolean startsLine(int from) {
        for (int i = from - 1; i >= 0; i--) {
            if (text[i] == '\n') {
                return true;
            }
            if (!Character.isWhitespace(text[i])) {
                return false;
            }
        }
        return true;
    }

    private static String stepHelp(String word) {
        return switch (word) {
            case "let" -> "A name for a value: let days = departure - arrival";
            case "set" -> "Sets a field: set approvalRequired = true";
            case "if" -> "Chooses: if nights > 14 then ... else ... end";
            case "for" -> "Repeats: for each charge in charges ... end";
            case "create" -> "Makes a record or a line item: create charges { quantity: 1 }";
            case "update" -> "Changes a record: update berth { powered: true }";
            case "save" -> "Makes or changes by key: save Tariff by key { code: \"P1\" }";
            case "retire" -> "Takes a record out of use: retire berth";
            case "transition" -> "Takes a step of the lifecycle: transition confirm";
            case "require" -> "Stops unless it holds: require nights > 0 else reject \"...\"";
            case "reject" -> "Stops with a message: reject \"No berth is free.\" at berth";
            case "warn" -> "Goes on with a message: warn \"This is a long stay.\"";
            default -> "Writes into the trace: note \"Power is {pier.powerDrawn}\"";
        };
    }

    /** The text up to a place, read as if it stopped there. */
    private Analysis before(int at) {
        var head = new String(text, 0, at);
        if (kind == TextKind.MESSAGE) {
            head = head + "}";
        }
        return Analysis.of(kind == TextKind.CONDITION ? TextKind.EXPRESSION : kind, head, setting);
    }

    private void members(int from, List<Item> items) {
        var analysis = before(from);
        var source =
                analysis.meanings().entrySet().stream()
                        .filter(entry ->
                                entry.getKey().start() <= from && entry.getKey().end() >= from - 1)
                        .filter(entry -> entry.getKey().end() <= from)
                        .reduce((_, last) -> last)
                        .map(Map.Entry::getValue);
        source.ifPresent(term -> membersOf(term.type(), items));
    }

    private static void membersOf(LogicType type, List<Item> items) {
        var item = type.itemType();
        if (item instanceof RecordOf(var record)) {
            record.memberNames()
                    .forEach(name ->
                            record.member(name).ifPresent(member -> items.add(field(member))));
            return;
        }
        Properties.of(item)
                .forEach((name, property) ->
                        items.add(new Item(name, name, "field", property.described(), "")));
    }

    private static Item field(Member member) {
        return new Item(
                member.name(),
                member.name(),
                "field",
                member.type().described(),
                member.describe());
    }

    private void names(int from, List<Item> items) {
        var compared = comparedChoice(from);
        compared.ifPresent(choice ->
                choice.codes()
                        .forEach(code ->
                                items.add(
                                        new Item(
                                                '"' + code + '"',
                                                '"' + code + '"',
                                                "code",
                                                "",
                                                ""))));
        var scope = before(from).scopeAt(from);
        for (Scope at = scope; at != null; at = at.outer()) {
            at.names()
                    .forEach((name, term) ->
                            items.add(new Item(name, name, "name", term.type().described(), "")));
            var record = at.record();
            if (record != null) {
                record.memberNames()
                        .forEach(name ->
                                record.member(name).ifPresent(member -> items.add(field(member))));
            }
        }
        for (var function : Builtins.all()) {
            items.add(
                    new Item(
                            function.name(),
                            function.name() + "(",
                            "function",
                            function.written().getFirst(),
                            function.describe()));
        }
        setting.world()
                .objectNames()
                .forEach(name ->
                        items.add(new Item(name, name, "object", "all records of " + name, "")));
        for (var word :
                List.of("and", "or", "not(", "if ", "in ", "between ", "true", "false", "null")) {
            items.add(new Item(word.strip(), word, "word", "", ""));
        }
    }

    /** The choice that is compared right before a place: {@code state = |}. */
    private Optional<ChoiceOf> comparedChoice(int from) {
        int end = from;
        while (end > 0 && (Character.isWhitespace(text[end - 1]) || text[end - 1] == '"')) {
            end--;
        }
        int operator = end;
        while (operator > 0 && "=!(,".indexOf(text[operator - 1]) >= 0) {
            operator--;
        }
        if (operator == end) {
            return Optional.empty();
        }
        int stop = operator;
        while (stop > 0 && Character.isWhitespace(text[stop - 1])) {
            stop--;
        }
        if (stop >= 2
                && text[stop - 1] == 'n'
                && text[stop - 2] == 'i'
                && (stop == 2 || !isNamePart(text[stop - 3]))) {
            stop -= 2;
            while (stop > 0 && Character.isWhitespace(text[stop - 1])) {
                stop--;
            }
        }
        int start = stop;
        while (start > 0 && (isNamePart(text[start - 1]) || text[start - 1] == '.')) {
            start--;
        }
        if (start == stop) {
            return Optional.empty();
        }
        var checked = Checker.check(new String(text, start, stop - start), setting);
        return checked.isAccepted() && checked.term().type() instanceof ChoiceOf choice
                ? Optional.of(choice)
                : Optional.empty();
    }

    private List<Item> ranked(List<Item> items, String begun) {
        var wanted = begun.toLowerCase(Locale.ROOT);
        var once = new LinkedHashMap<String, Item>();
        items.forEach(item -> once.putIfAbsent(item.label(), item));
        return once.values().stream()
                .filter(item -> score(item, wanted) >= 0)
                .sorted(Comparator.comparingInt((Item item) -> -score(item, wanted)))
                .limit(MOST)
                .toList();
    }

    /** How well an item fits what was begun: its beginning, a word in it, or not at all (-1). */
    private int score(Item item, String wanted) {
        var label = item.label().toLowerCase(Locale.ROOT);
        int match =
                wanted.isEmpty() || label.startsWith(wanted) ? 2 : label.contains(wanted) ? 1 : -1;
        if (match < 0) {
            return -1;
        }
        @Nullable Integer weight =
                Map.of("code", 6, "step", 5, "name", 4, "field", 3, "function", 2, "object", 1)
                        .get(item.kind());
        boolean fits =
                kind == TextKind.CONDITION && item.detail().equals(Simple.BOOLEAN.described());
        return match * 20 + (weight == null ? 0 : weight) * 2 + (fits ? 1 : 0);
    }
}
