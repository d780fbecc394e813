package sandpiper.store.record;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.type.LogicType;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.AskedLanguages;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.type.UuidType;
import sandpiper.store.table.Tables;

/** Brings a condition down to columns and stored values. */
final class ConditionToSql {
    private static final Map<String, String> OF_EVERY_ROW =
            Map.of(
                    "createdAt", Tables.CREATED_AT,
                    "createdBy", Tables.CREATED_BY,
                    "changedAt", Tables.CHANGED_AT,
                    "changedBy", Tables.CHANGED_BY,
                    "retired", Tables.RETIRED,
                    "line", Tables.LINE);

    private static final long MICROS_A_DAY = 86_400_000_000L;

    private final Release release;
    private final ObjectType object;

    /** The part whose line items the condition is about, or {@code null} for records. */
    private final @Nullable Part part;

    private final java.util.function.Predicate<ObjectType> isSmall;

    ConditionToSql(Release release, ObjectType object) {
        this(release, object, _ -> false);
    }

    /**
     * @param isSmall whether an object has so few records that they can be listed
     */
    ConditionToSql(
            Release release, ObjectType object, java.util.function.Predicate<ObjectType> isSmall) {
        this(release, object, null, isSmall);
    }

    private ConditionToSql(
            Release release,
            ObjectType object,
            @Nullable Part part,
            java.util.function.Predicate<ObjectType> isSmall) {
        this.release = release;
        this.object = object;
        this.part = part;
        this.isSmall = isSmall;
    }

    Predicate lower(Condition condition) {
        return switch (condition) {
            case Condition.All(var parts) ->
                    new Predicate.All(parts.stream().map(this::lower).toList());
            case Condition.Any(var parts) ->
                    new Predicate.Any(parts.stream().map(this::lower).toList());
            case Condition.Not(var inner) -> new Predicate.Not(lower(inner));
            case Condition.OverItems(var isEvery, var name, var inner) -> {
                var items = object.part(name).orElseThrow();
                yield new Predicate.OverItems(
                        object,
                        items,
                        isEvery,
                        new ConditionToSql(release, object, items, isSmall).lower(inner));
            }
            case Condition.Unknown _ -> new Predicate.Unknown();
            case Condition.Empty(var operand) -> new Predicate.Empty(target(operand).scalar());
            case Condition.Holds(var flag) -> new Predicate.Holds(target(flag).scalar());
            case Condition.TextMatch(var within, var place, var text) ->
                    new Predicate.Match(target(within).scalar(), place, text);
            case Condition.Compare(var left, var operator, var right) ->
                    compare(target(left), operator, right);
        };
    }

    /** The column at the end of a path. */
    ColumnRef column(List<String> path) {
        return reach(path).column();
    }

    /** What rows are put in order by. */
    Scalar scalar(Operand operand) {
        return target(operand).scalar();
    }

    private ScaledScalar target(Operand operand) {
        return switch (operand) {
            case Operand.Field field -> stored(field);
            case Operand.Value value -> bound(value);
            case Operand.Nothing _ -> ScaledScalar.plain(new Scalar.Bound(null));
            case Operand.Worked worked -> worked(worked);
            case Operand.Truth(var condition) ->
                    ScaledScalar.plain(new Scalar.Truth(lower(condition)));
            case Operand.Arithmetic arithmetic -> arithmetic(arithmetic);
            case Operand.Later(var date, long days) ->
                    ScaledScalar.plain(
                            new Scalar.Arithmetic(
                                    '+', target(date).scalar(), new Scalar.Bound(days)));
            case Operand.Piece(var of, var name, _) -> piece(of, name);
            case Operand.Letters(var of, boolean capital) ->
                    ScaledScalar.plain(new Scalar.Letters(target(of).scalar(), capital));
            case Operand.Length(var of) ->
                    ScaledScalar.plain(new Scalar.Length(target(of).scalar()));
            case Operand.Choice choice -> choice(choice);
            case Operand.Total total -> total(total);
        };
    }

    private ScaledScalar stored(Operand.Field operand) {
        var reached = reach(operand.path());
        var field = reached.field();
        if (field != null && field.type() instanceof TextType text && text.isLocalised()) {
            return ScaledScalar.plain(
                    localised(operand.path().getLast(), field, text, reached.column()));
        }
        var column = new Scalar.Column(reached.column());
        return field == null ? ScaledScalar.plain(column) : ofType(field.type(), column);
    }

