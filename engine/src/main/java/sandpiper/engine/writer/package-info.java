/**
 * The policy of writing: {@link sandpiper.engine.writer.Writer} is one thread that runs jobs one
 * after another in shared transactions and answers them when they are durable.
 */
@NullMarked
package sandpiper.engine.writer;

import org.jspecify.annotations.NullMarked;
