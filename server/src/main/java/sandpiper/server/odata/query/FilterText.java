package sandpiper.server.odata.query;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.apache.olingo.commons.api.edm.EdmEnumType;
import org.apache.olingo.commons.api.edm.EdmPrimitiveType;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeException;
import org.apache.olingo.commons.api.edm.EdmType;
import org.apache.olingo.commons.api.ex.ODataException;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.UriInfoResource;
import org.apache.olingo.server.api.uri.UriResource;
import org.apache.olingo.server.api.uri.UriResourceLambdaAll;
import org.apache.olingo.server.api.uri.UriResourceLambdaAny;
import org.apache.olingo.server.api.uri.UriResourceLambdaVariable;
import org.apache.olingo.server.api.uri.UriResourceNavigation;
import org.apache.olingo.server.api.uri.UriResourceProperty;
import org.apache.olingo.server.api.uri.queryoption.expression.Binary;
import org.apache.olingo.server.api.uri.queryoption.expression.BinaryOperatorKind;
import org.apache.olingo.server.api.uri.queryoption.expression.Expression;
import org.apache.olingo.server.api.uri.queryoption.expression.ExpressionVisitor;
import org.apache.olingo.server.api.uri.queryoption.expression.Literal;
import org.apache.olingo.server.api.uri.queryoption.expression.Member;
import org.apache.olingo.server.api.uri.queryoption.expression.MethodKind;
import org.apache.olingo.server.api.uri.queryoption.expression.Unary;
import org.apache.olingo.server.api.uri.queryoption.expression.UnaryOperatorKind;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FieldPath;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.FeelText;

/**
 * Writes {@code $filter} as a condition in FEEL, which is then checked and brought to SQL like that
 * of any other protocol.
 */
public final class FilterText implements ExpressionVisitor<String> {
    private static final Set<BinaryOperatorKind> ORDERS =
            EnumSet.of(
                    BinaryOperatorKind.LT,
                    BinaryOperatorKind.LE,
                    BinaryOperatorKind.GT,
                    BinaryOperatorKind.GE);

    /** How a line item is called in the condition. */
    private static final String ITEM = "lineItem";

    private final EntityShape shape;
    private final UriInfo uri;
    private final boolean negates;

    /** What a variable of {@code any} or {@code all} stands for. */
    private final Map<String, EntityShape> variables = new HashMap<>();

    private final IdentityHashMap<String, BinaryOperatorKind> made = new IdentityHashMap<>();

    /** The fields that stand in a piece of the text, which is empty when one of them is. */
    private final IdentityHashMap<String, Set<String>> fields = new IdentityHashMap<>();

    private FilterText(EntityShape shape, UriInfo uri, boolean negates) {
        this.shape = shape;
        this.uri = uri;
        this.negates = negates;
    }

    /** {@code uri} has the values of the aliases in the expression. */
    public static String of(EntityShape shape, UriInfo uri, Expression expression) {
        try {
            return expression.accept(new FilterText(shape, uri, negates(expression)));
        } catch (ODataException e) {
            throw Refusals.bad("The filter cannot be understood: %s".formatted(e.getMessage()));
        }
    }

    private static boolean negates(Expression expression) {
        return switch (expression) {
            case Unary unary ->
                    unary.getOperator() == UnaryOperatorKind.NOT || negates(unary.getOperand());
            case Binary binary when binary.getRightOperand() != null ->
                    negates(binary.getLeftOperand()) || negates(binary.getRightOperand());
            case Member member ->
                    switch (member.getResourcePath().getUriResourceParts().getLast()) {
                        case UriResourceLambdaAny any ->
                                any.getExpression() != null && negates(any.getExpression());
                        case UriResourceLambdaAll all -> negates(all.getExpression());
                        default -> false;
                    };
            default -> false;
        };
    }

    private Set<String> fieldsOf(String piece) {
        return fields.getOrDefault(piece, Set.of());
    }

    /** A piece of the text that is made of others. */
    private String made(String text, List<String> of) {
        var all = new LinkedHashSet<String>();
        of.forEach(one -> all.addAll(fieldsOf(one)));
        // A copy, since pieces are told apart by being what they are.
        var piece = String.valueOf(text.toCharArray());
        fields.put(piece, all);
        return piece;
    }

    /** The path of a value as FEEL writes it: {@code vessel.name} for {@code vessel/name}. */
    public static String path(EntityShape shape, UriInfoResource resource) {
        return path(shape, resource.getUriResourceParts()).written();
    }