    /** In the language that is named, or in that of who asks, or in the main one. */
    private static Scalar localised(String name, Field field, TextType type, ColumnRef main) {
        var columns = Tables.columns(field);
        int named = name.indexOf('.');
        int place =
                named < 0
                        ? AskedLanguages.current().place(type.languages())
                        : type.languages().indexOf(name.substring(named + 1));
        var column = new Scalar.Column(new ColumnRef(main.via(), columns.get(place)));
        return place == 0 || named >= 0
                ? column
                : new Scalar.Choice(new Predicate.Empty(column), new Scalar.Column(main), column);
    }

    private static ScaledScalar ofType(FieldType type, Scalar scalar) {
        return switch (type) {
            case NumberType number ->
                    new ScaledScalar(scalar, number.scale(), isPercent(number), false);
            case MoneyType money -> ScaledScalar.number(scalar, money.scale());
            default -> new ScaledScalar(scalar, 0, false, type instanceof UuidType);
        };
    }

    private static boolean isPercent(NumberType type) {
        return type.keyword() == TypeKeyword.PERCENT;
    }

    private static ScaledScalar bound(Operand.Value value) {
        if (value.value() instanceof BigDecimal number) {
            var scale = Math.max(number.scale(), 0);
            var unscaled = number.movePointRight(scale);
            return new ScaledScalar(
                    new Scalar.Bound(
                            ScaledScalar.fits(unscaled) ? (Object) unscaled.longValue() : null),
                    scale,
                    value.type() == LogicType.Simple.PERCENT,
                    false);
        }
        return ScaledScalar.plain(new Scalar.Bound(ScaledScalar.column(value.value())));
    }

    /** A value worked out goes through its field's type as it would if it were stored. */
    private ScaledScalar worked(Operand.Worked worked) {
        var type = Objects.requireNonNull(reach(worked.path()).field()).type();
        var inner = AskedLanguages.MAIN.in(() -> target(worked.formula()));
        if (!(type instanceof NumberType number)) {
            return ofType(type, inner.scalar());
        }
        int places = number.scale() + (isPercent(number) ? ScaledScalar.PERCENT_PLACES : 0);
        var scaled = ScaledScalar.times(inner.scalar(), Math.max(places - inner.places(), 0));
        return ofType(
                type,
                new Scalar.Fitted(
                        scaled,
                        ScaledScalar.power(Math.max(inner.places() - places, 0)),
                        object.rounding(),
                        number.largest()));
    }

    private ScaledScalar arithmetic(Operand.Arithmetic arithmetic) {
        var left = target(arithmetic.left());
        var right = target(arithmetic.right());
        if (arithmetic.operator() == ArithmeticOperator.TIMES) {
            return ScaledScalar.number(
                    new Scalar.Arithmetic('*', left.scalar(), right.scalar()),
                    left.places() + right.places());
        }
        int scale = Math.max(left.places(), right.places());
        var made =
                new Scalar.Arithmetic(
                        arithmetic.operator() == ArithmeticOperator.PLUS ? '+' : '-',
                        ScaledScalar.times(left.scalar(), scale - left.places()),
                        ScaledScalar.times(right.scalar(), scale - right.places()));
        boolean days = arithmetic.left().type() == LogicType.Simple.DATE;
        return ScaledScalar.number(days ? new Scalar.Times(made, MICROS_A_DAY) : made, scale);
    }

    private ScaledScalar piece(Operand of, String name) {
        if (of instanceof Operand.Field stored) {
            var reached = reach(stored.path());
            var field = reached.field();
            if (field != null && field.type() instanceof FileType) {
                return ofFile(field, reached.column(), name);
            }
        }
        var inner = target(of).scalar();
        return ScaledScalar.plain(
                switch (name) {
                    case "year" -> new Scalar.DatePiece(inner, 'Y');
                    case "month" -> new Scalar.DatePiece(inner, 'm');
                    case "day" -> new Scalar.DatePiece(inner, 'd');
                    default -> new Scalar.Whole(inner, MICROS_A_DAY);
                });
    }

    private static ScaledScalar ofFile(Field field, ColumnRef digest, String name) {
        int place =
                switch (name) {
                    case FileType.NAME -> 1;
                    case FileType.TYPE -> 2;
                    case FileType.SIZE -> 3;
                    default -> 0;
                };
        var column =
                new Scalar.Column(new ColumnRef(digest.via(), Tables.columns(field).get(place)));
        return name.equals(FileType.SIZE)
                ? ScaledScalar.number(column, 0)
                : ScaledScalar.plain(column);
    }

    private ScaledScalar choice(Operand.Choice choice) {
        var then = target(choice.then());
        var otherwise = target(choice.otherwise());
        // A percent beside a plain number is the share it counts as.
        int places = Math.max(then.places(), otherwise.places());
        return ScaledScalar.number(
                new Scalar.Choice(
                        lower(choice.when()),
                        ScaledScalar.times(then.scalar(), places - then.places()),
                        ScaledScalar.times(otherwise.scalar(), places - otherwise.places())),
                places);
    }

