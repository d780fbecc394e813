package sandpiper.logic.outline;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.ExprText;
import sandpiper.logic.syntax.Parser;
import sandpiper.logic.value.ValueText;

/** Puts conditions together. */
final class OutlineText {
    private static final int WEEK = 7;

    private OutlineText() {}

    static String of(Outline outline) {
        return switch (outline) {
            case Outline.Group group -> group(group);
            case Outline.Comparison comparison -> comparison(comparison);
            case Outline.Items items -> items(items);
            case Outline.Text text -> needed(text.text(), "A condition is empty.");
        };
    }

    private static String group(Outline.Group group) {
        if (group.parts().isEmpty()) {
            throw new IllegalArgumentException("A group has no condition.");
        }
        var text =
                group.parts().size() == 1
                        ? of(group.parts().getFirst())
                        : group.parts().stream()
                                .map(part -> part(group.all(), part))
                                .collect(Collectors.joining(group.all() ? " and " : " or "));
        return group.negated() ? "not(" + text + ")" : text;
    }

    /** A part between {@code and} or {@code or}, in brackets where it would reach beyond itself. */
    private static String part(boolean all, Outline part) {
        var text = of(part);
        boolean stands =
                switch (part) {
                    case Outline.Comparison _ -> true;
                    case Outline.Items items -> items.quantity() == Outline.Quantity.NONE;
                    case Outline.Group group ->
                            group.negated()
                                    || (group.parts().size() == 1
                                            && part(all, group.parts().getFirst()).equals(text));
                    case Outline.Text own -> standsAlone(own.text());
                };
        return stands ? text : "(" + text + ")";
    }

    private static boolean standsAlone(String text) {
        var parsed = Parser.parse(text);
        return parsed.problems().isEmpty()
                && ExprText.asPart(parsed.expr()).equals(ExprText.of(parsed.expr()));
    }

    private static String comparison(Outline.Comparison comparison) {
        var relation = comparison.relation();
        var values = comparison.values();
        if (values.size() < relation.count()
                || (values.size() > relation.count() && !relation.takesMore())) {
            throw new IllegalArgumentException(
                    "A comparison needs %d values and has %d."
                            .formatted(relation.count(), values.size()));
        }
        var of = operand(comparison.of());
        return switch (relation) {
            case EQUAL -> of + " = " + operand(values.getFirst());
            case UNEQUAL -> of + " != " + operand(values.getFirst());
            case LESS -> of + " < " + operand(values.getFirst());
            case AT_MOST -> of + " <= " + operand(values.getFirst());
            case GREATER -> of + " > " + operand(values.getFirst());
            case AT_LEAST -> of + " >= " + operand(values.getFirst());
            case BETWEEN ->
                    "%s between %s and %s"
                            .formatted(of, operand(values.get(0)), operand(values.get(1)));
            case ONE_OF -> of + " in (" + joined(values) + ")";
            case NONE_OF -> "not(" + of + " in (" + joined(values) + "))";
            case EMPTY -> of + " = null";
            case FILLED -> of + " != null";
            case CONTAINS -> call("contains", of, values);
            case BEGINS -> call("starts with", of, values);
            case ENDS -> call("ends with", of, values);
            case MATCHES -> call("matches", of, values);
            case HOLDS -> of;
            case HOLDS_NOT -> "not(" + of + ")";
        };
    }

    private static String call(String function, String of, List<Side> values) {
        return "%s(%s, %s)".formatted(function, of, joined(values));
    }

    private static String joined(List<Side> values) {
        return values.stream().map(OutlineText::operand).collect(Collectors.joining(", "));
    }

    private static String items(Outline.Items items) {
        var text =
                "%s %s in %s satisfies %s"
                        .formatted(
                                items.quantity() == Outline.Quantity.EVERY ? "every" : "some",
                                needed(items.name(), "The items have no name."),
                                needed(items.list(), "No list is chosen."),
                                of(items.condition()));
        return items.quantity() == Outline.Quantity.NONE ? "not(" + text + ")" : text;
    }

    private static String operand(Side operand) {
        return switch (operand) {
            case Side.Value value -> value(value);
            case Side.Field field -> needed(field.path(), "No field is chosen.");
            case Side.Total total ->
                    "%s(%s)"
                            .formatted(
                                    total.function().name().toLowerCase(Locale.ROOT),
                                    needed(total.path(), "No list is chosen."));
            case Side.Relative relative -> relative(relative);
            case Side.Expression expression -> expression(expression.text());
        };
    }

    private static String value(Side.Value value) {
        return switch (value.kind()) {
            case TEXT -> ValueText.literal(value.text());
            case TEMPORAL -> "@\"" + checked(value, Expr.TemporalLiteral.class) + '"';
            case NUMBER -> number(value);
            case BOOLEAN -> checked(value, Expr.BooleanLiteral.class);
        };
    }

    private static String number(Side.Value value) {
        var text = needed(value.text(), "A number is missing.");
        var expr = Parser.parse(text).expr();
        var inner = expr instanceof Expr.Negation negation ? negation.operand() : expr;
        if (!(inner instanceof Expr.NumberLiteral)) {
            throw new IllegalArgumentException("\"%s\" is no number.".formatted(text));
        }
        return text;
    }

    /** A value that reads as what it is said to be, so that no other text can hide in it. */
    private static String checked(Side.Value value, Class<? extends Expr> kind) {
        var text = needed(value.text(), "A value is missing.");
        var literal = kind == Expr.TemporalLiteral.class ? "@\"" + text + '"' : text;
        var parsed = Parser.parse(literal);
        if (!parsed.problems().isEmpty() || !kind.isInstance(parsed.expr())) {
            throw new IllegalArgumentException("\"%s\" cannot be read.".formatted(text));
        }
        return text;
    }

    private static String relative(Side.Relative relative) {
        var base = relative.exact() ? "now()" : "today()";
        int amount = Math.abs(relative.amount());
        if (amount == 0) {
            return base;
        }
        var span =
                switch (relative.unit()) {
                    case HOURS -> "PT" + amount + "H";
                    case DAYS -> "P" + amount + "D";
                    case WEEKS -> "P" + (long) amount * WEEK + "D";
                    case MONTHS -> "P" + amount + "M";
                    case YEARS -> "P" + amount + "Y";
                };
        return "%s %s @\"%s\"".formatted(base, relative.amount() < 0 ? "-" : "+", span);
    }

    private static String expression(String text) {
        var parsed = Parser.parse(needed(text, "An expression is empty."));
        if (!parsed.problems().isEmpty()) {
            return "(" + text + ")";
        }
        return ExprText.asOperand(parsed.expr()).equals(ExprText.of(parsed.expr()))
                ? text
                : "(" + text + ")";
    }

    private static String needed(String text, String otherwise) {
        if (text.isBlank()) {
            throw new IllegalArgumentException(otherwise);
        }
        return text;
    }
}
