package sandpiper.store.table;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;
import sandpiper.model.type.Localised;
import sandpiper.model.type.Money;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.OutsideCode;
import sandpiper.model.type.TextType;

/** Values between their stored form and the columns of a row. */
public final class ColumnValues {
    private ColumnValues() {}

    /** The column values of one field, as many as it has columns. */
    public static List<@Nullable Object> split(Field field, @Nullable Object value) {
        var values = new ArrayList<@Nullable Object>();
        split(field, value, values);
        return values;
    }

    public static void split(Field field, @Nullable Object value, List<@Nullable Object> into) {
        switch (field.type()) {
            case TextType text when text.isLocalised() -> {
                for (int i = 0; i < text.languages().size(); i++) {
                    into.add(value instanceof Localised localised ? localised.text(i) : null);
                }
            }
            case MoneyType _ -> {
                into.add(value instanceof Money money ? money.unscaled() : null);
                into.add(value instanceof Money money ? money.currency() : null);
            }
            case OutsideChoiceType _ -> {
                into.add(value instanceof OutsideCode code ? code.code() : null);
                into.add(value instanceof OutsideCode code ? code.label() : null);
            }
            case FileType _ -> split(value instanceof KeptFile file ? file : null, into);
            default -> into.add(value);
        }
    }

    private static void split(@Nullable KeptFile file, List<@Nullable Object> into) {
        into.add(file == null ? null : file.sha256());
        into.add(file == null ? null : file.name());
        into.add(file == null ? null : file.mediaType());
        into.add(file == null ? null : file.size());
    }

    /** The value of one field from its columns, which begin at {@code column} (1-based). */
    public static @Nullable Object read(Field field, ResultSet row, int column)
            throws SQLException {
        switch (field.type()) {
            case TextType text when text.isLocalised() -> {
                var texts = new ArrayList<@Nullable String>();
                boolean any = false;
                for (int i = 0; i < text.languages().size(); i++) {
                    var one = text(row, column + i);
                    any |= one != null;
                    texts.add(one);
                }
                return any ? new Localised(texts) : null;
            }
            case MoneyType _ -> {
                var currency = text(row, column + 1);
                return currency == null ? null : new Money(row.getLong(column), currency);
            }
            case OutsideChoiceType _ -> {
                var code = text(row, column);
                return code == null ? null : new OutsideCode(code, text(row, column + 1));
            }
            case FileType _ -> {
                return file(row, column);
            }
            default -> {
                return readOne(field.type().stores(), row, column);
            }
        }
    }

    private static @Nullable KeptFile file(ResultSet row, int column) throws SQLException {
        var digest = text(row, column);
        return digest == null
                ? null
                : new KeptFile(
                        Objects.requireNonNull(text(row, column + 1)),
                        Objects.requireNonNull(text(row, column + 2)),
                        row.getLong(column + 3),
                        digest,
                        null);
    }

    /** The text of a column, read as bytes: the driver is slow at making text of its own. */
    public static @Nullable String text(ResultSet row, int column) throws SQLException {
        var bytes = row.getBytes(column);
        // Text without a letter comes as no bytes at all.
        return bytes == null ? row.getString(column) : new String(bytes, StandardCharsets.UTF_8);
    }

    static @Nullable Object readOne(FieldType.Storage storage, ResultSet row, int column)
            throws SQLException {
        if (storage == FieldType.Storage.TEXT) {
            return text(row, column);
        }
        long number = row.getLong(column);
        // Nothing reads as 0; to ask each time would be another call into the driver.
        return number == 0 && row.wasNull() ? null : (Object) number;
    }

    /** How many columns a field has. */
    public static int width(Field field) {
        return switch (field.type()) {
            case TextType text when text.isLocalised() -> text.languages().size();
            case MoneyType _, OutsideChoiceType _ -> 2;
            case FileType _ -> 4;
            default -> 1;
        };
    }

    /** A public id as 16 bytes, in the order in which they grow. */
    public static byte[] bytes(UUID id) {
        return ByteBuffer.allocate(16)
                .putLong(id.getMostSignificantBits())
                .putLong(id.getLeastSignificantBits())
                .array();
    }

    /** The public id of 16 bytes. */
    public static UUID uuid(byte[] bytes) {
        var buffer = ByteBuffer.wrap(bytes);
        return new UUID(buffer.getLong(), buffer.getLong());
    }
}
