/**
 * What a field can hold. Each {@link sandpiper.model.type.FieldType} says in one place how its
 * values are read, written, compared, stored and described to other systems.
 *
 * <p>A value inside Sandpiper is in its <em>stored form</em>: a {@link Long} or a {@link String},
 * exact and sortable, or for fields of several columns a {@link sandpiper.model.type.Localised} or
 * {@link sandpiper.model.type.Money}. What comes from and goes to protocols is in <em>plain
 * form</em>: text, {@link java.math.BigDecimal}, {@link Long}, {@link Boolean}, and maps of these.
 * No value is {@code null} in both.
 */
@NullMarked
package sandpiper.model.type;

import org.jspecify.annotations.NullMarked;
