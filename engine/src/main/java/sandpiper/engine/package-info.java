/**
 * The heart: everything that is done to records and definitions goes through here, whatever
 * protocol it came by. Start at {@link sandpiper.engine.Engine}. Knows nothing of HTTP, JSON or
 * SQL; where data lives is behind the interfaces in {@code port}.
 */
@NullMarked
package sandpiper.engine;

import org.jspecify.annotations.NullMarked;
