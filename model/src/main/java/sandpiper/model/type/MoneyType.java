package sandpiper.model.type;

import java.math.BigDecimal;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.type.LogicType;

/**
 * An amount whose currency belongs to the record: in plain form {@code {"value": 12.50, "currency":
 * "EUR"}}, in text {@code 12.50 EUR}.
 *
 * @param scale decimal places, 0 to 9
 */
public record MoneyType(int scale) implements FieldType {
    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.AMOUNT;
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.NUMBER;
    }

    @Override
    public ParsedValue read(Object plain) {
        var value = plain instanceof Map<?, ?> map && map.size() == 2 ? map.get("value") : null;
        if (value == null || !(((Map<?, ?>) plain).get("currency") instanceof String currency)) {
            return ParsedValue.wrongType(
                    "must have a value and a currency, as in {\"value\": 12.50, \"currency\":"
                            + " \"EUR\"}");
        }
        return together(new NumberType(TypeKeyword.AMOUNT, scale, null).read(value), currency);
    }

    @Override
    public ParsedValue readText(String text) {
        var words = text.strip().split("\\s+", -1);
        return words.length == 2
                ? together(
                        new NumberType(TypeKeyword.AMOUNT, scale, null).readText(words[0]),
                        words[1])
                : ParsedValue.wrongType("must have a value and a currency, as in 12.50 EUR");
    }

    private static ParsedValue together(ParsedValue number, String currency) {
        if (!(number instanceof ParsedValue.Taken(var unscaled))) {
            return number;
        }
        try {
            return ParsedValue.taken(
                    new Money((Long) unscaled, Currency.getInstance(currency).getCurrencyCode()));
        } catch (IllegalArgumentException _) {
            return new ParsedValue.Refused(
                    ValueCode.UNKNOWN_CHOICE,
                    "must have a currency of ISO 4217, as in EUR, but was "
                            + sandpiper.logic.Quoted.of(currency));
        }
    }

    @Override
    public Object write(Object stored) {
        var money = (Money) stored;
        var plain = new LinkedHashMap<String, Object>();
        plain.put("value", BigDecimal.valueOf(money.unscaled(), scale));
        plain.put("currency", money.currency());
        return plain;
    }

    @Override
    public String writeText(Object stored) {
        var money = (Money) stored;
        return BigDecimal.valueOf(money.unscaled(), scale).toPlainString() + " " + money.currency();
    }

    @Override
    public List<Column> columns() {
        return List.of(new Column("", Storage.INTEGER), new Column("_currency", Storage.TEXT));
    }

    @Override
    public Storage stores() {
        return Storage.INTEGER;
    }

    @Override
    public Map<String, Object> schema() {
        var properties = new LinkedHashMap<String, Object>();
        properties.put("value", new NumberType(TypeKeyword.AMOUNT, scale, null).schema());
        properties.put(
                "currency", new LinkedHashMap<>(Map.of("type", "string", "pattern", "^[A-Z]{3}$")));
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "object");
        schema.put("properties", properties);
        schema.put("required", List.of("value", "currency"));
        schema.put("additionalProperties", false);
        return schema;
    }

    @Override
    public Object example() {
        return write(
                new Money(
                        BigDecimal.valueOf(12).setScale(scale).unscaledValue().longValueExact(),
                        "EUR"));
    }
}
