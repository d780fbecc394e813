package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.function.Builtins;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Nothing;

/** Finds what a name stands for: the nearest of names, members of items and records, objects. */
final class NameResolver {
    private final Checking checking;

    NameResolver(Checking checking) {
        this.checking = checking;
    }

    Term resolve(String name, Span span, Scope scope) {
        var dynamic = new ArrayList<Term.Local>();
        var found = find(name, span, scope, dynamic);
        if (found == null && dynamic.isEmpty()) {
            var builtin = Builtins.find(name);
            return builtin.isPresent()
                    ? new Term.BuiltinValue(
                            builtin.get(), new LogicType.FunctionOf(null, Simple.ANY), span)
                    : unknown(name, span, scope);
        }
        if (dynamic.isEmpty() && found != null) {
            checking.meanings().put(span, found);
            return found;
        }
        var otherwise =
                found != null
                        ? found
                        : Builtins.find(name)
                                .<Term>map(builtin ->
                                        new Term.BuiltinValue(
                                                builtin,
                                                new LogicType.FunctionOf(null, Simple.ANY),
                                                span))
                                .orElse(nothing(span));
        return new Term.Lookup(name, dynamic, otherwise, Simple.ANY, span);
    }

    static Term nothing(Span span) {
        return new Term.Constant(Nothing.NULL, Simple.ANY, false, span);
    }

    private @Nullable Term find(String name, Span span, Scope from, List<Term.Local> dynamic) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            var named = scope.names().get(name);
            if (named != null) {
                return at(named, span);
            }
            var item = scope.item();
            if (item == null) {
                continue;
            }
            var record = scope.record();
            if (record == null) {
                dynamic.add(item);
                continue;
            }
            var member = record.member(name);
            if (member.isPresent()) {
                return new Term.Read(item, member.get(), span);
            }
        }
        return checking.world()
                .object(name)
                .<Term>map(record -> new Term.Records(record, span))
                .orElse(null);
    }

    private static Term at(Term named, Span span) {
        return named instanceof Term.Local(var slot, var name, var type, _)
                ? new Term.Local(slot, name, type, span)
                : named;
    }

    private Term unknown(String name, Span span, Scope scope) {
        var known = new ArrayList<>(scope.allNames());
        known.addAll(checking.world().objectNames());
        var nearest = Nearest.to(name, known).orElse(null);
        var record = nearestRecord(scope);
        var message =
                record == null
                        ? "There is no %s here.".formatted(Quoted.of(name))
                        : "%s has no field %s.".formatted(record.name(), Quoted.of(name));
        if (nearest == null && record != null) {
            message += " It has " + String.join(", ", record.sortedMemberNames()) + ".";
        }
        checking.error(LogicCode.UNKNOWN_NAME, span, message, nearest);
        return nothing(span);
    }

    private static @Nullable RecordType nearestRecord(Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            if (scope.record() != null) {
                return scope.record();
            }
        }
        return null;
    }

    /**
     * Whether a built-in function stands where its result is meant, as in {@code due < today}; says
     * so.
     */
    static boolean isUncalled(Term term, Checking checking) {
        if (!(term instanceof Term.BuiltinValue(var function, _, var span))) {
            return false;
        }
        checking.error(
                LogicCode.UNKNOWN_NAME,
                span,
                "%s is a function; call it with brackets, as in %s."
                        .formatted(function.name(), function.written().getFirst()));
        return true;
    }

    /** Whether one of two is an uncalled function; both are looked at, so that both are told. */
    static boolean isUncalled(Term left, Term right, Checking checking) {
        var first = isUncalled(left, checking);
        var second = isUncalled(right, checking);
        return first || second;
    }

    /** A function somebody named, or {@code null}. */
    @Nullable Term function(String name, Span span, Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            var named = scope.names().get(name);
            if (named != null) {
                return at(named, span);
            }
            if (scope.item() != null && scope.record() == null && Builtins.find(name).isEmpty()) {
                return resolve(name, span, from);
            }
        }
        return null;
    }

    /** {@code source.member}. */
    Term member(Term source, String member, Span memberSpan, Span span) {
        var type = source.type();
        if (member.isEmpty()) {
            return nothing(span);
        }
        if (type instanceof RecordOf(var record)) {
            return recordMember(source, record, member, memberSpan, span);
        }
        if (type instanceof LogicType.ListOf(var item) && item instanceof RecordOf(var record)) {
            var local = checking.local("item", item, source.span());
            var value = recordMember(local, record, member, memberSpan, span);
            var result = new LogicType.ListOf(value.type().itemType());
            return new Term.Project(source, local, value, result, span);
        }
        if (source instanceof Term.Read read && !read.member().languages().isEmpty()) {
            return inLanguage(read, member, memberSpan, span);
        }
        if (source instanceof Term.Project(var records, var item, Term.Read read, _, _)
                && !read.member().languages().isEmpty()) {
            var value = inLanguage(read, member, memberSpan, span);
            return new Term.Project(records, item, value, new LogicType.ListOf(value.type()), span);
        }
        var property = Properties.typeOf(type, member, memberSpan, checking);
        return new Term.Property(source, member, property, span);
    }

    /** A localised text in a language that is named. */
    private Term inLanguage(Term.Read text, String language, Span languageSpan, Span span) {
        var known = text.member().languages();
        var found = known.get(language);
        if (found == null) {
            checking.error(
                    LogicCode.UNKNOWN_MEMBER,
                    languageSpan,
                    "%s has no language %s; it has %s."
                            .formatted(
                                    text.member().name(),
                                    Quoted.of(language),
                                    String.join(", ", known.keySet())),
                    Nearest.to(language, known.keySet()).orElse(null));
            return nothing(span);
        }
        var read = new Term.Read(text.source(), found, span);
        checking.meanings().put(languageSpan, read);
        return read;
    }

    private Term recordMember(
            Term source, RecordType record, String member, Span memberSpan, Span span) {
        var found = record.member(member);
        if (found.isPresent()) {
            var read = new Term.Read(source, found.get(), span);
            checking.meanings().put(memberSpan, read);
            return read;
        }
        var nearest = Nearest.to(member, record.memberNames()).orElse(null);
        var message = "%s has no field %s.".formatted(record.name(), Quoted.of(member));
        if (nearest == null) {
            message += " It has " + String.join(", ", record.sortedMemberNames()) + ".";
        }
        checking.error(LogicCode.UNKNOWN_MEMBER, memberSpan, message, nearest);
        return nothing(span);
    }
}
