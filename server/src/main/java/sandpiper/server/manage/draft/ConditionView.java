package sandpiper.server.manage.draft;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.logic.outline.Outline;
import sandpiper.logic.outline.Relation;
import sandpiper.logic.outline.Side;
import sandpiper.server.problem.ProblemException;

/**
 * A condition, or a part of one.
 *
 * @param all of a group, whether all its parts must hold, or one
 * @param negated of a group, whether the opposite is meant
 * @param quantity of items, of how many it must hold
 * @param list of items, the path to them
 * @param name of items, what one is called in the condition
 * @param text of a text
 */
public record ConditionView(
        @NotNull PartKind kind,
        @Nullable Boolean all,
        @Nullable Boolean negated,
        @Nullable List<@Valid ConditionView> parts,
        @Nullable @Valid OperandView of,
        @Nullable Relation relation,
        @Nullable List<@Valid OperandView> values,
        Outline.@Nullable Quantity quantity,
        @Nullable String list,
        @Nullable String name,
        @Nullable @Valid ConditionView condition,
        @Nullable @Size(max = LONGEST) String text) {
    static final int LONGEST = 20_000;

    /** What a part is, which decides what of {@link ConditionView} is there. */
    enum PartKind {
        GROUP,
        COMPARISON,
        ITEMS,
        TEXT
    }

    /** What a side of a comparison is, which decides what of {@link OperandView} is there. */
    enum OperandKind {
        VALUE,
        FIELD,
        TOTAL,
        RELATIVE,
        EXPRESSION
    }

    /**
     * One side of a comparison.
     *
     * @param text the value, path or expression
     * @param type of a value
     * @param function of a total
     * @param exact of a relative date, whether a moment is meant
     * @param amount of a relative date, units later; negative for earlier
     */
    record OperandView(
            @NotNull OperandKind kind,
            @Nullable @Size(max = LONGEST) String text,
            Side.@Nullable Kind type,
            Side.@Nullable Function function,
            @Nullable Boolean exact,
            @Nullable Integer amount,
            Side.@Nullable Unit unit) {
        static OperandView of(Side operand) {
            return switch (operand) {
                case Side.Value value ->
                        new OperandView(
                                OperandKind.VALUE,
                                value.text(),
                                value.kind(),
                                null,
                                null,
                                null,
                                null);
                case Side.Field field -> plain(OperandKind.FIELD, field.path());
                case Side.Total total ->
                        new OperandView(
                                OperandKind.TOTAL,
                                total.path(),
                                null,
                                total.function(),
                                null,
                                null,
                                null);
                case Side.Relative relative ->
                        new OperandView(
                                OperandKind.RELATIVE,
                                null,
                                null,
                                null,
                                relative.exact(),
                                relative.amount(),
                                relative.unit());
                case Side.Expression expression -> plain(OperandKind.EXPRESSION, expression.text());
            };
        }

        private static OperandView plain(OperandKind kind, String text) {
            return new OperandView(kind, text, null, null, null, null, null);
        }

        Side operand() {
            var written = text == null ? "" : text;
            return switch (kind) {
                case VALUE ->
                        new Side.Value(Objects.requireNonNullElse(type, Side.Kind.TEXT), written);
                case FIELD -> new Side.Field(written);
                case TOTAL -> new Side.Total(needed(function, "function"), written);
                case RELATIVE ->
                        new Side.Relative(
                                Boolean.TRUE.equals(exact),
                                needed(amount, "amount"),
                                needed(unit, "unit"));
                case EXPRESSION -> new Side.Expression(written);
            };
        }
    }

    static ConditionView of(Outline outline) {
        return switch (outline) {
            case Outline.Group group ->
                    new ConditionView(
                            PartKind.GROUP,
                            group.all(),
                            group.negated(),
                            group.parts().stream().map(ConditionView::of).toList(),
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null);
            case Outline.Comparison comparison ->
                    new ConditionView(
                            PartKind.COMPARISON,
                            null,
                            null,
                            null,
                            OperandView.of(comparison.of()),
                            comparison.relation(),
                            comparison.values().stream().map(OperandView::of).toList(),
                            null,
                            null,
                            null,
                            null,
                            null);
            case Outline.Items items ->
                    new ConditionView(
                            PartKind.ITEMS,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            items.quantity(),
                            items.list(),
                            items.name(),
                            of(items.condition()),
                            null);
            case Outline.Text own ->
                    new ConditionView(
                            PartKind.TEXT,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            null,
                            own.text());
        };
    }

    Outline outline() {
        return switch (kind) {
            case GROUP ->
                    new Outline.Group(
                            !Boolean.FALSE.equals(all),
                            Boolean.TRUE.equals(negated),
                            needed(parts, "parts").stream().map(ConditionView::outline).toList());
            case COMPARISON ->
                    new Outline.Comparison(
                            needed(of, "of").operand(),
                            needed(relation, "relation"),
                            (values == null ? List.<OperandView>of() : values)
                                    .stream().map(OperandView::operand).toList());
            case ITEMS ->
                    new Outline.Items(
                            needed(quantity, "quantity"),
                            needed(list, "list"),
                            needed(name, "name"),
                            needed(condition, "condition").outline());
            case TEXT -> new Outline.Text(needed(text, "text"));
        };
    }

    private static <T> T needed(@Nullable T value, String name) {
        if (value == null) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "%s is missing in a part.".formatted(name));
        }
        return value;
    }
}
