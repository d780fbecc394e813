/**
 * What an expression can come to, DMN 1.5 §10.3.2: {@link sandpiper.logic.value.Decimal numbers},
 * text, true and false, dates, times and durations, lists, {@link sandpiper.logic.value.Context
 * contexts}, {@link sandpiper.logic.value.Range ranges}, functions and records.
 *
 * <p>Values are plain Java objects: {@code String}, {@code Boolean}, {@code LocalDate}, {@code
 * java.time.Duration}, {@code List} and the types of this package. FEEL's null is {@link
 * sandpiper.logic.value.Nothing#NULL}, a value like any other, so that Java's null never stands for
 * it. {@link sandpiper.logic.value.Values} compares them, {@link sandpiper.logic.value.ValueText}
 * writes them, {@link sandpiper.logic.value.TemporalText} reads dates and times.
 */
@NullMarked
package sandpiper.logic.value;

import org.jspecify.annotations.NullMarked;
