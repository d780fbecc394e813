package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.TypeWords;
import sandpiper.model.release.Field;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.store.sql.Either;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * How the values of a field get the form of another type. A change that could lose or spoil a value
 * is not made; the conversion says so with the count of records in the way.
 */
final class Conversion {
    private final Field before;
    private final Field after;

    Conversion(Field before, Field after) {
        this.before = before;
        this.after = after;
    }

    /**
     * Columns of the new form in their order, each worked out from those of the old; nothing when
     * there is no way.
     */
    Optional<List<org.jooq.Field<Object>>> expressions() {
        var from = before.type();
        var to = after.type();
        var column = Sql.column(before.name());
        if (from.columns().equals(to.columns()) && sameForm(from, to)) {
            return Optional.of(columnsBefore());
        }
        if (from instanceof NumberType a && to instanceof NumberType b && sameMeaning(a, b)) {
            return Optional.of(List.of(rescaled(column, a.scale(), b.scale())));
        }
        if (isPlainText(to)) {
            return asText(from, column).map(List::of);
        }
        if (from instanceof TextType a && to instanceof TextType b) {
            return Optional.of(languages(a, b));
        }
        boolean isCode =
                from instanceof ChoiceType
                        || from instanceof OutsideChoiceType
                        || (from instanceof TextType a && !a.isLocalised());
        if (isCode && to instanceof ChoiceType) {
            return Optional.of(List.of(column));
        }
        var form = written();
        if (form != null) {
            return Optional.of(List.of(form.read(column)));
        }
        if (isCode && to instanceof OutsideChoiceType) {
            // What it is called outside is known when it is chosen again.
            return Optional.of(List.of(column, nothing()));
        }
        return Optional.empty();
    }

    private List<org.jooq.Field<Object>> columnsBefore() {
        return Tables.columns(before).stream().map(Sql::column).toList();
    }

    private static org.jooq.Field<Object> nothing() {
        return DSL.field("null", Object.class);
    }

    /** Whether what is stored stays as it is. */
    boolean keepsStoredForm() {
        return expressions().orElse(List.of()).equals(columnsBefore());
    }

    /** How values are read that are stored as they are written, or {@code null}. */
    private @Nullable TextForm written() {
        var from = before.type();
        boolean isWritten =
                from instanceof ChoiceType
                        || (from instanceof TextType text && !text.isLocalised());
        return isWritten ? TextForm.of(after.type()) : null;
    }

    private static boolean sameForm(FieldType from, FieldType to) {
        if (from instanceof FieldType.Reference a && to instanceof FieldType.Reference b) {
            return a.to().equals(b.to());
        }
        if (from instanceof NumberType a && to instanceof NumberType b) {
            return a.scale() == b.scale() && sameMeaning(a, b);
        }
        if (from instanceof TextType a && to instanceof TextType b) {
            return a.languages().equals(b.languages());
        }
        boolean text =
                from.stores() == FieldType.Storage.TEXT
                        && to.stores() == FieldType.Storage.TEXT
                        && to.keyword() != TypeKeyword.UUID;
        return from.keyword() == to.keyword() || (text && !(from instanceof FieldType.Reference));
    }

    /**
     * Two currencies, or a percent and a plain number, are the same digits with another meaning.
     */
    private static boolean sameMeaning(NumberType from, NumberType to) {
        boolean percent = from.keyword() == TypeKeyword.PERCENT;
        boolean otherCurrency =
                from.currency() != null
                        && to.currency() != null
                        && !from.currency().equals(to.currency());
        return percent == (to.keyword() == TypeKeyword.PERCENT) && !otherCurrency;
    }

    private static org.jooq.Field<Object> rescaled(
            org.jooq.Field<Object> column, int from, int to) {
        return to >= from
                ? DSL.field("{0} * " + power(to - from), Object.class, column)
                : DSL.field("{0} / " + power(from - to), Object.class, column);
    }

    static long power(int exponent) {
        long power = 1;
        for (int i = 0; i < exponent; i++) {
            power *= 10;
        }
        return power;
    }

    private static boolean isPlainText(FieldType type) {
        return type instanceof TextType text
                && !text.isLocalised()
                && text.keyword() == TypeKeyword.TEXT;
    }

    private static Optional<org.jooq.Field<Object>> asText(
            FieldType from, org.jooq.Field<Object> column) {
        return switch (from) {
            case NumberType number when number.scale() == 0 ->
                    Optional.of(DSL.field("cast({0} as text)", Object.class, column));
            case NumberType number -> Optional.of(decimalAsText(column, number.scale()));
            case TextType _, ChoiceType _, OutsideChoiceType _ -> Optional.of(column);
            default ->
                    switch (from.keyword()) {
                        case UUID -> Optional.of(column);
                        case BOOLEAN ->
                                Optional.of(
                                        DSL.field(
                                                "case {0} when 1 then 'true' when 0 then 'false'"
                                                        + " end",
                                                Object.class, column));
                        case DATE ->
                                Optional.of(
                                        Either.field(
                                                "date({0} * 86400, 'unixepoch')",
                                                "to_char(date '1970-01-01' + cast({0} as integer),"
                                                        + " 'YYYY-MM-DD')",
                                                column));
                        default -> Optional.empty();
                    };
        };
    }

