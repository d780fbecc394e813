package sandpiper.model.type;

/**
 * An amount whose currency belongs to the record.
 *
 * @param unscaled the value without its decimal point, at the type's scale
 * @param currency ISO 4217 code
 */
public record Money(long unscaled, String currency) {}
