package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.FieldLogic;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;

/**
 * A field of an object or a part.
 *
 * @param index its place among the fields, from 0; the slot of its value in a record
 * @param describe what it means, or {@code null}
 * @param readOnly whether only the service sets it
 * @param defaultValue the value of a new record that gives none, or {@code null} for none
 * @param was its name in an earlier release, or {@code null}
 * @param logic what is worked out about it
 * @param addedBy the package that added it to the object of another one, or {@code null}
 * @param onRead whether its formula is worked out each time it is read, because it depends on the
 *     clock or on something else that cannot be watched; it is then empty in the store
 */
public record Field(
        int index,
        String name,
        String label,
        @Nullable String describe,
        FieldType type,
        boolean required,
        boolean unique,
        boolean readOnly,
        @Nullable DefaultValue defaultValue,
        @Nullable String was,
        FieldLogic logic,
        @Nullable String addedBy,
        boolean onRead) {

    /** Whether a formula works it out. */
    public boolean isDerived() {
        return logic.formula() != null;
    }

    /** The same field, worked out on read. */
    public Field workedOutOnRead() {
        return copy(addedBy, true);
    }

    /** The same field, added by a package to the object of another one. */
    public Field addedBy(String packageName) {
        return copy(packageName, onRead);
    }

    private Field copy(@Nullable String added, boolean read) {
        return new Field(
                index,
                name,
                label,
                describe,
                type,
                required,
                unique,
                readOnly,
                defaultValue,
                was,
                logic,
                added,
                read);
    }

    /**
     * The texts in one language of a localised field, as a field of its own that is called what
     * their column is.
     *
     * @throws IllegalArgumentException when the field has no texts in it
     */
    public Field inLanguage(String language) {
        if (!(type instanceof TextType text) || !text.languages().contains(language)) {
            throw new IllegalArgumentException("%s has no texts in %s".formatted(name, language));
        }
        var column = text.columns().get(text.languages().indexOf(language));
        return new Field(
                index,
                name + column.suffix(),
                label,
                null,
                new TextType(
                        text.keyword(), text.length(), text.pattern(), text.multiline(), List.of()),
                false,
                false,
                readOnly,
                null,
                null,
                FieldLogic.NONE,
                addedBy,
                false);
    }

    /**
     * What is said of it in contracts: what it means, or its label, whose codes it takes, and who
     * added it.
     */
    public String told() {
        var words = describe == null ? label + "." : describe;
        if (type instanceof OutsideChoiceType outside) {
            words += " A code of the outside service %s.".formatted(outside.connection());
        }
        return addedBy == null ? words : "%s Added by %s.".formatted(words, addedBy);
    }

    /** Quick, since fields are looked up in maps at every write; equal fields have one name. */
    @Override
    public int hashCode() {
        return name.hashCode();
    }

    /** Whether the field links to another record. */
    public boolean isReference() {
        return type instanceof FieldType.Reference;
    }
}
