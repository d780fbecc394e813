/**
 * Work that is thrown away: {@link sandpiper.engine.trial.Trials} does what a request asks and
 * shows a {@link sandpiper.engine.trial.Trial} of it, for forms, for designers and for tries of
 * functions.
 */
@NullMarked
package sandpiper.engine.trial;

import org.jspecify.annotations.NullMarked;
