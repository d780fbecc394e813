package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.TravelSource;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.type.TextType;

/**
 * A field before and after.
 *
 * @param before {@code null} when the field is added
 * @param after {@code null} when the field is removed
 */
public record FieldChange(@Nullable Field before, @Nullable Field after) {
    /**
     * Pairs the fields of an older state with those of a newer one.
     *
     * @param former the name a field had, or {@code null} when it was not there
     */
    static List<FieldChange> between(
            @Nullable Fields older, Fields newer, Function<Field, @Nullable String> former) {
        var changes = new ArrayList<FieldChange>();
        var matched = new HashSet<String>();
        for (var after : newer) {
            var name = former.apply(after);
            var before = older == null || name == null ? null : older.get(name);
            if (before != null) {
                matched.add(before.name());
            }
            changes.add(new FieldChange(before, after));
        }
        if (older != null) {
            older.stream()
                    .filter(before -> !matched.contains(before.name()))
                    .forEach(before -> changes.add(new FieldChange(before, null)));
        }
        return changes;
    }

    static List<FieldChange> removed(Fields older) {
        return older.stream().map(before -> new FieldChange(before, null)).toList();
    }

    public boolean isAdded() {
        return before == null;
    }

    public boolean isRemoved() {
        return after == null;
    }

    public boolean isRenamed() {
        return before != null && after != null && !before.name().equals(after.name());
    }

    /** Whether the values need another form. */
    public boolean changesType() {
        return before != null && after != null && !before.type().equals(after.type());
    }

    /** Languages in which a text that stays is no longer kept. */
    public List<String> languagesGone() {
        return after == null ? List.of() : languagesBeside(before, after);
    }

    /** Languages in which a text that was there is kept from now on. */
    public List<String> languagesCome() {
        return before == null ? List.of() : languagesBeside(after, before);
    }

    /**
     * The languages of a localised text that another does not have; one that is not localised has
     * the main one.
     */
    private static List<String> languagesBeside(@Nullable Field field, Field other) {
        if (field == null
                || field.isDerived()
                || !(field.type() instanceof TextType text)
                || !(other.type() instanceof TextType rest)) {
            return List.of();
        }
        var first = text.isLocalised() ? text.languages().getFirst() : "";
        return text.languages().stream()
                .filter(one ->
                        rest.isLocalised() ? !rest.languages().contains(one) : !one.equals(first))
                .toList();
    }

    /** What a person is told, one sentence for each difference; empty when nothing differs. */
    List<String> sentences() {
        var sentences = new ArrayList<String>();
        if (before == null && after != null) {
            var source = after.logic().source();
            sentences.add(
                    "field %s is added (%s%s)"
                            .formatted(
                                    after.name(),
                                    TypeWords.of(after.type()),
                                    source == null
                                            ? ""
                                            : ", from %s by the route %s"
                                                    .formatted(source.object(), source.route())));
        } else if (after == null && before != null) {
            sentences.add("field %s is removed".formatted(before.name()));
        } else if (before != null && after != null) {
            differences(before, after, sentences);
        }
        return sentences;
    }

    private static void differences(Field before, Field after, List<String> sentences) {
        var name = after.name();
        if (!before.name().equals(name)) {
            sentences.add(
                    "field %s is renamed to %s and keeps its values"
                            .formatted(before.name(), name));
        }
        if (!TypeWords.of(before.type()).equals(TypeWords.of(after.type()))) {
            sentences.add(
                    "field %s changes from %s to %s"
                            .formatted(
                                    name, TypeWords.of(before.type()), TypeWords.of(after.type())));
        }
        if (before.required() != after.required()) {
            sentences.add(
                    "field %s is %s required"
                            .formatted(name, after.required() ? "now" : "no longer"));
        }
        if (before.unique() != after.unique()) {
            sentences.add(
                    "field %s is %s unique".formatted(name, after.unique() ? "now" : "no longer"));
        }
        if (before.readOnly() != after.readOnly()) {
            sentences.add(
                    "field %s is %s read-only"
                            .formatted(name, after.readOnly() ? "now" : "no longer"));
        }
        logic(before, after, sentences);
        if (!before.label().equals(after.label())) {
            sentences.add("field %s is labelled \"%s\"".formatted(name, after.label()));
        }
        if (!written(before.defaultValue()).equals(written(after.defaultValue()))) {
            sentences.add(
                    "the default of field %s changes from %s to %s"
                            .formatted(
                                    name,
                                    written(before.defaultValue()),
                                    written(after.defaultValue())));
        }
    }

    private static void logic(Field before, Field after, List<String> sentences) {
        var name = after.name();
        if (!Objects.equals(before.logic().formula(), after.logic().formula())) {
            sentences.add(
                    after.logic().formula() == null
                            ? "field %s no longer has a formula and keeps its values"
                                    .formatted(name)
                            : "field %s is worked out as %s"
                                    .formatted(name, after.logic().formula()));
        }
        if (!Objects.equals(before.logic().requiredWhen(), after.logic().requiredWhen())
                || !Objects.equals(before.logic().readOnlyWhen(), after.logic().readOnlyWhen())
                || !Objects.equals(before.logic().hiddenWhen(), after.logic().hiddenWhen())) {
            sentences.add("when field %s is required, read-only or hidden changes".formatted(name));
        }
        if (!Objects.equals(before.logic().offer(), after.logic().offer())) {
            sentences.add("what field %s offers changes".formatted(name));
        }
        if (!Objects.equals(before.logic().source(), after.logic().source())) {
            sentences.add(travel(name, before.logic().source(), after.logic().source()));
        }
        if (!before.logic().travels().equals(after.logic().travels())) {
            sentences.add("the routes that field %s travels change".formatted(name));
        }
        if (!before.logic().fill().equals(after.logic().fill())) {
            sentences.add("what field %s fills in changes".formatted(name));
        }
    }

    private static String travel(
            String name, @Nullable TravelSource before, @Nullable TravelSource after) {
        if (after == null) {
            return "field %s no longer travels and keeps its values".formatted(name);
        }
        return "field %s %s from %s by the route %s"
                .formatted(
                        name,
                        before == null ? "now comes" : "comes otherwise",
                        after.object(),
                        after.route());
    }

    /** Whether records that are there get their values from where a route says. */
    public boolean isTakenOver() {
        return before == null && after != null && after.logic().isTakenOver();
    }

    /** Whether values that are there must be worked out anew. */
    public boolean changesFormula() {
        return after != null
                && after.isDerived()
                && !after.onRead()
                && (before == null
                        || before.onRead()
                        || changesType()
                        || !Objects.equals(before.logic().formula(), after.logic().formula()));
    }

    /** Whether a value that is given, and not worked out, is of another kind than before. */
    boolean changesKind() {
        return before != null
                && after != null
                && !after.isDerived()
                && before.type().keyword() != after.type().keyword();
    }

    private static String written(@Nullable DefaultValue defaultValue) {
        return defaultValue == null ? "none" : defaultValue.written();
    }
}
