package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.ParsedTemplate;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TemporalText;

/**
 * Goes through a syntax tree and makes the typed one. Once something is wrong and reported, it goes
 * on as a value of unknown type, which starts no further problems of its own.
 */
final class Expressions {
    private final Checking checking;
    private final NameResolver names;
    private final ArithmeticChecker arithmetics;
    private final Comparisons comparisons;
    private final Ranges ranges;
    private final Assignments assignments;
    private final Calls calls;

    Expressions(Checking checking) {
        this.checking = checking;
        this.names = new NameResolver(checking);
        this.arithmetics = new ArithmeticChecker(checking);
        this.comparisons = new Comparisons(checking);
        this.ranges = new Ranges(checking, this, comparisons);
        this.assignments = new Assignments(checking, comparisons);
        this.calls = new Calls(checking, this, names);
    }

    Checking checking() {
        return checking;
    }

    Term term(Expr expr, Scope scope) {
        return switch (expr) {
            case Expr.NumberLiteral number ->
                    literal(Decimal.of(number.value()), Simple.NUMBER, number.span());
            case Expr.TextLiteral text -> literal(text.value(), Simple.TEXT, text.span());
            case Expr.BooleanLiteral flag -> literal(flag.value(), Simple.BOOLEAN, flag.span());
            case Expr.NullLiteral empty -> literal(Nothing.NULL, Simple.NOTHING, empty.span());
            case Expr.TemporalLiteral temporal -> temporal(temporal);
            case Expr.Name name -> names.resolve(name.text(), name.span(), scope);
            case Expr.Path path -> path(path, scope);
            case Expr.Call call -> calls.call(call, scope);
            case Expr.Invocation invocation -> calls.invocation(invocation, scope);
            case Expr.Negation negation -> negation(negation, scope);
            case Expr.Arithmetic arithmetic ->
                    arithmetics.of(
                            arithmetic.operator(),
                            term(arithmetic.left(), scope),
                            term(arithmetic.right(), scope),
                            arithmetic.span());
            case Expr.Comparison comparison ->
                    comparisons.of(
                            comparison.operator(),
                            term(comparison.left(), scope),
                            term(comparison.right(), scope),
                            comparison.span());
            case Expr.Logical logical ->
                    new Term.Logical(
                            logical.isAnd(),
                            logical.parts().stream().map(part -> condition(part, scope)).toList(),
                            logical.span());
            case Expr.Between between -> ranges.between(between, scope);
            case Expr.In in -> ranges.in(in, scope);
            case Expr.Range range -> ranges.range(range, scope);
            case Expr.UnaryTest test -> ranges.openRange(test, scope);
            case Expr.ListLiteral list -> list(list, scope);
            case Expr.ContextLiteral context -> context(context, scope);
            case Expr.Filter filter -> filter(filter, scope);
            case Expr.If choice -> choice(choice, scope);
            case Expr.For loop -> loop(loop, scope);
            case Expr.Quantified quantified -> quantified(quantified, scope);
            case Expr.InstanceOf instance ->
                    new Term.InstanceOf(
                            term(instance.value(), scope),
                            Types.of(instance.type(), checking),
                            instance.span());
            case Expr.FunctionLiteral function -> function(function, scope, List.of());
            case Expr.Find find -> find(find, scope);
            case Expr.Unreadable unreadable -> {
                checking.scopes().put(unreadable.span(), scope);
                yield NameResolver.nothing(unreadable.span());
            }
        };
    }

    private static Term literal(Object value, LogicType type, Span span) {
        return new Term.Constant(value, type, true, span);
    }

    /** A term that must be true or false. */
    Term condition(Expr expr, Scope scope) {
        var term = term(expr, scope);
        return Checker.isCondition(term, checking) ? term : NameResolver.nothing(term.span());
    }

    private Term temporal(Expr.TemporalLiteral literal) {
        var value = TemporalText.any(literal.text());
        if (value == null) {
            checking.error(
                    LogicCode.BAD_TEMPORAL,
                    literal.span(),
                    "%s is no date, time or duration; write it as in @\"2026-05-01\","
                                    .formatted(Quoted.of(literal.text()))
                            + " @\"14:30:00\", @\"2026-05-01T14:30:00\", @\"P1DT6H\" or"
                            + " @\"P1Y2M\".");
            return NameResolver.nothing(literal.span());
        }
        return literal(value, ValueTypes.of(value), literal.span());
    }

    private Term path(Expr.Path path, Scope scope) {
        checking.scopes().put(path.memberSpan(), scope);
        var source = term(path.source(), scope);
        if (path.member().isEmpty()) {
            // A path that stops at its point: completion asks for the members of what is before.
            checking.meanings().put(path.memberSpan(), source);
        }
        return names.member(source, path.member(), path.memberSpan(), path.span());
    }

