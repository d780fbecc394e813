package sandpiper.logic.check;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Span;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;

/** Gives names to values of steps: by {@code let}, {@code as}, and for each of a list. */
final class LocalNames {
    private final Checking checking;

    LocalNames(Checking checking) {
        this.checking = checking;
    }

    /** A name of one's own that a field has too: from here on the field is {@code this.name}. */
    void warnOfHidden(String name, Span span, Scope scope) {
        for (Scope at = scope; at != null; at = at.outer()) {
            var record = at.record();
            if (record != null && record.member(name).isPresent()) {
                checking.warn(
                        LogicCode.HIDDEN_NAME,
                        span,
                        "%s is a field of %s as well, which can be reached only as this.%s from here on; choose another name."
                                .formatted(name, record.name(), name),
                        null);
                return;
            }
        }
    }

    /** A name in a scope, from here on. */
    Term.Local named(String name, Span span, LogicType type, Scope scope) {
        var local = checking.local(name, type, span);
        scope.put(name, local);
        checking.meanings().put(span, local);
        return local;
    }

    /** The name of something that is not known, so that using it is no second mistake. */
    void unknown(@Nullable String name, Span span, Scope scope) {
        if (name != null) {
            named(name, span, LogicType.Simple.ANY, scope);
        }
    }
}
