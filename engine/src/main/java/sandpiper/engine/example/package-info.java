/**
 * Proves requirements by their examples. Start at {@link sandpiper.engine.example.Examples}: it
 * puts the definitions on an empty store of their own, plays each example there, and throws
 * everything away.
 */
@NullMarked
package sandpiper.engine.example;

import org.jspecify.annotations.NullMarked;
