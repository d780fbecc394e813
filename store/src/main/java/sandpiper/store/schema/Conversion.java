package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
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
     * Columns of the new form in their order, each as an expression over those of the old; nothing
     * when there is no way.
     */
    Optional<List<String>> expressions() {
        var from = before.type();
        var to = after.type();
        var column = Tables.quoted(before.name());
        if (from.columns().equals(to.columns()) && sameForm(from, to)) {
            return Optional.of(Tables.columns(before).stream().map(Tables::quoted).toList());
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
            return Optional.of(List.of(column, "null"));
        }
        return Optional.empty();
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

    private static String rescaled(String column, int from, int to) {
        return to >= from
                ? "%s * %d".formatted(column, power(to - from))
                : "%s / %d".formatted(column, power(from - to));
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

    private static Optional<String> asText(FieldType from, String column) {
        return switch (from) {
            case NumberType number when number.scale() == 0 ->
                    Optional.of("cast(%s as text)".formatted(column));
            case NumberType number -> Optional.of(decimalAsText(column, number.scale()));
            case TextType _, ChoiceType _, OutsideChoiceType _ -> Optional.of(column);
            default ->
                    switch (from.keyword()) {
                        case UUID -> Optional.of(column);
                        case BOOLEAN ->
                                Optional.of(
                                        "case %s when 1 then 'true' when 0 then 'false' end"
                                                .formatted(column));
                        case DATE -> Optional.of("date(%s * 86400, 'unixepoch')".formatted(column));
                        default -> Optional.empty();
                    };
        };
    }

    private static String decimalAsText(String column, int scale) {
        var whole = "abs(%s) / %d".formatted(column, power(scale));
        var rest = "abs(%s) %% %d".formatted(column, power(scale));
        var text =
                "iif(%s < 0, '-', '') || (%s) || '.' || substr('000000000' || (%s), -%d)"
                        .formatted(column, whole, rest, scale);
        return "iif(%s is null, null, %s)".formatted(column, text);
    }

    /**
     * A language that both know keeps its texts; a plain text becomes that of the main language.
     */
    private List<String> languages(TextType from, TextType to) {
        if (!to.isLocalised()) {
            return List.of(Tables.quoted(before.name()));
        }
        var expressions = new ArrayList<String>();
        for (int i = 0; i < to.languages().size(); i++) {
            int place =
                    from.isLocalised()
                            ? from.languages().indexOf(to.languages().get(i))
                            : (i == 0 ? 0 : -1);
            expressions.add(place < 0 ? "null" : Tables.quoted(Tables.columns(before).get(place)));
        }
        return expressions;
    }

    /**
     * A condition over the old columns that is true for values the new type does not take; nothing
     * when it takes all.
     */
    Optional<String> unfit() {
        var column = Tables.quoted(before.name());
        var form = written();
        if (form != null) {
            return Optional.of(form.unfit(column));
        }
        return switch (after.type()) {
            case NumberType to when before.type() instanceof NumberType from ->
                    Optional.of(unfit(column, from, to));
            case TextType to ->
                    Optional.of(
                            "length(%s) > %d"
                                    .formatted(
                                            asText(before.type(), column).orElse(column),
                                            to.length()));
            case ChoiceType to ->
                    Optional.of(
                            "%s not in (%s)"
                                    .formatted(
                                            column,
                                            String.join(
                                                    ", ",
                                                    to.choices().codes().stream()
                                                            .map(code ->
                                                                    "'"
                                                                            + code.replace(
                                                                                    "'", "''")
                                                                            + "'")
                                                            .toList())));
            case FileType to -> Optional.of(unfit(column, to));
            default -> Optional.empty();
        };
    }

    /** Larger files, and those of other types; parameters of a type count for nothing. */
    private String unfit(String digest, FileType to) {
        var type = Tables.quoted(Tables.columns(before).get(2));
        var size = Tables.quoted(Tables.columns(before).get(3));
        var large = "%s > %d".formatted(size, to.largest());
        if (to.accepts().isEmpty()) {
            return large;
        }
        var taken =
                to.accepts().stream()
                        .map(range -> likeStart(range))
                        .map(start ->
                                "lower(%s) || ';' like '%s' escape '\\'".formatted(type, start))
                        .toList();
        return "(%s or (%s is not null and not (%s)))"
                .formatted(large, digest, String.join(" or ", taken));
    }

    private static String likeStart(String range) {
        var small = range.toLowerCase(Locale.ROOT).replace("_", "\\_").replace("%", "\\%");
        return small.endsWith("/*") ? small.substring(0, small.length() - 1) + "%" : small + ";%";
    }

    /** More places than there are to be, or more digits. */
    private static String unfit(String column, NumberType from, NumberType to) {
        var large =
                "abs(%s) > %d".formatted(rescaled(column, from.scale(), to.scale()), to.largest());
        return to.scale() < from.scale()
                ? "(%s %% %d <> 0 or %s)".formatted(column, power(from.scale() - to.scale()), large)
                : large;
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
