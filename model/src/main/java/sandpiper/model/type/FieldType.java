package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;

/** The type of a field: how its values are read, written, stored and described. Immutable. */
public sealed interface FieldType
        permits FieldType.Reference,
                TextType,
                NumberType,
                MoneyType,
                BooleanType,
                TemporalType,
                ChoiceType,
                OutsideChoiceType,
                UuidType,
                FileType {

    /** The word for it in definition files. */
    TypeKeyword keyword();

    /** What the language takes it for; a reference is resolved by whoever knows the objects. */
    LogicType logicType();

    /**
     * Reads a value in plain form, as it comes from JSON; never {@code null} and never blank text.
     */
    ParsedValue read(Object plain);

    /**
     * Reads a value written as text, as it comes from a file of values, an address or a definition.
     */
    default ParsedValue readText(String text) {
        return read(text);
    }

    /** The plain form of a value in stored form. */
    Object write(Object stored);

    /** A value in stored form as text; {@link #readText} reads it back. */
    default String writeText(Object stored) {
        return String.valueOf(write(stored));
    }

    /** The columns a value takes, most often one. */
    default List<Column> columns() {
        return List.of(new Column("", stores()));
    }

    /** How the only, or first, column is stored. */
    Storage stores();

    /** The JSON Schema (2020-12) of a value in plain form, in a fixed order. */
    Map<String, Object> schema();

    /** A value in plain form that could be one, for contracts and forms. */
    Object example();

    /** How a column is stored. */
    enum Storage {
        INTEGER,
        TEXT
    }

    /** One column of a value; {@code suffix} is empty for the first. */
    record Column(String suffix, Storage storage) {}

    /**
     * A link to a record of another object. Its stored form is that record's internal number;
     * reading a key is left to the engine, which can look records up.
     *
     * @param to the name of the other object
     * @param inverse the name of the list of records seen from there, or {@code null} when it has
     *     none
     */
    record Reference(String to, @Nullable String inverse) implements FieldType {
        @Override
        public TypeKeyword keyword() {
            return TypeKeyword.REFERENCE;
        }

        @Override
        public LogicType logicType() {
            return LogicType.Simple.TEXT;
        }

        @Override
        public ParsedValue read(Object plain) {
            throw new UnsupportedOperationException("A reference is read by looking the record up");
        }

        @Override
        public Object write(Object stored) {
            throw new UnsupportedOperationException(
                    "A reference is written as the key of its record");
        }

        @Override
        public Storage stores() {
            return Storage.INTEGER;
        }

        @Override
        public Map<String, Object> schema() {
            return new LinkedHashMap<>(Map.of("type", "string"));
        }

        @Override
        public Object example() {
            return "KEY";
        }
    }
}
