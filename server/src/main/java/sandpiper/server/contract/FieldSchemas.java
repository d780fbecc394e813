package sandpiper.server.contract;

import io.swagger.v3.oas.models.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Names;
import sandpiper.model.release.Field;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;

/** The schemas of values, with the words and examples of the fields they are for. */
final class FieldSchemas {
    private final Release release;

    FieldSchemas(Release release) {
        this.release = release;
    }

    /** Of a value that is there. */
    Schema<?> of(Field field) {
        var schema = ContractSchema.of(field.type().schema());
        schema.setTitle(field.label());
        schema.setDescription(described(field));
        var example = example(field);
        if (example != null) {
            setExamples(schema, example);
        }
        return schema;
    }

    @SuppressWarnings("unchecked") // an example is of the type the schema tells
    private static void setExamples(Schema<?> schema, Object example) {
        ((Schema<Object>) schema).setExamples(List.of(example));
    }

    /** As it is answered: null where a record may have none. */
    Schema<?> answered(Field field) {
        boolean always = field.required() && field.defaultValue() == null;
        return always ? of(field) : ContractSchema.nullable(of(field));
    }

    /**
     * As it is sent: null empties it where it may be empty. A text alone is taken for one in
     * several languages as well, as that of the first; types of clients are better without it.
     */
    Schema<?> sent(Field field, boolean needed) {
        if (!needed) {
            return ContractSchema.nullable(of(field));
        }
        var schema = of(field);
        if (field.type() instanceof TextType text && !text.isLocalised()) {
            schema.setMinLength(1);
        }
        return schema;
    }

    private static @Nullable Object example(Field field) {
        if (field.isReference()) {
            return null;
        }
        if (field.type() instanceof TextType text && text.keyword() == TypeKeyword.TEXT) {
            // The label says more than any text made up here.
            return text.pattern() != null
                    ? null
                    : text.isLocalised()
                            ? text.example()
                            : field.label()
                                    .substring(0, Math.min(field.label().length(), text.length()));
        }
        return field.type().example();
    }

    /** What a field is for, its unit and how it is written. */
    String described(Field field) {
        var words = new StringBuilder(field.told());
        if (field.type() instanceof NumberType number && !number.unit().isEmpty()) {
            words.append(' ').append(number.unit());
        }
        if (field.type() instanceof FieldType.Reference reference) {
            var target = release.target(reference);
            words.append(
                    " The key of %s%s."
                            .formatted(
                                    Names.withArticle(target.label()),
                                    target.key().isEmpty()
                                            ? ""
                                            : " (" + String.join(", ", target.key()) + ")"));
        }
        if (field.type().keyword() == TypeKeyword.DURATION) {
            words.append(" As in P1DT6H.");
        }
        return words.toString();
    }
}
