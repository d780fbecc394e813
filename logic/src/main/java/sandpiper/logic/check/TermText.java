package sandpiper.logic.check;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.term.Term;
import sandpiper.logic.value.ValueText;

/** Writes simple terms back as text, for messages and suggestions. */
final class TermText {
    private TermText() {}

    /** The text of a path or a constant, or {@code null} for anything longer. */
    static @Nullable String of(Term term) {
        return switch (term) {
            case Term.Local local -> local.name();
            case Term.Constant constant -> ValueText.literal(constant.value());
            case Term.Read(Term.Local(_, var name, _, _), var member, _)
                    when name.equals("this") || name.equals("item") ->
                    member.name();
            case Term.Read read -> {
                var source = of(read.source());
                yield source == null ? null : source + "." + read.member().name();
            }
            case Term.Property property -> {
                var source = of(property.source());
                yield source == null ? null : source + "." + property.name();
            }
            default -> null;
        };
    }
}
