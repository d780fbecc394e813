package sandpiper.logic.syntax;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.value.ValueText;

/**
 * Writes trees as text that is read as the same tree, whatever brackets and space the first text
 * had.
 */
public final class ExprText {
    /** How tightly something binds; what binds less than its place asks for gets brackets. */
    private static final int OPEN = 0;

    private static final int DISJUNCTION = 1;
    private static final int CONJUNCTION = 2;
    private static final int COMPARISON = 3;
    private static final int SUM = 4;
    private static final int PRODUCT = 5;
    private static final int POWER = 6;
    private static final int SIGN = 7;
    private static final int INSTANCE = 8;
    private static final int PATH = 9;

    private ExprText() {}

    /** The text of a tree that could be read as a whole. */
    public static String of(Expr expr) {
        return at(OPEN, expr);
    }

    /** The same, in brackets unless it can be an operand of {@code and} as it is. */
    public static String asPart(Expr expr) {
        return at(COMPARISON, expr);
    }

    /** The same, in brackets unless it can be an operand of a comparison as it is. */
    public static String asOperand(Expr expr) {
        return at(SUM, expr);
    }

    private static String at(int needed, Expr expr) {
        var text = write(expr);
        return binding(expr) < needed ? "(" + text + ")" : text;
    }

    private static int binding(Expr expr) {
        return switch (expr) {
            case Expr.If _, Expr.For _, Expr.Quantified _, Expr.Find _, Expr.FunctionLiteral _ ->
                    OPEN;
            case Expr.Logical logical -> logical.isAnd() ? CONJUNCTION : DISJUNCTION;
            case Expr.Comparison _, Expr.Between _, Expr.In _ -> COMPARISON;
            case Expr.Arithmetic arithmetic -> binding(arithmetic.operator());
            case Expr.Negation _ -> SIGN;
            case Expr.InstanceOf _ -> INSTANCE;
            default -> PATH;
        };
    }

    private static int binding(ArithmeticOperator operator) {
        return switch (operator) {
            case PLUS, MINUS -> SUM;
            case TIMES, DIVIDE -> PRODUCT;
            case POWER -> POWER;
        };
    }

    private static String write(Expr expr) {
        return switch (expr) {
            case Expr.NumberLiteral number -> number.value().toPlainString();
            case Expr.TextLiteral text -> ValueText.literal(text.value());
            case Expr.BooleanLiteral flag -> String.valueOf(flag.value());
            case Expr.NullLiteral _ -> "null";
            case Expr.TemporalLiteral temporal -> "@\"" + temporal.text() + '"';
            case Expr.Name name -> name.text();
            case Expr.Path path -> at(PATH, path.source()) + "." + path.member();
            case Expr.Call call -> call.function() + arguments(call.arguments());
            case Expr.Invocation call ->
                    "(" + of(call.function()) + ")" + arguments(call.arguments());
            case Expr.Negation negation -> "-" + at(SIGN, negation.operand());
            case Expr.Arithmetic one -> {
                int own = binding(one.operator());
                yield at(own, one.left())
                        + " "
                        + one.operator().symbol()
                        + " "
                        + at(own + 1, one.right());
            }
            case Expr.Comparison one ->
                    at(COMPARISON, one.left())
                            + " "
                            + one.operator().symbol()
                            + " "
                            + asOperand(one.right());
            case Expr.Logical logical ->
                    logical.parts().stream()
                            .map(part -> at(logical.isAnd() ? COMPARISON : CONJUNCTION, part))
                            .collect(Collectors.joining(logical.isAnd() ? " and " : " or "));
            case Expr.Between one ->
                    "%s between %s and %s"
                            .formatted(
                                    at(COMPARISON, one.value()),
                                    asOperand(one.low()),
                                    asOperand(one.high()));
            case Expr.In one -> at(COMPARISON, one.value()) + " in (" + joined(one.tests()) + ")";
            case Expr.Range range ->
                    (range.lowIncluded() ? "[" : "(")
                            + of(range.low())
                            + ".."
                            + of(range.high())
                            + (range.highIncluded() ? "]" : ")");
            case Expr.UnaryTest test ->
                    "(" + test.operator().symbol() + " " + asOperand(test.operand()) + ")";
            case Expr.ListLiteral list -> "[" + joined(list.items()) + "]";
            case Expr.ContextLiteral context ->
                    context.entries().stream()
                            .map(entry -> name(entry.name()) + ": " + of(entry.value()))
                            .collect(Collectors.joining(", ", "{", "}"));
            case Expr.Filter filter ->
                    at(PATH, filter.source()) + "[" + of(filter.condition()) + "]";
            case Expr.If one ->
                    "if %s then %s else %s"
                            .formatted(of(one.condition()), of(one.then()), of(one.otherwise()));
            case Expr.For one ->
                    "for " + iterators(one.iterators()) + " return " + of(one.result());
            case Expr.Quantified one ->
                    (one.isEvery() ? "every " : "some ")
                            + iterators(one.iterators())
                            + " satisfies "
                            + of(one.condition());
            case Expr.InstanceOf one -> at(PATH, one.value()) + " instance of " + type(one.type());
            case Expr.FunctionLiteral function ->
                    function.parameters().stream()
                                    .map(one -> one.name() + typeBehind(one.type()))
                                    .collect(Collectors.joining(", ", "function(", ") "))
                            + of(function.body());
            case Expr.Find find -> find(find);
            case Expr.Unreadable _ ->
                    throw new IllegalArgumentException("What could not be read has no text");
        };
    }

