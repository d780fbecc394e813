package sandpiper.server.rest;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;

/**
 * One thing that a batch asks for.
 *
 * @param key of the record; there for all but {@code create}, where {@code save} may do without
 * @param call what is called on it, for {@link Verb#CALL} alone
 * @param values fields or arguments
 * @param version the version of the record that was read, or {@code null} for any
 */
record BatchItem(
        Verb verb,
        @Nullable String key,
        @Nullable String call,
        Map<String, @Nullable Object> values,
        @Nullable Long version) {

    /** What is to be done, with the members an item of it may have. */
    enum Verb {
        CREATE(List.of()),
        UPDATE(List.of("key", "version")),
        SAVE(List.of("key", "version")),
        CALL(List.of("key", "version", "call"));

        private final List<String> members;

        Verb(List<String> members) {
            this.members = members;
        }

        private boolean takes(String member) {
            return member.equals("do") || member.equals("values") || members.contains(member);
        }
    }

    /**
     * Reads an item, which must be an object with what it needs and nothing else.
     *
     * @param place of the item in its batch, from 0; a {@link ProblemException} names it
     */
    static BatchItem of(@Nullable Object item, int place) {
        if (!(item instanceof Map<?, ?> map) || !(map.get("values") instanceof Map<?, ?> given)) {
            throw wrong(
                    place,
                    "must have do and values, as in {\"do\": \"create\", \"values\": {...}}");
        }
        var verb = verb(map.get("do"), place);
        for (var member : map.keySet()) {
            if (!verb.takes(String.valueOf(member))) {
                throw wrong(
                        place,
                        "has %s, which is not taken where do is \"%s\""
                                .formatted(member, map.get("do")));
            }
        }
        var key = text(map, "key", place);
        var call = text(map, "call", place);
        if (key == null && (verb == Verb.UPDATE || verb == Verb.CALL)) {
            throw wrong(
                    place,
                    verb == Verb.UPDATE
                            ? "needs the key of the record to update"
                            : "needs the key of the record, and what to call on it");
        }
        if (call == null && verb == Verb.CALL) {
            throw wrong(place, "needs the key of the record, and what to call on it");
        }
        var version = map.get("version");
        if (version != null && !(version instanceof Long)) {
            throw wrong(place, "must have a whole number as version");
        }
        var values = new LinkedHashMap<String, @Nullable Object>();
        given.forEach((name, value) -> values.put(String.valueOf(name), value));
        return new BatchItem(verb, key, call, values, (Long) version);
    }

    private static Verb verb(@Nullable Object written, int place) {
        for (var verb : Verb.values()) {
            if (verb.name().toLowerCase(Locale.ROOT).equals(written)) {
                return verb;
            }
        }
        throw wrong(place, "must say what to do: create, update, save or call");
    }

    private static @Nullable String text(Map<?, ?> map, String member, int place) {
        var value = map.get(member);
        if (value != null && !(value instanceof String)) {
            throw wrong(place, "must have a text as " + member);
        }
        return (String) value;
    }

    private static ProblemException wrong(int place, String what) {
        return new ProblemException(
                HttpStatus.BAD_REQUEST,
                "Item %d %s; nothing was done.".formatted(place + 1, what),
                List.of(
                        new Problem.Wrong(
                                FaultPath.of("items").then(place),
                                "SP4000",
                                "This item " + what + ".")));
    }
}
