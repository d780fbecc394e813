package sandpiper.model.release;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TemporalText;
import sandpiper.logic.value.TimeOfDay;
import sandpiper.logic.value.ValueText;
import sandpiper.logic.value.Values;
import sandpiper.model.definition.Rounding;
import sandpiper.model.type.AskedLanguages;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;
import sandpiper.model.type.Localised;
import sandpiper.model.type.Money;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.type.ValueCode;

/**
 * Turns stored values into those of the language and back. A percent that is stored as 19 is 0.19
 * in the language.
 */
public final class Codec {
    private static final int PERCENT_PLACES = 2;
    private static final long MICROS_PER_SECOND = 1_000_000L;

    private Codec() {}

    /** The language's value; references are for whoever holds the records. */
    public static Object toLogic(FieldType type, @Nullable Object stored, ZoneId zone) {
        if (stored == null) {
            return Nothing.NULL;
        }
        return switch (type) {
            case NumberType number ->
                    Decimal.of(
                            (Long) stored,
                            number.keyword() == TypeKeyword.PERCENT
                                    ? number.scale() + PERCENT_PLACES
                                    : number.scale());
            case MoneyType money -> {
                var amount = (Money) stored;
                yield new Amount(Decimal.of(amount.unscaled(), money.scale()), amount.currency());
            }
            case BooleanType _ -> (Long) stored != 0;
            case TemporalType temporal -> moment(temporal, (Long) stored, zone);
            case TextType text when stored instanceof Localised texts -> asked(text, texts);
            case OutsideChoiceType outside -> outside.write(stored);
            case FileType _ -> file((KeptFile) stored);
            default -> (Object) stored.toString();
        };
    }

    /** In the language of who asks, or in the main one when there is none in that. */
    private static Object asked(TextType type, Localised texts) {
        int place = AskedLanguages.current().place(type.languages());
        var text = texts.text(place);
        return orNull(text == null ? texts.text(0) : text);
    }

    /** A localised text in one language by its place. */
    public static Object inLanguage(@Nullable Object stored, int place) {
        return orNull(stored instanceof Localised texts ? texts.text(place) : null);
    }

    private static Object orNull(@Nullable String text) {
        return text == null ? Nothing.NULL : text;
    }

    private static Object moment(TemporalType type, long stored, ZoneId zone) {
        return switch (type.keyword()) {
            case DATE -> LocalDate.ofEpochDay(stored);
            case TIME -> new TimeOfDay(LocalTime.ofNanoOfDay(stored * 1_000), null);
            case DURATION ->
                    Duration.ofSeconds(
                            Math.floorDiv(stored, MICROS_PER_SECOND),
                            Math.floorMod(stored, MICROS_PER_SECOND) * 1_000);
            default -> Moment.of(TemporalType.instant(stored), zone);
        };
    }

    /**
     * The stored form of a value that logic came to, or why it cannot be stored. Numbers are
     * rounded to the field's decimal places.
     */
    public static ParsedValue toStored(
            FieldType type, Object value, ZoneId zone, Rounding rounding) {
        return switch (type) {
            case NumberType number -> number(number, value, rounding.mode());
            case MoneyType money -> money(money, value, rounding.mode());
            case BooleanType _ ->
                    value instanceof Boolean flag
                            ? ParsedValue.taken(flag ? 1L : 0L)
                            : wrong(value);
            case TemporalType temporal -> temporal(temporal, value, zone);
            case FileType _ -> file(value);
            default -> type.readText(ValueText.of(value));
        };
    }

    private static ParsedValue wrong(Object value) {
        return ParsedValue.wrongType("cannot hold " + Values.kind(value));
    }

    private static ParsedValue number(NumberType type, Object value, RoundingMode rounding) {
        var number = value instanceof Amount amount ? amount.value() : value;
        if (!(number instanceof Decimal decimal)) {
            return wrong(value);
        }
        int places =
                type.keyword() == TypeKeyword.PERCENT
                        ? type.scale() + PERCENT_PLACES
                        : type.scale();
        var unscaled = decimal.unscaled(places, rounding);
        if (unscaled.isEmpty()) {
            return new ParsedValue.Refused(
                    ValueCode.OUT_OF_RANGE, "would be too large: " + decimal);
        }
        // The type's own bounds hold for what is worked out as well.
        return type.read(BigDecimal.valueOf(unscaled.getAsLong(), type.scale()));
    }

    private static ParsedValue money(MoneyType type, Object value, RoundingMode rounding) {
        if (!(value instanceof Amount amount)) {
            return wrong(value);
        }
        var unscaled = amount.value().unscaled(type.scale(), rounding);
        return unscaled.isPresent()
                ? ParsedValue.taken(new Money(unscaled.getAsLong(), amount.currency()))
                : new ParsedValue.Refused(ValueCode.OUT_OF_RANGE, "would be too large");
    }

    private static ParsedValue temporal(TemporalType type, Object value, ZoneId zone) {
        return switch (type.keyword()) {
            case DATE ->
                    switch (value) {
                        case LocalDate date -> type.read(date.toString());
                        case Moment moment -> type.read(moment.local().toLocalDate().toString());
                        default -> wrong(value);
                    };
            case TIME ->
                    value instanceof TimeOfDay time
                            ? type.read(time.time().toString())
                            : wrong(value);
            case DURATION ->
                    value instanceof Duration duration
                            ? type.read(TemporalText.write(duration))
                            : wrong(value);
            default ->
                    switch (value) {
                        case Moment moment -> type.read(moment.instant(zone).toString());
                        case LocalDate date ->
                                type.read(date.atStartOfDay(zone).toInstant().toString());
                        default -> wrong(value);
                    };
        };
    }

    private static Context file(KeptFile file) {
        var entries = new LinkedHashMap<String, Object>();
        entries.put(FileType.NAME, file.name());
        entries.put(FileType.TYPE, file.mediaType());
        entries.put(FileType.SIZE, Decimal.of(file.size(), 0));
        entries.put(FileType.SHA256, file.sha256());
        return new Context(entries);
    }

    /** The file a context stands for: one that is kept, since logic makes none. */
    private static ParsedValue file(Object value) {
        return value instanceof Context context
                        && context.get(FileType.NAME) instanceof String name
                        && context.get(FileType.TYPE) instanceof String type
                        && context.get(FileType.SIZE) instanceof Decimal size
                        && context.get(FileType.SHA256) instanceof String sha256
                ? ParsedValue.taken(
                        new KeptFile(
                                name,
                                type,
                                size.unscaled(0, RoundingMode.DOWN).orElse(0),
                                sha256,
                                null))
                : wrong(value);
    }
}
