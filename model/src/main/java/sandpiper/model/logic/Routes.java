package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.model.release.Field;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * Finds every field an expression reads, with the way from its own record to the one that has the
 * field. What cannot be followed makes the expression one that cannot be watched.
 */
final class Routes {
    /** Where the records are that a term stands for. */
    private record At(ObjectType object, @Nullable Part part, List<Hop> route) {
        At further(ObjectType to, @Nullable Part toPart, Hop hop) {
            var longer = new ArrayList<>(route);
            longer.add(hop);
            return new At(to, toPart, longer);
        }
    }

    /**
     * A field that is read, with the object that has it.
     *
     * @param field {@code null} for the line items of the part as such: which there are
     */
    record Reading(ObjectType object, @Nullable Part part, @Nullable Field field, List<Hop> route) {
        /** Whether it is read on the record itself, or on its own line items. */
        boolean isOwn() {
            return route.stream().allMatch(hop -> hop instanceof Hop.Into);
        }
    }

    private final sandpiper.model.release.Release release;
    private final Map<Integer, At> places = new HashMap<>();
    private final List<Reading> readings = new ArrayList<>();
    private final Set<Term> left;
    private boolean watchable = true;

    private Routes(
            sandpiper.model.release.Release release,
            ObjectType object,
            @Nullable Part part,
            Set<Term> left) {
        this.release = release;
        this.left = left;
        places.put(NameContext.THIS, new At(object, part, List.of()));
        places.put(NameContext.OWNER, new At(object, null, List.of()));
    }

    static Routes of(
            sandpiper.model.release.Release release,
            ObjectType object,
            @Nullable Part part,
            Term term) {
        return besides(release, object, part, term, Set.of());
    }

    /** What an expression reads besides what some of its terms do. */
    static Routes besides(
            sandpiper.model.release.Release release,
            ObjectType object,
            @Nullable Part part,
            Term term,
            Set<Term> left) {
        var routes = new Routes(release, object, part, left);
        routes.visit(term);
        return routes;
    }

    List<Reading> readings() {
        return readings;
    }

    /** Whether everything that is read can be watched. */
    boolean isWatchable() {
        return watchable;
    }

    private void visit(Term term) {
        if (left.contains(term)) {
            return;
        }
        switch (term) {
            case Term.Filter filter -> {
                visit(filter.source());
                place(filter.item(), filter.source());
                visit(filter.condition());
            }
            case Term.Project project -> {
                visit(project.source());
                place(project.item(), project.source());
                visit(project.value());
            }
            case Term.For loop -> {
                loop.sources().forEach(this::source);
                visit(loop.result());
            }
            case Term.Quantified quantified -> {
                quantified.sources().forEach(this::source);
                visit(quantified.condition());
            }
            case Term.Read read -> {
                visit(read.source());
                at(read);
            }
            case Term.Records _, Term.Find _ -> {
                watchable = false;
                Terms.children(term).forEach(this::visit);
            }
            case Term.FunctionOf function -> {
                watchable =
                        watchable
                                && function.parameters().stream()
                                        .noneMatch(one ->
                                                one.type()
                                                        instanceof
                                                        sandpiper.logic.type.LogicType.RecordOf);
                Terms.children(term).forEach(this::visit);
            }
            default -> Terms.children(term).forEach(this::visit);
        }
    }

    private void source(Term.Source source) {
        visit(source.domain());
        if (source.end() != null) {
            visit(source.end());
        }
        place(source.item(), source.domain());
    }

    private void place(Term.Local item, Term source) {
        var at = at(source);
        if (at != null) {
            places.put(item.slot(), at);
        } else if (item.type() instanceof sandpiper.logic.type.LogicType.RecordOf) {
            watchable = false;
        }
    }

    /**
     * Where the records of a term are; {@code null} when it has none or they cannot be followed.
     */
    private @Nullable At at(Term term) {
        return switch (term) {
            case Term.Local local -> places.get(local.slot());
            case Term.Read read -> read(read);
            case Term.Filter filter -> at(filter.source());
            case Term.Project project -> {
                place(project.item(), project.source());
                yield at(project.value());
            }
            default -> null;
        };
    }

    private @Nullable At read(Term.Read read) {
        var from = at(read.source());
        if (from == null) {
            watchable = false;
            return null;
        }
        return switch ((ModelMember) read.member()) {
            case ModelMember.OfField(_, var field, var type, _) -> {
                add(new Reading(from.object(), from.part(), field, from.route()));
                yield type
                                instanceof
                                sandpiper.logic.type.LogicType.RecordOf(ObjectRecordType target)
                        ? from.further(
                                target.object(),
                                null,
                                new Hop.Along(from.object(), from.part(), field))
                        : null;
            }
            case ModelMember.OfLanguage(var of, _) -> {
                add(new Reading(from.object(), from.part(), of.field(), from.route()));
                yield null;
            }
            case ModelMember.OfPart(var part, _) -> {
                var items = from.further(from.object(), part, new Hop.Into(part));
                add(new Reading(from.object(), part, null, items.route()));
                yield items;
            }
            case ModelMember.Related related -> {
                var hop = new Hop.Back(related.from(), related.field());
                var there = from.further(related.from(), null, hop);
                add(new Reading(related.from(), null, related.field(), there.route()));
                yield there;
            }
            case ModelMember.Line _ -> {
                // Given when the record is stored, which is after everything is worked out.
                watchable = false;
                yield null;
            }
            case ModelMember.OfEveryRecord own -> {
                watchable = watchable && isNoticed(own.kind(), from);
                yield null;
            }
        };
    }

    /**
     * Whether a change of what every record has leads to the formula being worked out again. Who
     * changed a record and when is known only when it is stored; being retired is seen by the
     * record itself.
     */
    private static boolean isNoticed(ModelMember.OfEveryRecord.Kind kind, At from) {
        return switch (kind) {
            case CREATED_AT, CREATED_BY -> true;
            case CHANGED_AT, CHANGED_BY -> false;
            case RETIRED -> from.route().isEmpty();
        };
    }

    private void add(Reading reading) {
        var current = release.object(reading.object().name());
        if (!readings.contains(reading) && current != null) {
            readings.add(reading);
        }
    }
}
