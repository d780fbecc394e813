package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Operator;
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
    private final Calls calls;

    Expressions(Checking checking) {
        this.checking = checking;
        this.names = new NameResolver(checking);
        this.arithmetics = new ArithmeticChecker(checking);
        this.comparisons = new Comparisons(checking);
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
            case Expr.Between between -> between(between, scope);
            case Expr.In in -> in(in, scope);
            case Expr.Range range -> range(range, scope);
            case Expr.UnaryTest test -> openRange(test, scope);
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

    private Term between(Expr.Between between, Scope scope) {
        var value = term(between.value(), scope);
        var tested = checking.local("?", value.type(), between.value().span());
        var low =
                comparisons.of(
                        Operator.GREATER_OR_EQUAL,
                        value,
                        term(between.low(), scope),
                        between.span());
        var high =
                comparisons.of(
                        Operator.LESS_OR_EQUAL, value, term(between.high(), scope), between.span());
        return new Term.Within(
                value,
                tested,
                List.of(
                        new Term.Logical(
                                true, List.of(on(tested, low), on(tested, high)), between.span())),
                between.span());
    }

    private static Term on(Term.Local tested, Term comparison) {
        return comparison instanceof Term.Compare(var operator, _, var right, var span)
                ? new Term.Compare(operator, tested, right, span)
                : comparison;
    }

    private Term in(Expr.In in, Scope scope) {
        boolean standing = in.value() instanceof Expr.Name(var text, _) && text.equals("?");
        var value =
                standing && find(scope) == null
                        ? NameResolver.nothing(in.value().span())
                        : term(in.value(), scope);
        var tested = checking.local("?", value.type(), in.value().span());
        var inside = scope.inner();
        inside.put("?", tested);
        var tests = new ArrayList<Term>();
        for (var test : in.tests()) {
            tests.add(test(value, tested, test, inside));
        }
        return new Term.Within(value, tested, tests, in.span());
    }

    private static @Nullable Term find(Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            if (scope.names().containsKey("?")) {
                return scope.names().get("?");
            }
        }
        return null;
    }

    private Term test(Term value, Term.Local tested, Expr test, Scope scope) {
        if (test instanceof Expr.UnaryTest(var operator, var operand, var span)) {
            return on(tested, comparisons.of(operator, value, term(operand, scope), span));
        }
        if (test instanceof Expr.ListLiteral(var items, var span) && !items.isEmpty()) {
            var parts = new ArrayList<Term>();
            for (var item : items) {
                parts.add(
                        item instanceof Expr.ListLiteral
                                ? new Term.Matches(tested, term(item, scope), item.span())
                                : test(value, tested, item, scope));
            }
            return parts.size() == 1 ? parts.getFirst() : new Term.Logical(false, parts, span);
        }
        if (test instanceof Expr.Range range) {
            checkRange(value, range, scope);
        }
        var term = comparisons.percentAsWritten(term(test, scope), value.type());
        boolean tests =
                sandpiper.logic.term.Terms.uses(term, tested)
                        || (term.type() == Simple.BOOLEAN
                                && value.type() != Simple.BOOLEAN
                                && !value.type().isOpen());
        if (tests) {
            return term;
        }
        checkTest(value, term);
        return new Term.Matches(tested, term, term.span());
    }

    private void checkRange(Term value, Expr.Range range, Scope scope) {
        // Each end is compared as if it stood alone, so that units and codes are looked at.
        var low = term(range.low(), scope);
        if (!value.type().isOpen() && !Comparisons.comparable(value.type(), low.type())) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    range.span(),
                    "%s cannot lie in a range of %s."
                            .formatted(
                                    ArithmeticChecker.capital(value.type().described()),
                                    low.type().described()));
        }
    }

    private void checkTest(Term value, Term test) {
        comparisons.checkChoice(value, test);
        var a = value.type();
        var b = test.type() instanceof LogicType.RangeOf(var of) ? of : test.type().itemType();
        if (!Comparisons.comparable(a.itemType(), b)) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    test.span(),
                    "%s is never %s."
                            .formatted(ArithmeticChecker.capital(a.described()), b.described()));
        }
    }

    private Term range(Expr.Range range, Scope scope) {
        var low = term(range.low(), scope);
        var high = term(range.high(), scope);
        if (!Comparisons.comparable(low.type(), high.type())) {
            checking.error(
                    LogicCode.WRONG_TYPE,
                    range.span(),
                    "A range needs two ends of one kind, but these are %s and %s."
                            .formatted(low.type().described(), high.type().described()));
        }
        return new Term.RangeOf(
                low,
                range.lowIncluded(),
                high,
                range.highIncluded(),
                new LogicType.RangeOf(LogicType.common(low.type(), high.type())),
                range.span());
    }

    private Term openRange(Expr.UnaryTest test, Scope scope) {
        var end = term(test.operand(), scope);
        var type = new LogicType.RangeOf(end.type());
        return switch (test.operator()) {
            case LESS -> new Term.RangeOf(null, false, end, false, type, test.span());
            case LESS_OR_EQUAL -> new Term.RangeOf(null, false, end, true, type, test.span());
            case GREATER -> new Term.RangeOf(end, false, null, false, type, test.span());
            case GREATER_OR_EQUAL -> new Term.RangeOf(end, true, null, false, type, test.span());
            case EQUAL -> new Term.RangeOf(end, true, end, true, type, test.span());
            case NOT_EQUAL -> {
                checking.error(
                        LogicCode.WRONG_TYPE,
                        test.span(),
                        "Everything but one value is no range; use != in a comparison.");
                yield NameResolver.nothing(test.span());
            }
        };
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
        return assigned(term(expr, scope), wanted);
    }

    Term assigned(Term given, LogicType wanted) {
        return assigned(given, wanted, "this");
    }

    /** The same for something that has a name. */
    Term assigned(Expr expr, Scope scope, LogicType wanted, String name) {
        return assigned(term(expr, scope), wanted, name);
    }

    private Term assigned(Term given, LogicType wanted, String name) {
        if (given instanceof Term.If(var condition, var then, var otherwise, var type, var span)) {
            // Whichever way it goes, what comes of it must fit.
            return new Term.If(
                    condition,
                    assigned(then, wanted, name),
                    assigned(otherwise, wanted, name),
                    type,
                    span);
        }
        var term = comparisons.percentAsWritten(given, wanted);
        var type = term.type();
        if (!fits(type, wanted) && NameResolver.isUncalled(term, checking)) {
            return NameResolver.nothing(term.span());
        }
        if (!fits(type, wanted)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "This must be %s, but is %s.".formatted(wanted.described(), type.described()));
            return NameResolver.nothing(term.span());
        }
        if ((type == Simple.PERCENT && wanted instanceof LogicType.AmountOf)
                || (type instanceof LogicType.AmountOf && wanted == Simple.PERCENT)) {
            checking.error(
                    LogicCode.MIXED_UNITS,
                    term.span(),
                    "This must be %s, but is %s.".formatted(wanted.described(), type.described()));
        }
        if (wanted instanceof LogicType.ChoiceOf) {
            comparisons.checkChoice(new Term.Local(-1, name, wanted, term.span()), term);
        }
        if (wanted instanceof LogicType.AmountOf(var to)
                && type instanceof LogicType.AmountOf(var from)
                && to != null
                && from != null
                && !Objects.equals(to, from)) {
            checking.error(
                    LogicCode.MIXED_CURRENCIES,
                    term.span(),
                    "This is an amount in %s, but goes into one in %s.".formatted(from, to));
        }
        return term;
    }

    /** An argument for a parameter that says what it takes. */
    void expectArgument(Term term, LogicType wanted) {
        var type = term.type();
        boolean single =
                (type instanceof LogicType.ListOf(var item) && fits(item, wanted))
                        || (wanted instanceof LogicType.ListOf(var of) && fits(type, of));
        if (!fits(type, wanted) && !single) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    term.span(),
                    "This parameter takes %s, but here is %s."
                            .formatted(wanted.described(), type.described()));
        }
    }

    private static boolean fits(LogicType type, LogicType wanted) {
        if (type.isOpen() || wanted.isOpen() || type.equals(wanted)) {
            return true;
        }
        if (wanted instanceof RecordOf(var to)) {
            return type.isTextual()
                    || (type instanceof RecordOf(var from) && from.name().equals(to.name()));
        }
        if (wanted instanceof LogicType.ListOf(var to)
                && type instanceof LogicType.ListOf(var of)) {
            return fits(of, to);
        }
        if (wanted instanceof LogicType.ContextOf(var to)
                && type instanceof LogicType.ContextOf(var of)) {
            return to == null
                    || of == null
                    || of.entrySet().stream()
                            .allMatch(entry ->
                                    to.containsKey(entry.getKey())
                                            && fits(entry.getValue(), to.get(entry.getKey())));
        }
        if (wanted == Simple.DATE || wanted == Simple.DATE_TIME) {
            return type == Simple.DATE || type == Simple.DATE_TIME;
        }
        return (wanted.isTextual() && (type.isTextual() || type instanceof RecordOf))
                || (wanted.isNumeric() && type.isNumeric());
    }
}