    private ScaledScalar total(Operand.Total total) {
        var of = ((ObjectRecordType) total.records()).object();
        var inside = new ConditionToSql(release, of);
        var wanted = total.total();
        var value =
                wanted.value().isEmpty()
                        ? null
                        : inside.stored(
                                new Operand.Field(wanted.value(), wanted.type(), new Span(0, 0)));
        var condition = total.condition();
        var scalar =
                new Scalar.Total(
                        wanted.function(),
                        of,
                        value == null ? null : value.scalar(),
                        total.link().isEmpty() ? null : inside.column(total.link()),
                        total.owner().isEmpty()
                                ? ColumnRef.own(Tables.NUMBER)
                                : column(total.owner()),
                        condition == null ? null : inside.lower(condition));
        return value == null || wanted.function().equals("count")
                ? ScaledScalar.plain(scalar)
                : new ScaledScalar(scalar, value.scale(), value.percent(), value.smallLetters());
    }

    /** Where a path ends; {@code field} is {@code null} for what every record has. */
    private record Reached(ColumnRef column, @Nullable Field field) {}

    private Reached reach(List<String> path) {
        var way = new ArrayList<Field>();
        var at = part == null ? object.fields() : part.fields();
        for (var name : path.subList(0, path.size() - 1)) {
            var step = at.get(name);
            way.add(step);
            at = release.target(step).fields();
        }
        return at.find(fieldName(path.getLast()))
                .map(field -> new Reached(new ColumnRef(way, field.name()), field))
                .orElseGet(
                        () -> new Reached(new ColumnRef(way, systemColumn(path.getLast())), null));
    }

    /** A localised text in one language is written {@code name.de}. */
    private static String fieldName(String name) {
        int language = name.indexOf('.');
        return language < 0 ? name : name.substring(0, language);
    }

    private static String systemColumn(String name) {
        return Objects.requireNonNull(OF_EVERY_ROW.get(name));
    }

    private Predicate compare(ScaledScalar left, Operator operator, Operand right) {
        return right instanceof Operand.Value(var value, _)
                ? keyed(left.comparedToValue(operator, value))
                : left.compared(operator, target(right));
    }

    /**
     * The key of what a field refers to is brought to the reference itself, which is a number with
     * an index; comparing the key would go through all records there are.
     */
    private Predicate keyed(Predicate predicate) {
        if (predicate instanceof Predicate.Compare(var left, var operator, var right)
                && (operator == Operator.EQUAL || operator == Operator.NOT_EQUAL)
                && left instanceof Scalar.Column(var column)
                && !column.via().isEmpty()
                && right instanceof Scalar.Bound(var value)
                && value != null) {
            var reference = column.via().getLast();
            var target = release.target(reference);
            if (isUnique(target, column.column())) {
                return through(
                        column.via().subList(0, column.via().size() - 1),
                        reference.name(),
                        operator,
                        new Scalar.Keyed(target, column.column(), value));
            }
        }
        return predicate;
    }

    /** A reference at the end of a way compared, which small objects on the way make shorter. */
    private Predicate through(List<Field> way, String reference, Operator operator, Scalar key) {
        if (way.isEmpty() || !isSmall.test(release.target(way.getLast()))) {
            return new Predicate.Compare(
                    new Scalar.Column(new ColumnRef(way, reference)), operator, key);
        }
        var last = way.getLast();
        var among =
                new Predicate.Among(
                        new ColumnRef(way.subList(0, way.size() - 1), last.name()),
                        release.target(last),
                        new Predicate.Compare(
                                new Scalar.Column(ColumnRef.own(reference)), Operator.EQUAL, key));
        return operator == Operator.EQUAL ? among : new Predicate.Not(among);
    }

    private static boolean isUnique(ObjectType object, String column) {
        return object.key().equals(List.of(column))
                || object.fields().find(column).map(Field::unique).orElse(false);
    }

    /**
     * The columns in which a search looks: the object's texts, and the keys of what it refers to.
     */
    List<ColumnRef> searchable() {
        var columns = new ArrayList<ColumnRef>();
        for (var field : object.fields()) {
            if (field.type().stores() == FieldType.Storage.TEXT) {
                Tables.columns(field)
                        .forEach(column -> columns.add(new ColumnRef(List.of(), column)));
            } else if (field.type() instanceof FieldType.Reference reference) {
                release.target(reference).keyFields().stream()
                        .filter(key -> key.type().stores() == FieldType.Storage.TEXT)
                        .forEach(key -> columns.add(new ColumnRef(List.of(field), key.name())));
            }
        }
        return columns;
    }
}
