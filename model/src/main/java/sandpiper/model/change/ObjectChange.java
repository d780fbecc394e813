package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * An object before and after.
 *
 * @param before {@code null} when the object is added
 * @param after {@code null} when the object is removed
 */
public record ObjectChange(
        @Nullable ObjectType before,
        @Nullable ObjectType after,
        List<FieldChange> fields,
        List<PartChange> parts) {
    public ObjectChange {
        fields = List.copyOf(fields);
        parts = List.copyOf(parts);
    }

    static ObjectChange between(@Nullable ObjectType before, ObjectType after, FormerNames names) {
        return new ObjectChange(
                before,
                after,
                FieldChange.between(
                        before == null ? null : before.fields(),
                        after.fields(),
                        field -> names.of(after, null, field)),
                parts(before, after, names));
    }

    static ObjectChange removed(ObjectType before) {
        return new ObjectChange(
                before,
                null,
                FieldChange.removed(before.fields()),
                before.parts().stream().map(PartChange::removed).toList());
    }

    private static List<PartChange> parts(
            @Nullable ObjectType object, ObjectType after, FormerNames names) {
        var older = object == null ? List.<Part>of() : object.parts();
        var changes = new ArrayList<PartChange>();
        var matched = new HashSet<String>();
        for (var part : after.parts()) {
            var name = names.of(after, part);
            var before =
                    older.stream().filter(one -> one.name().equals(name)).findFirst().orElse(null);
            if (before != null) {
                matched.add(before.name());
            }
            changes.add(
                    new PartChange(
                            before,
                            part,
                            FieldChange.between(
                                    before == null ? null : before.fields(),
                                    part.fields(),
                                    field -> names.of(after, part, field))));
        }
        older.stream()
                .filter(before -> !matched.contains(before.name()))
                .forEach(before -> changes.add(PartChange.removed(before)));
        return changes;
    }

    /** The name people know it by: the new one, or the old one of what is removed. */
    public String name() {
        return after != null ? after.name() : Objects.requireNonNull(before).name();
    }

    List<String> sentences() {
        if (before == null && after != null) {
            return List.of(
                    "Object %s is added, with %d fields."
                            .formatted(after.name(), after.fields().size()));
        }
        if (after == null && before != null) {
            return List.of("Object %s is removed.".formatted(before.name()));
        }
        var sentences = new ArrayList<String>();
        if (before != null && after != null) {
            if (!before.name().equals(after.name())) {
                sentences.add(
                        "Object %s is renamed to %s and keeps its records."
                                .formatted(before.name(), after.name()));
            }
            if (!before.key().equals(after.key())) {
                sentences.add(
                        "%s: the key is now %s."
                                .formatted(
                                        after.name(),
                                        after.key().isEmpty()
                                                ? "none"
                                                : String.join(", ", after.key())));
            }
            if (!before.label().equals(after.label()) || !before.plural().equals(after.plural())) {
                sentences.add(
                        "%s: it is labelled \"%s\", several \"%s\"."
                                .formatted(after.name(), after.label(), after.plural()));
            }
            if (before.removal() != after.removal()
                    || !Objects.equals(before.numbering(), after.numbering())) {
                sentences.add("%s: numbering or removal changes.".formatted(after.name()));
            }
            LogicSentences.add(before, after, sentences);
            if (!before.layout().form().equals(after.layout().form())) {
                sentences.add("%s: its form is laid out anew.".formatted(after.name()));
            }
            if (!before.layout().list().equals(after.layout().list())) {
                sentences.add("%s: its list is laid out anew.".formatted(after.name()));
            }
        }
        fields.forEach(field ->
                field.sentences()
                        .forEach(text -> sentences.add("%s: %s.".formatted(name(), text))));
        parts.forEach(part -> partSentences(part, sentences));
        return sentences;
    }

    private void partSentences(PartChange part, List<String> sentences) {
        var before = part.before();
        var after = part.after();
        if (before == null && after != null) {
            sentences.add("%s: line items %s are added.".formatted(name(), after.name()));
        } else if (after == null && before != null) {
            sentences.add("%s: line items %s are removed.".formatted(name(), before.name()));
        } else if (before != null && after != null) {
            if (!before.name().equals(after.name())) {
                sentences.add(
                        "%s: line items %s are renamed to %s."
                                .formatted(name(), before.name(), after.name()));
            }
            part.fields()
                    .forEach(field ->
                            field.sentences()
                                    .forEach(text ->
                                            sentences.add(
                                                    "%s.%s: %s."
                                                            .formatted(
                                                                    name(), after.name(), text))));
        }
    }
}
