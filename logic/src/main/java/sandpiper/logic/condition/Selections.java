package sandpiper.logic.condition;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.FormulaMember;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.RecordValue;

/**
 * The records a term asks for, found in its tree: {@code Stay[...]}, {@code vessel.stays[...]},
 * {@code berths.stays}. A template, to be bound to values each time it runs.
 */
public final class Selections {
    /** What every record has that says whether it is out of use. */
    private static final String RETIRED = "retired";

    private static final Set<String> TOTALS = Set.of("count", "sum", "min", "max");

    private final RecordType records;
    private final @Nullable Term owner;
    private final List<String> path;
    private final List<Clause> clauses;
    private final List<ConditionExtractor.Binder> binders = new ArrayList<>();
    private final List<BoundInput> values = new ArrayList<>();

    /**
     * A condition on the selected record, or on one that references lead to from it.
     *
     * @param prefix the references that lead to what it is on; empty for the record itself
     */
    public record Clause(Term condition, Term.Local item, List<String> prefix) {}

    /** A total with the records it is over. */
    public record TotalOf(Selections selections, Selection.Total total) {}

    private Selections(
            RecordType records, @Nullable Term owner, List<String> path, List<Clause> clauses) {
        this.records = records;
        this.owner = owner;
        this.path = path;
        this.clauses = clauses;
    }

    /** The selection a term is, or nothing when a store cannot answer it. */
    public static Optional<Selections> of(Term term) {
        return origin(term).filter(found -> found.lower(OuterScope.NONE));
    }

    /** The records for which a condition about an item holds, or nothing. */
    public static Optional<Selections> where(RecordType records, Term condition, Term.Local item) {
        var made =
                new Selections(
                        records, null, List.of(), List.of(new Clause(condition, item, List.of())));
        return made.lower(OuterScope.OF_SEARCH) ? Optional.of(made) : Optional.empty();
    }

    /** The first place in a condition that a store cannot answer; the whole when there is none. */
    public static Span obstacle(Term condition, Term.Local item) {
        var obstacle = new ConditionExtractor.Obstacle();
        new ConditionExtractor(item, List.of(), new ArrayList<>(), obstacle, OuterScope.OF_SEARCH)
                .condition(condition);
        return obstacle.span().orElse(condition.span());
    }

    /** The total an aggregate is, or nothing when a store cannot answer it. */
    public static Optional<TotalOf> total(Term.Aggregate aggregate) {
        return total(aggregate, OuterScope.NONE);
    }

    static Optional<TotalOf> total(Term.Aggregate aggregate, OuterScope surroundings) {
        var function = aggregate.function().name();
        if (!TOTALS.contains(function)) {
            return Optional.empty();
        }
        var path = new ArrayList<String>();
        Term list = aggregate.list();
        LogicType type = Simple.ANY;
        while (list instanceof Term.Project(var source, var item, var value, _, _)) {
            var names = path(value, item);
            if (names == null) {
                break;
            }
            if (path.isEmpty()) {
                type = value.type();
            }
            path.addAll(0, names);
            list = source;
        }
        boolean fits =
                path.isEmpty()
                        ? function.equals("count")
                        : !(type instanceof RecordOf)
                                && !(type instanceof LogicType.AmountOf(var currency)
                                        && currency == null)
                                && (!function.equals("sum")
                                        || type.isNumeric()
                                        || type == Simple.DURATION);
        var total = new Selection.Total(function, path, type);
        return fits
                ? origin(list)
                        .filter(found -> found.lower(surroundings))
                        .map(found -> new TotalOf(found, total))
                : Optional.empty();
    }

    /** The path to what records are put in order by, or nothing when a store cannot do that. */
    public static Optional<List<String>> orderPath(Term by, Term.Local item) {
        boolean isPlain = !(by.type() instanceof RecordOf) && by.type().isOrdered();
        return isPlain ? Optional.ofNullable(path(by, item)) : Optional.empty();
    }

