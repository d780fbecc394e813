/**
 * The phase that looks at what must hold: {@link sandpiper.engine.check.IntegrityChecks} at what
 * every record needs, {@link sandpiper.engine.check.ConstraintChecks} at what definitions say of
 * it.
 */
@NullMarked
package sandpiper.engine.check;

import org.jspecify.annotations.NullMarked;
