/**
 * Random packages, and what happens to their records, held against a second and much simpler
 * implementation. Start at {@code GeneratedModelsTest}. A model and each action are read from lists
 * of numbers ({@code Choices}) in which 0 is always the simplest, so that jqwik shrinks what
 * failed.
 */
@org.jspecify.annotations.NullMarked
package sandpiper.store.generated;
