/**
 * What is known of calls of services: {@link sandpiper.engine.call.Use} are those of one kind on
 * one day.
 */
@NullMarked
package sandpiper.engine.call;

import org.jspecify.annotations.NullMarked;
