/**
 * What the engine asks of storage. Start at {@link sandpiper.engine.port.Storage}. Implemented by
 * the store; nothing here says which database it is.
 */
@NullMarked
package sandpiper.engine.port;

import org.jspecify.annotations.NullMarked;