    /** Where the value that an address leads to stands in a record. */
    static FieldPath path(EntityShape shape, List<UriResource> parts) {
        var at = shape;
        for (var part : parts.subList(0, parts.size() - 1)) {
            var further =
                    part instanceof UriResourceNavigation one
                            ? at.reference(one.getProperty().getName())
                            : Optional.<EntityShape.ToOne>empty();
            at = further.orElseThrow(() -> cannotLookInto(part)).target();
        }
        if (parts.getLast() instanceof UriResourceNavigation one
                && !one.getProperty().isCollection()) {
            // Only whether there is such a record can be asked of it.
            return at.reference(one.getProperty().getName())
                    .map(EntityShape.ToOne::path)
                    .orElseThrow(() -> cannotLookInto(one));
        }
        if (!(parts.getLast() instanceof UriResourceProperty last)) {
            throw cannotLookInto(parts.getLast());
        }
        return at.value(last.getProperty().getName())
                .map(EntityShape.Value::path)
                .orElseThrow(() ->
                        Refusals.bad(
                                "You cannot filter, sort or group by %s."
                                        .formatted(last.getProperty().getName())));
    }

    private static ProblemException cannotLookInto(UriResource part) {
        return Refusals.notOffered(
                "Values of the record and of records it refers to can be asked for; what is in %s cannot."
                        .formatted(part));
    }

    @Override
    public String visitMember(Member member) {
        var parts = member.getResourcePath().getUriResourceParts();
        if (parts.getLast() instanceof UriResourceLambdaAny any) {
            return overItems("some", parts, any.getLambdaVariable(), any.getExpression());
        }
        if (parts.getLast() instanceof UriResourceLambdaAll all) {
            return overItems("every", parts, all.getLambdaVariable(), all.getExpression());
        }
        var path = String.valueOf(written(parts).toCharArray());
        fields.put(path, Set.of(path));
        return path;
    }

    private String written(List<UriResource> parts) {
        if (!(parts.getFirst() instanceof UriResourceLambdaVariable variable)) {
            return path(shape, parts).written();
        }
        var items = variables.get(variable.getVariableName());
        if (items == null || parts.size() == 1) {
            throw cannotLookInto(parts.getLast());
        }
        return ITEM + "." + path(items, parts.subList(1, parts.size())).written();
    }

    /**
     * Line items for which something holds (URL Conventions 5.1.1.13); the variable has a name of
     * our own, since the caller's may mean something else here.
     */
    private String overItems(
            String quantifier,
            List<UriResource> parts,
            @Nullable String variable,
            @Nullable Expression condition) {
        var items =
                parts.size() == 2 && parts.getFirst() instanceof UriResourceNavigation list
                        ? shape.items(list.getProperty().getName())
                        : Optional.<EntityShape.Items>empty();
        var found = items.orElseThrow(() -> cannotLookInto(parts.getFirst()));
        if (condition == null) {
            return "(%s %s in %s satisfies true)".formatted(quantifier, ITEM, found.part().name());
        }
        variables.put(Objects.requireNonNull(variable), found.target());
        try {
            return "(%s %s in %s satisfies %s)"
                    .formatted(quantifier, ITEM, found.part().name(), condition.accept(this));
        } catch (ODataException e) {
            throw Refusals.bad("The filter cannot be understood: %s".formatted(e.getMessage()));
        } finally {
            variables.remove(variable);
        }
    }

    /**
     * An order does not hold for what is empty, and so its contrary does (URL Conventions
     * 5.1.1.1.3): of what is negated it must be said.
     */
    private String ordered(String comparison, String left, String right) {
        var empty = made("", List.of(left, right));
        return "(%s and %s)"
                .formatted(
                        fieldsOf(empty).stream()
                                .map(field -> field + " != null")
                                .collect(Collectors.joining(" and ")),
                        comparison);
    }

    @Override
    public String visitBinaryOperator(BinaryOperatorKind operator, String left, String right) {
        var symbol =
                switch (operator) {
                    case EQ -> "=";
                    case NE -> "!=";
                    case LT -> "<";
                    case LE -> "<=";
                    case GT -> ">";
                    case GE -> ">=";
                    case AND -> "and";
                    case OR -> "or";
                    case ADD -> "+";
                    case SUB -> "-";
                    case MUL -> "*";
                    default ->
                            throw Refusals.notOffered(
                                    "%s is not offered in a filter.".formatted(operator));
                };
        // A long chain is no deep nesting: what the same operator made is gone on with.
        boolean chained =
                (operator == BinaryOperatorKind.AND || operator == BinaryOperatorKind.OR)
                        && made.get(left) == operator;
        var text =
                "(%s %s %s)"
                        .formatted(
                                chained ? left.substring(1, left.length() - 1) : left,
                                symbol,
                                right);
        text = made(text, List.of(left, right));
        if (negates && ORDERS.contains(operator) && !fieldsOf(text).isEmpty()) {
            return ordered(text, left, right);
        }
        made.put(text, operator);
        return text;
    }

