/** Carrying everything from one engine to another: {@link sandpiper.store.move.Mover}. */
@NullMarked
package sandpiper.store.move;

import org.jspecify.annotations.NullMarked;
