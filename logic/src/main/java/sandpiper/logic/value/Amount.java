package sandpiper.logic.value;

/**
 * Money whose currency is kept beside it.
 *
 * @param currency ISO 4217 code
 */
public record Amount(Decimal value, String currency) {
    @Override
    public String toString() {
        return value + " " + currency;
    }
}
