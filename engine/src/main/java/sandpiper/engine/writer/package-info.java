/**
 * The policy of writing: {@link sandpiper.engine.writer.Writer} runs jobs and answers them when
 * they are durable, on one thread or on many as the storage allows.
 */
@NullMarked
package sandpiper.engine.writer;

import org.jspecify.annotations.NullMarked;
