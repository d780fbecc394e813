/**
 * The draft released on a copy of the live data, to see what it does there and how long it takes:
 * {@link sandpiper.engine.rehearsal.Rehearsals}.
 */
@NullMarked
package sandpiper.engine.rehearsal;

import org.jspecify.annotations.NullMarked;