    /** The names from an item to a field, or {@code null} when the value is anything else. */
    private static @Nullable List<String> path(Term value, Term.Local item) {
        var names = new ArrayList<String>();
        Term at = value;
        while (at instanceof Term.Read read) {
            if (read.member().reference() != null
                    || read.member().isLanguage()
                    || read.member().type() instanceof LogicType.ListOf
                    || (read.member() instanceof FormulaMember member
                            && member.formula() != null)) {
                return null;
            }
            names.addFirst(read.member().name());
            at = read.source();
        }
        return at instanceof Term.Local local && local.slot() == item.slot() && !names.isEmpty()
                ? names
                : null;
    }

    private static Optional<Selections> origin(Term term) {
        return Optional.ofNullable(
                switch (term) {
                    case Term.Records(var record, _) ->
                            new Selections(record, null, List.of(), List.of());
                    case Term.Read read -> related(read);
                    case Term.Filter filter when filter.condition().type() == Simple.BOOLEAN ->
                            origin(filter.source())
                                    .map(inner -> inner.filtered(filter))
                                    .orElse(null);
                    case Term.Project project ->
                            origin(project.source())
                                    .map(inner -> inner.projected(project))
                                    .orElse(null);
                    default -> null;
                });
    }

    private static @Nullable Selections related(Term.Read read) {
        var reference = read.member().reference();
        return reference == null
                ? null
                : new Selections(
                        recordOf(read.type()), read.source(), List.of(reference), List.of());
    }

    private static RecordType recordOf(LogicType list) {
        return ((RecordOf) list.itemType()).record();
    }

    private Selections filtered(Term.Filter filter) {
        var more = new ArrayList<>(clauses);
        more.add(new Clause(filter.condition(), filter.item(), List.of()));
        return new Selections(records, owner, path, more);
    }

    /** {@code berths.stays}: the stays, seen through their berths. */
    private @Nullable Selections projected(Term.Project project) {
        if (!(project.value() instanceof Term.Read(Term.Local local, var member, _))
                || local.slot() != project.item().slot()
                || member.reference() == null) {
            return null;
        }
        var reference = member.reference();
        var longer = new ArrayList<String>();
        longer.add(reference);
        longer.addAll(path);
        var moved =
                clauses.stream()
                        .map(clause -> {
                            var prefix = new ArrayList<String>();
                            prefix.add(reference);
                            prefix.addAll(clause.prefix());
                            return new Clause(clause.condition(), clause.item(), prefix);
                        })
                        .toList();
        return new Selections(recordOf(member.type()), owner, longer, moved);
    }

    private boolean lower(OuterScope surroundings) {
        var obstacle = new ConditionExtractor.Obstacle();
        for (var clause : clauses) {
            var binder =
                    new ConditionExtractor(
                                    clause.item(), clause.prefix(), values, obstacle, surroundings)
                            .condition(clause.condition());
            if (binder.isEmpty()) {
                return false;
            }
            binders.add(binder.get());
        }
        return true;
    }

    /** The object whose records are selected. */
    public RecordType records() {
        return records;
    }

    /** What must come to the record they lead to, or {@code null}. */
    public @Nullable Term owner() {
        return owner;
    }

    /** The references from each record to the owner. */
    public List<String> path() {
        return path;
    }

    /** What is asked of each record, or of one its references lead to. */
    public List<Clause> clauses() {
        return List.copyOf(clauses);
    }

    /** What must be worked out before it can be bound, in order. */
    public List<BoundInput> values() {
        return values;
    }

    /**
     * Records are seen through others, as in {@code berths.stays}, only while those are in use too.
     */
    private static Condition inUse(List<String> way) {
        var names = new ArrayList<>(way);
        names.add(RETIRED);
        return new Condition.Compare(
                new Operand.Field(names, Simple.BOOLEAN, new Span(0, 0)),
                Operator.EQUAL,
                new Operand.Value(false, Simple.BOOLEAN));
    }

    /** Puts values in. */
    public Selection bind(@Nullable RecordValue record, List<Object> bound, ZoneId zone) {
        var conditions = new ArrayList<Condition>();
        for (int i = 1; i < path.size(); i++) {
            conditions.add(inUse(path.subList(0, i)));
        }
        binders.forEach(binder -> conditions.add(binder.bind(bound, zone)));
        return new Selection(
                records,
                record,
                path,
                conditions.isEmpty()
                        ? null
                        : conditions.size() == 1
                                ? conditions.getFirst()
                                : new Condition.All(conditions));
    }
}