    private static org.jooq.Field<Object> decimalAsText(org.jooq.Field<Object> column, int scale) {
        return DSL.field(
                "case when {0} is null then null else case when {0} < 0 then '-' else '' end || cast(abs({0}) / %1$d as text) || '.' || substr(cast(abs({0}) %% %1$d + %1$d as text), 2) end"
                        .formatted(power(scale)),
                Object.class,
                column);
    }

    /**
     * A language that both know keeps its texts; a plain text becomes that of the main language.
     */
    private List<org.jooq.Field<Object>> languages(TextType from, TextType to) {
        if (!to.isLocalised()) {
            return List.of(Sql.column(before.name()));
        }
        var expressions = new ArrayList<org.jooq.Field<Object>>();
        for (int i = 0; i < to.languages().size(); i++) {
            int place =
                    from.isLocalised()
                            ? from.languages().indexOf(to.languages().get(i))
                            : (i == 0 ? 0 : -1);
            expressions.add(place < 0 ? nothing() : Sql.column(Tables.columns(before).get(place)));
        }
        return expressions;
    }

    /**
     * A condition over the old columns that is true for values the new type does not take; nothing
     * when it takes all.
     */
    Optional<Condition> unfit() {
        var column = Sql.column(before.name());
        var form = written();
        if (form != null) {
            return Optional.of(form.unfit(column));
        }
        return switch (after.type()) {
            case NumberType to when before.type() instanceof NumberType from ->
                    Optional.of(unfit(column, from, to));
            case TextType to ->
                    Optional.of(
                            DSL.condition(
                                    "length({0}) > " + to.length(),
                                    asText(before.type(), column).orElse(column)));
            case ChoiceType to ->
                    Optional.of(
                            column.notIn(to.choices().codes().stream().map(DSL::inline).toList()));
            case FileType to -> Optional.of(unfit(column, to));
            default -> Optional.empty();
        };
    }

    /** Larger files, and those of other types; parameters of a type count for nothing. */
    private Condition unfit(org.jooq.Field<Object> digest, FileType to) {
        var type = Sql.column(Tables.columns(before).get(2));
        var large = Sql.number(Tables.columns(before).get(3)).gt(DSL.inline(to.largest()));
        if (to.accepts().isEmpty()) {
            return large;
        }
        var taken =
                to.accepts().stream()
                        .map(Conversion::likeStart)
                        .map(start ->
                                DSL.condition(
                                        "lower({0}) || ';' like {1} escape '\\'",
                                        type, DSL.inline(start)))
                        .toList();
        return large.or(digest.isNotNull().and(DSL.not(DSL.or(taken))));
    }

    private static String likeStart(String range) {
        var small = range.toLowerCase(Locale.ROOT).replace("_", "\\_").replace("%", "\\%");
        return small.endsWith("/*") ? small.substring(0, small.length() - 1) + "%" : small + ";%";
    }

    /** More places than there are to be, or more digits. */
    private static Condition unfit(org.jooq.Field<Object> column, NumberType from, NumberType to) {
        boolean more = to.scale() >= from.scale();
        long factor = power(Math.abs(to.scale() - from.scale()));
        var large =
                Either.condition(
                        "abs({0} %s %d) > %d".formatted(more ? "*" : "/", factor, to.largest()),
                        "abs(%s) > %d"
                                .formatted(
                                        more
                                                ? "cast({0} as numeric) * " + factor
                                                : "{0} / " + factor,
                                        to.largest()),
                        column);
        return more ? large : DSL.condition("{0} % " + factor + " <> 0", column).or(large);
    }

    /** Why values are in the way. */
    String unfitBecause() {
        if (written() != null) {
            return "a text that cannot be read as that";
        }
        return switch (after.type()) {
            case NumberType to
                    when before.type() instanceof NumberType from && to.scale() >= from.scale() ->
                    "more digits than it can have";
            case NumberType to ->
                    "more than " + Counts.of(to.scale(), "decimal place", "decimal places");
            case TextType to -> "more than %d characters".formatted(to.length());
            case FileType to -> "a file that is not " + to.taken();
            case ChoiceType to ->
                    "a code that is not among " + String.join(", ", to.choices().codes());
            default -> "a value that does not fit";
        };
    }

    /** Whether every value has to be looked at by the new type, since no condition tells. */
    boolean needsPatternCheck() {
        return after.type() instanceof TextType to
                && (to.pattern() != null
                        || to.keyword() != TypeKeyword.TEXT
                        || (!to.multiline()
                                && before.type() instanceof TextType from
                                && from.multiline()))
                && !after.type().equals(before.type());
    }

    String impossible() {
        return "%s cannot become %s: there is no sure way to keep the values. Add a new field and remove this one."
                .formatted(TypeWords.of(before.type()), TypeWords.of(after.type()));
    }
}