    private Term negation(Expr.Negation negation, Scope scope) {
        var operand = term(negation.operand(), scope);
        if (operand instanceof Term.Constant constant
                && constant.literal()
                && constant.value() instanceof Decimal number) {
            return literal(number.negated(), constant.type(), negation.span());
        }
        var type = operand.type();
        if (!type.isOpen() && !type.isNumeric() && !ArithmeticChecker.isDuration(type)) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    negation.span(),
                    "A minus goes before a number or a duration, but this is %s."
                            .formatted(type.described()));
        }
        return new Term.Negate(operand, type, negation.span());
    }

    private Term list(Expr.ListLiteral list, Scope scope) {
        var items = list.items().stream().map(item -> term(item, scope)).toList();
        var type = items.stream().map(Term::type).reduce(LogicType::common).orElse(Simple.ANY);
        return new Term.ListOf(items, new LogicType.ListOf(type), list.span());
    }

    private Term context(Expr.ContextLiteral context, Scope scope) {
        var entries = new ArrayList<Term.Entry>();
        var types = new LinkedHashMap<String, LogicType>();
        var inside = scope.inner();
        for (var entry : context.entries()) {
            if (entry.name().isEmpty()) {
                continue;
            }
            if (types.containsKey(entry.name())) {
                checking.error(
                        LogicCode.DUPLICATE_NAME,
                        entry.nameSpan(),
                        "%s stands in this context twice.".formatted(Quoted.of(entry.name())));
                return NameResolver.nothing(context.span());
            }
            var value = term(entry.value(), inside);
            var local = checking.local(entry.name(), value.type(), entry.nameSpan());
            inside.put(entry.name(), local);
            types.put(entry.name(), value.type());
            entries.add(new Term.Entry(entry.name(), local, value));
        }
        return new Term.ContextOf(entries, new LogicType.ContextOf(types), context.span());
    }

    private Term filter(Expr.Filter filter, Scope scope) {
        var source = term(filter.source(), scope);
        var itemType = source.type().itemType();
        var item = checking.local("item", itemType, filter.source().span());
        var inside = inside(scope, item, itemType);
        var condition = term(filter.condition(), inside);
        checking.scopes().put(filter.condition().span(), inside);
        var type = condition.type();
        LogicType result = Simple.ANY;
        if (type == Simple.BOOLEAN) {
            result = new LogicType.ListOf(itemType);
        } else if (type.isNumeric()) {
            result = itemType;
        } else if (!type.isOpen()) {
            checking.error(
                    LogicCode.NOT_A_CONDITION,
                    filter.condition().span(),
                    "In square brackets stands a condition or a place from 1, but this is %s."
                            .formatted(type.described()));
        }
        return new Term.Filter(source, item, condition, result, filter.span());
    }

    private Scope inside(Scope scope, Term.Local item, LogicType itemType) {
        var record = itemType instanceof RecordOf(RecordType known) ? known : null;
        boolean mayHaveMembers =
                itemType.isOpen()
                        || itemType instanceof LogicType.ContextOf
                        || itemType instanceof RecordOf;
        var inside = mayHaveMembers ? scope.inside(item, record) : scope.inner();
        boolean hasItem =
                itemType instanceof LogicType.ContextOf(var entries)
                        && entries != null
                        && entries.containsKey("item");
        if (!hasItem) {
            inside.put("item", item);
        }
        return inside;
    }

    private Term choice(Expr.If choice, Scope scope) {
        var condition = condition(choice.condition(), scope);
        var then = term(choice.then(), scope);
        var otherwise = term(choice.otherwise(), scope);
        if (condition instanceof Term.Constant constant && constant.literal()) {
            checking.warn(
                    LogicCode.UNREACHABLE,
                    constant.value() == Boolean.TRUE
                            ? choice.otherwise().span()
                            : choice.then().span(),
                    "This is never reached: the condition is always %s."
                            .formatted(constant.value()),
                    null);
        }
        warnOfRepeated(condition, choice.otherwise(), scope);
        return new Term.If(condition, then, otherwise, common(then, otherwise), choice.span());
    }

    /** {@code if a then .. else if a then ..}: the second can never be reached. */
    private void warnOfRepeated(Term condition, Expr otherwise, Scope scope) {
        if (otherwise instanceof Expr.If inner) {
            var before = checking.problems().size();
            var again = term(inner.condition(), scope);
            while (checking.problems().size() > before) {
                checking.problems().removeLast();
            }
            if (Contradictions.isCovered(condition, again)) {
                checking.warn(
                        LogicCode.UNREACHABLE,
                        inner.then().span(),
                        "This is never reached: whenever it holds, a condition before it does.",
                        null);
            }
        }
    }

    /** The type of a choice between two; a number written there takes the other's unit. */
    private static LogicType common(Term a, Term b) {
        if (a.type().isNumeric() && b.type().isNumeric()) {
            if (isLiteral(a)) {
                return b.type();
            }
            if (isLiteral(b)) {
                return a.type();
            }
        }
        return LogicType.common(a.type(), b.type());
    }

    private static boolean isLiteral(Term term) {
        return term instanceof Term.Constant constant && constant.literal();
    }

    private List<Term.Source> sources(List<Expr.Iterator> iterators, Scope inside) {
        var sources = new ArrayList<Term.Source>();
        iterators.forEach(iterator -> sources.add(source(iterator, inside)));
        return sources;
    }

    /** What a loop runs over; the name of each item is put into the scope. */
    Term.Source source(Expr.Iterator iterator, Scope inside) {
        var domain = term(iterator.domain(), inside);
        var endExpr = iterator.end();
        var end = endExpr == null ? null : term(endExpr, inside);
        if (end != null) {
            checkRun(domain);
            checkRun(end);
        }
        var type =
                domain.type() instanceof LogicType.RangeOf(var of) ? of : domain.type().itemType();
        var local = checking.local(iterator.name(), type, iterator.nameSpan());
        inside.put(iterator.name(), local);
        checking.meanings().put(iterator.nameSpan(), local);
        return new Term.Source(local, domain, end);
    }

    /** The ends of a run such as {@code 1..3} are whole numbers or dates. */
    private void checkRun(Term end) {
        var type = end.type();
        if (!type.isOpen() && !type.isNumeric() && type != Simple.DATE) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    end.span(),
                    "A loop runs from one whole number or date to another, but this is %s."
                            .formatted(type.described()));
        }
    }

    private Term loop(Expr.For loop, Scope scope) {
        var inside = scope.inner();
        var sources = sources(loop.iterators(), inside);
        var partial = checking.local("partial", new LogicType.ListOf(Simple.ANY), loop.span());
        inside.put("partial", partial);
        checking.scopes().put(loop.result().span(), inside);
        var result = term(loop.result(), inside);
        return new Term.For(
                sources, partial, result, new LogicType.ListOf(result.type()), loop.span());
    }

    private Term quantified(Expr.Quantified quantified, Scope scope) {
        var inside = scope.inner();
        var sources = sources(quantified.iterators(), inside);
        checking.scopes().put(quantified.condition().span(), inside);
        var condition = condition(quantified.condition(), inside);
        return new Term.Quantified(quantified.isEvery(), sources, condition, quantified.span());
    }

    /**
     * A function literal.
     *
     * @param expected types for parameters that name none, as far as they are known
     */
    Term function(Expr.FunctionLiteral function, Scope scope, List<LogicType> expected) {
        var inside = scope.inner();
        var parameters = new ArrayList<Term.Local>();
        var declared = new ArrayList<LogicType>();
        for (int i = 0; i < function.parameters().size(); i++) {
            var parameter = function.parameters().get(i);
            var written = parameter.type();
            var type =
                    written != null
                            ? Types.of(written, checking)
                            : i < expected.size() ? expected.get(i) : Simple.ANY;
            var local = checking.local(parameter.name(), type, parameter.span());
            inside.put(parameter.name(), local);
            parameters.add(local);
            declared.add(written == null ? Simple.ANY : type);
        }
        var body = term(function.body(), inside);
        return new Term.FunctionOf(
                parameters,
                declared,
                body,
                new LogicType.FunctionOf(
                        parameters.stream().map(Term.Local::type).toList(),
                        parameters.stream().map(Term.Local::name).toList(),
                        body.type()),
                function.span());
    }

    private Term find(Expr.Find find, Scope scope) {
        var record = checking.world().object(find.object());
        if (record.isEmpty()) {
            checking.error(
                    LogicCode.UNKNOWN_NAME,
                    find.objectSpan(),
                    "There is no object %s.".formatted(Quoted.of(find.object())),
                    sandpiper.logic.Nearest.to(find.object(), checking.world().objectNames())
                            .orElse(null));
            return NameResolver.nothing(find.span());
        }
        var records = new Term.Records(record.get(), find.objectSpan());
        var item = checking.local("item", new RecordOf(record.get()), find.objectSpan());
        var inside = inside(scope, item, item.type());
        var whereExpr = find.where();
        var where = whereExpr == null ? null : condition(whereExpr, inside);
        var orders =
                find.orders().stream()
                        .map(order -> new Term.Order(term(order.by(), inside), order.descending()))
                        .toList();
        var takeExpr = find.take();
        var take = takeExpr == null ? null : term(takeExpr, scope);
        LogicType type = find.first() ? item.type() : records.type();
        return new Term.Find(records, item, find.first(), where, orders, take, type, find.span());
    }

    /** The text of a message with what stands in its braces. */
    Term template(ParsedTemplate template, Scope scope) {
        var parts = new ArrayList<Term>();
        for (var part : template.parts()) {
            parts.add(term(part, scope));
        }
        return new Term.Template(parts, template.span());
    }

    /** A term whose value goes into something of a type. */
    Term assigned(Expr expr, Scope scope, LogicType wanted) {
        return assignments.assigned(term(expr, scope), wanted, "this");
    }

    /** The same for something that has a name. */
    Term assigned(Expr expr, Scope scope, LogicType wanted, String name) {
        return assignments.assigned(term(expr, scope), wanted, name);
    }

    /** What checks values against what they go into. */
    Assignments assignments() {
        return assignments;
    }
}
