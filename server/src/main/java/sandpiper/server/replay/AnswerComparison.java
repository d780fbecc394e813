package sandpiper.server.replay;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Compares what a request is answered without the draft and with it. Keys that are given by the
 * service, and what it says of now, are no differences: where one copy made a record more, its
 * numbers run ahead.
 */
final class AnswerComparison {
    private static final int NAMED = 5;
    private static final Duration SAME_MOMENT = Duration.ofMinutes(5);
    private static final Pattern UUID_TEXT =
            Pattern.compile("[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");

    /** Where a problem is told, in the protocols' forms, what is more telling first. */
    private static final List<String> CODES = List.of("errors[].code", "code", "error.code");

    private static final List<String> MESSAGES =
            List.of(
                    "errors[].message",
                    "message",
                    "error.message",
                    "detail",
                    "faultstring",
                    "Text");

    /** Keys that were given without the draft, and with it to the same. */
    private final Map<String, String> keys = new HashMap<>();

    /** Those of the answers that are compared. */
    private String keyBefore = "";

    private String keyAfter = "";

    /**
     * How two answers differ.
     *
     * @param kind the same for all that differ in the same way
     * @param now the one without the draft, in words
     * @param then the one with it
     */
    record Difference(String kind, String now, String then) {}

    /** What is other in the second one, or nothing. */
    Optional<Difference> compare(ReplayedAnswer before, ReplayedAnswer after) {
        note(before, after);
        if (before.status() != after.status()) {
            return Optional.of(said(before, after));
        }
        if (!before.isGood()) {
            var codes = codes(before);
            return codes.equals(codes(after)) ? Optional.empty() : Optional.of(said(before, after));
        }
        return compared(before, after);
    }

    private void note(ReplayedAnswer before, ReplayedAnswer after) {
        keyBefore = key(before);
        keyAfter = key(after);
        if (!keyBefore.isEmpty() && !keyAfter.isEmpty()) {
            keys.put(keyBefore, keyAfter);
        }
    }

    private static String key(ReplayedAnswer answer) {
        var last = answer.location().substring(answer.location().lastIndexOf('/') + 1);
        // OData has it in brackets.
        return last.replaceFirst("^[^(]*\\('?", "").replaceFirst("'?\\)$", "");
    }

    private Difference said(ReplayedAnswer before, ReplayedAnswer after) {
        return new Difference(
                "%s %s > %s %s"
                        .formatted(before.status(), codes(before), after.status(), codes(after)),
                inWords(before, List.of()),
                inWords(after, messages(before)));
    }

    /** What it says that was not said before tells more than what was. */
    private static String inWords(ReplayedAnswer answer, List<String> known) {
        var messages = messages(answer);
        var told =
                messages.stream()
                        .filter(message -> !known.contains(message))
                        .findFirst()
                        .or(() -> messages.stream().findFirst())
                        .orElse("");
        return "%d %s".formatted(answer.status(), told).strip();
    }

    private static List<String> messages(ReplayedAnswer answer) {
        return answer.isGood() ? List.of() : at(answer.values(), MESSAGES);
    }

    private static List<String> codes(ReplayedAnswer answer) {
        return answer.isGood() ? List.of() : at(answer.values(), CODES);
    }

    private static List<String> at(Map<String, List<String>> values, List<String> places) {
        for (var place : places) {
            for (var one : values.entrySet()) {
                if (one.getKey().equals(place) || one.getKey().endsWith("." + place)) {
                    return one.getValue();
                }
            }
        }
        return List.of();
    }

    private Optional<Difference> compared(ReplayedAnswer before, ReplayedAnswer after) {
        var now = before.values();
        var then = after.values();
        var other = new TreeSet<String>();
        var gone = new TreeSet<String>();
        var added = new TreeSet<String>();
        now.forEach((place, values) -> {
            var others = then.get(place);
            if (others == null) {
                gone.add(place);
            } else if (!areSame(values, others)) {
                other.add(place);
            }
        });
        then.keySet().stream().filter(place -> !now.containsKey(place)).forEach(added::add);
        if (other.isEmpty() && gone.isEmpty() && added.isEmpty()) {
            return Optional.empty();
        }
        var words =
                Stream.of(
                                phrase("without", gone, ""),
                                phrase("with", added, " besides"),
                                phrase("with another", other, ""))
                        .filter(phrase -> !phrase.isEmpty())
                        .toList();
        return Optional.of(
                new Difference(
                        "%s - %s + %s ~ %s".formatted(before.status(), gone, added, other),
                        before.status() + shown(other, now),
                        "%d %s%s"
                                .formatted(
                                        after.status(),
                                        String.join(", ", words),
                                        shownAfter(other, then))));
    }

    /** One value shows more than its name. */
    private static String shown(SortedSet<String> other, Map<String, List<String>> values) {
        return value(other, values)
                .map(value -> " with %s %s".formatted(other.first(), value))
                .orElse("");
    }

    private static String shownAfter(SortedSet<String> other, Map<String, List<String>> values) {
        return value(other, values).map(": %s"::formatted).orElse("");
    }

    private static Optional<String> value(
            SortedSet<String> other, Map<String, List<String>> values) {
        return other.size() != 1
                ? Optional.empty()
                : Optional.ofNullable(values.get(other.first()))
                        .filter(list -> list.size() == 1)
                        .map(List::getFirst);
    }

    private static String phrase(String word, SortedSet<String> places, String end) {
        if (places.isEmpty()) {
            return "";
        }
        var named = new ArrayList<>(places.stream().limit(NAMED).toList());
        if (places.size() > NAMED) {
            named.add("%d more".formatted(places.size() - NAMED));
        }
        return "%s %s%s".formatted(word, String.join(", ", named), end);
    }

    private boolean areSame(List<String> values, List<String> others) {
        if (values.size() != others.size()) {
            return false;
        }
        for (int i = 0; i < values.size(); i++) {
            if (!isSame(values.get(i), others.get(i))) {
                return false;
            }
        }
        return true;
    }

    private boolean isSame(String one, String other) {
        return one.equals(other)
                || isSameKey(one, other)
                || (UUID_TEXT.matcher(one).matches() && UUID_TEXT.matcher(other).matches())
                || isSameMoment(one, other);
    }

    /** A key, or text that holds that of the record itself, as an address or a title does. */
    private boolean isSameKey(String one, String other) {
        return other.equals(keys.get(one))
                || (!keyBefore.isEmpty() && one.replace(keyBefore, keyAfter).equals(other));
    }

    private static boolean isSameMoment(String one, String other) {
        var first = moment(one);
        var second = moment(other);
        return first != null
                && second != null
                && Duration.between(first, second).abs().compareTo(SAME_MOMENT) < 0;
    }

    private static @Nullable Instant moment(String text) {
        return Stream.<Function<String, Instant>>of(
                        Instant::parse,
                        local -> LocalDateTime.parse(local).toInstant(ZoneOffset.UTC))
                .map(way -> tried(way, text))
                .flatMap(Optional::stream)
                .findFirst()
                .orElse(null);
    }

    private static Optional<Instant> tried(Function<String, Instant> way, String text) {
        try {
            return Optional.of(way.apply(text));
        } catch (DateTimeParseException _) {
            return Optional.empty();
        }
    }
}
