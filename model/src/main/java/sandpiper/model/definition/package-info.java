/**
 * What definition files say of an object, as it is written and before anything refers to anything:
 * {@link sandpiper.model.definition.RuleDefinition}, {@link sandpiper.model.definition.Lifecycle}
 * and the rest. {@link sandpiper.model.release.ObjectType} is put together from them.
 */
@NullMarked
package sandpiper.model.definition;

import org.jspecify.annotations.NullMarked;