    @Override
    public String visitBinaryOperator(
            BinaryOperatorKind operator, String left, List<String> right) {
        return "("
                + String.join(
                        " or ", right.stream().map(one -> "%s = %s".formatted(left, one)).toList())
                + ")";
    }

    @Override
    public String visitUnaryOperator(UnaryOperatorKind operator, String operand) {
        return operator == UnaryOperatorKind.NOT
                ? "not(%s)".formatted(operand)
                : made("(-%s)".formatted(operand), List.of(operand));
    }

    @Override
    public String visitMethodCall(MethodKind method, List<String> given) {
        return made(call(method, given), given);
    }

    private static String call(MethodKind method, List<String> given) {
        return switch (method) {
            case CONTAINS -> call("contains", given);
            case STARTSWITH -> call("starts with", given);
            case ENDSWITH -> call("ends with", given);
            case TOLOWER -> call("lower case", given);
            case TOUPPER -> call("upper case", given);
            case LENGTH -> call("string length", given);
            case TRIM -> call("trim", given);
            case CONCAT -> "(%s + %s)".formatted(given.get(0), given.get(1));
            // Places in a text count from 0 there and from 1 here.
            case SUBSTRING ->
                    call(
                            "substring",
                            given.size() == 2
                                    ? List.of(given.get(0), given.get(1) + " + 1")
                                    : List.of(given.get(0), given.get(1) + " + 1", given.get(2)));
            case YEAR -> given.getFirst() + ".year";
            case MONTH -> given.getFirst() + ".month";
            case DAY -> given.getFirst() + ".day";
            case NOW -> "now()";
            case DATE -> call("date", given);
            case ROUND -> "round half up(%s, 0)".formatted(given.getFirst());
            case FLOOR -> call("floor", given);
            case CEILING -> call("ceiling", given);
            default ->
                    throw Refusals.notOffered("%s is not offered in a filter.".formatted(method));
        };
    }

    private static String call(String function, List<String> given) {
        return "%s(%s)".formatted(function, String.join(", ", given));
    }

    @Override
    public String visitLiteral(Literal literal) {
        return literal(literal.getText(), literal.getType());
    }

    private static String literal(String text, @Nullable EdmType type) {
        if (type == null) {
            return "null";
        }
        if (!(type instanceof EdmPrimitiveType primitive)) {
            throw Refusals.bad("%s cannot be compared.".formatted(text));
        }
        try {
            var value = primitive.fromUriLiteral(text);
            return switch (type.getName()) {
                case "Boolean" -> value;
                case "Date" -> FeelText.made("date", value);
                case "TimeOfDay" -> FeelText.made("time", value);
                case "DateTimeOffset" -> FeelText.made("date and time", value);
                case "Duration" -> FeelText.made("duration", value);
                case "SByte", "Byte", "Int16", "Int32", "Int64", "Decimal", "Single", "Double" ->
                        FeelText.number(value);
                default -> FeelText.quoted(value);
            };
        } catch (EdmPrimitiveTypeException | NumberFormatException e) {
            throw Refusals.bad("%s is not a value that can be compared.".formatted(text));
        }
    }

    @Override
    public String visitLambdaExpression(String function, String variable, Expression expression) {
        throw Refusals.notOffered("%s is not offered here.".formatted(function));
    }

    @Override
    public String visitLambdaReference(String variable) {
        throw Refusals.notOffered("A line item alone is nothing to compare.");
    }

    @Override
    public String visitAlias(String alias) {
        var value =
                uri.getAliases().stream()
                        .filter(one -> one.getName().equals(alias))
                        .findFirst()
                        .orElseThrow(() ->
                                Refusals.bad(
                                        "%s has no value; add &%s=... to the address."
                                                .formatted(alias, alias)));
        try {
            return value.getValue().accept(this);
        } catch (ODataException e) {
            throw Refusals.bad(
                    "The value of %s cannot be understood: %s".formatted(alias, e.getMessage()));
        }
    }

    @Override
    public String visitTypeLiteral(EdmType type) {
        throw Refusals.notOffered("Types cannot be asked for in a filter.");
    }

    @Override
    public String visitEnum(EdmEnumType type, List<String> values) {
        throw Refusals.notOffered("There are no enumeration types here.");
    }
}
