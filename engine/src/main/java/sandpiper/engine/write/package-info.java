/**
 * The path of a write: {@link sandpiper.engine.write.RecordWrites} carries requests out, {@link
 * sandpiper.engine.write.UnitOfWork} says in which order the phases work, and keeps what changes
 * until all is known to be right.
 */
@NullMarked
package sandpiper.engine.write;

import org.jspecify.annotations.NullMarked;