    private static String joined(List<Expr> all) {
        return all.stream().map(ExprText::test).collect(Collectors.joining(", "));
    }

    /** A test behind {@code in} needs no brackets of its own. */
    private static String test(Expr expr) {
        return expr instanceof Expr.UnaryTest test
                ? test.operator().symbol() + " " + asOperand(test.operand())
                : at(DISJUNCTION, expr);
    }

    private static String arguments(List<Expr.Argument> arguments) {
        return arguments.stream()
                .map(one -> (one.name() == null ? "" : one.name() + ": ") + of(one.value()))
                .collect(Collectors.joining(", ", "(", ")"));
    }

    private static String iterators(List<Expr.Iterator> iterators) {
        return iterators.stream()
                .map(one -> one.name() + " in " + of(one.domain()) + end(one.end()))
                .collect(Collectors.joining(", "));
    }

    private static String end(@Nullable Expr end) {
        return end == null ? "" : ".." + of(end);
    }

    private static String find(Expr.Find find) {
        var text = new StringBuilder(find.first() ? "find first " : "find ").append(find.object());
        if (find.where() != null) {
            text.append(" where ").append(of(find.where()));
        }
        for (int i = 0; i < find.orders().size(); i++) {
            var order = find.orders().get(i);
            text.append(i == 0 ? " order by " : ", ")
                    .append(asOperand(order.by()))
                    .append(order.descending() ? " descending" : "");
        }
        if (find.take() != null) {
            text.append(" take ").append(asOperand(find.take()));
        }
        return text.toString();
    }

    private static String name(String name) {
        return name.codePoints().allMatch(c -> Character.isLetterOrDigit(c) || c == '_')
                ? name
                : ValueText.literal(name);
    }

    private static String typeBehind(@Nullable TypeName type) {
        return type == null ? "" : ": " + type(type);
    }

    private static String type(TypeName type) {
        return switch (type) {
            case TypeName.Simple simple -> simple.name();
            case TypeName.Of of -> of.name() + "<" + type(of.inner()) + ">";
            case TypeName.OfContext context ->
                    context.entries().entrySet().stream()
                            .map(ExprText::entry)
                            .collect(Collectors.joining(", ", "context<", ">"));
            case TypeName.OfFunction function ->
                    function.parameters().stream()
                                    .map(ExprText::type)
                                    .collect(Collectors.joining(", ", "function<", ">"))
                            + " -> "
                            + type(function.result());
        };
    }

    private static String entry(Map.Entry<String, TypeName> entry) {
        return entry.getKey() + ": " + type(entry.getValue());
    }
}
