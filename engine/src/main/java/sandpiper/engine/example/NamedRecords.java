package sandpiper.engine.example;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.definition.Requirement.Action;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;

/** The records of an example by the names it gives them. */
final class NamedRecords {
    private final LiveRelease live;
    private final Map<String, Subject> named = new LinkedHashMap<>();

    NamedRecords(LiveRelease live) {
        this.live = live;
    }

    /** A record by its object and key. */
    record Subject(ObjectType object, String key) {}

    /** The one that something was done with last; nothing before that. */
    Optional<Subject> last() {
        return Optional.ofNullable(named.get(""));
    }

    /** The record that is written as {@code Object/key} or by a name given before. */
    Subject find(String written) {
        int slash = written.indexOf('/');
        var known = named.get(written);
        return known != null
                ? known
                : new Subject(
                        live.release().object(written.substring(0, Math.max(0, slash))),
                        written.substring(slash + 1));
    }

    /** Values with the keys of records in the place of their names. */
    Map<String, @Nullable Object> resolved(Map<String, @Nullable Object> values) {
        var resolved = new LinkedHashMap<String, @Nullable Object>();
        values.forEach((name, value) -> resolved.put(name, resolved(value)));
        return resolved;
    }

    /** A value with keys in the place of names, however deep they lie. */
    @Nullable Object resolved(@Nullable Object value) {
        return switch (value) {
            case String text when named.containsKey(text) -> find(text).key();
            case List<?> list -> {
                var all = new ArrayList<@Nullable Object>();
                list.forEach(one -> all.add(resolved(one)));
                yield all;
            }
            case Map<?, ?> map -> {
                var all = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((name, one) -> all.put(String.valueOf(name), resolved(one)));
                yield all;
            }
            case null -> null;
            default -> value;
        };
    }

    /** Keeps the record that something was done with, under its name and as the last one. */
    void remember(Transaction transaction, Action action, Outcome.Success outcome) {
        if (!(outcome instanceof Outcome.Done done)) {
            return;
        }
        var key =
                live.records()
                        .keyOf(transaction, done.object(), done.number())
                        .filter(values -> !values.isEmpty())
                        .map(values -> KeyText.write(done.object(), values))
                        .orElse(done.id().toString());
        var subject = new Subject(done.object(), key);
        named.put("", subject);
        var as = action.as();
        if (as != null) {
            named.put(as, subject);
        }
    }
}
